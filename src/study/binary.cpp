#include "jampot/study/binary.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "reach.hpp"
#include "vle_working.hpp"

namespace jampot {
namespace {

// Measured points that were taken at another pressure or temperature than the diagram's do not belong on it.
void check_overlays(const std::vector<BinaryCurve>& curves, const std::vector<DataSet>& sets,
                    Notices& notices) {
  for (const DataSet& set : sets) {
    const bool drawn_isobaric = curves.front().sought == Sought::temperature;
    int off = 0;
    for (const DataPoint& point : set.points) {
      bool near = false;
      for (const BinaryCurve& curve : curves) {
        const BinaryPoint& any = curve.points.front();
        near = near || (drawn_isobaric ? std::abs(std::log(point.P_Pa / any.P_Pa)) < 0.02
                                       : std::abs(point.T_K - any.T_K) < 0.5);
      }
      if (!near) ++off;
    }
    if (off > 0) {
      notices.add(
          "measured-elsewhere",
          fmt::format("{} of {} points of {} were measured at another {} than the diagram is drawn at; their "
                      "deviations are computed at their own",
                      off, set.points.size(), set.name, drawn_isobaric ? "pressure" : "temperature"));
    }
  }
}

class Curves {
 public:
  explicit Curves(const BinaryRequest& request) : request_(request) {
    if (request.points < 3 || request.points > 100001)
      throw RequestError("`points`: expected a number from 3 to 100001");
    if (request.mixture.substances.size() != 2)
      throw RequestError(
          fmt::format("this is about two substances; {} are named", request.mixture.substances.size()));
    if (request.held.values.empty()) throw RequestError("there is no pressure or temperature to hold");
    study_.held = request.held;
    study_.contenders = prepare_all(request.mixture, request.compare, study_.notices);
    for (const DataSet& set : request.measured)
      study_.measured.push_back(in_order_of(study_.mixture().substances(), set));
  }

  BinaryStudy found() {
    demand_count("points of curves",
                 static_cast<double>(request_.held.values.size() * study_.contenders.size()) *
                     std::max(3, request_.points),
                 10 * most_states);
    for (Contender& contender : study_.contenders) calculate(contender);
    for (std::size_t k = 0; k < study_.contenders.size(); ++k) {
      for (const DataSet& set : study_.measured) {
        study_.beside.push_back({set.name, k, compare(study_.contenders[k].mixture, set)});
        study_.notices.add(set.notices);
      }
    }
    for (const double value : request_.held.values) add_handbook(value);
    check_overlays(study_.curves, study_.measured, study_.notices);
    Mixture& first = study_.contenders.front().mixture;
    for (std::size_t k = 0; request_.uncertainty && k < request_.held.values.size(); ++k)
      study_.bands.push_back(uncertainty_band(first, study_.curves[k]));
    if (request_.working) {  // of the middle of the diagram
      const BinaryCurve& curve = study_.curves.front();
      const BinaryPoint& point = curve.points[curve.points.size() / 2];
      study_.working =
          vle_working(first, point.T_K, point.P_Pa, {point.x[0], point.x[1]}, {point.y[0], point.y[1]});
    }
    return std::move(study_);
  }

 private:
  void add_handbook(double held) {
    const auto& substances = study_.mixture().substances();
    for (const Fact* fact : KnownFacts::built_in().about(substances[0].name, substances[1].name)) {
      if (fact->kind != FactKind::azeotrope || fact->x.empty()) continue;
      constexpr double part = 0.05, near_K = 1;
      const bool here = request_.held.isobaric() ? std::abs(fact->P_Pa / held - 1) < part
                                                 : std::abs(fact->T_K - held) < near_K;
      const bool same_order = fact->substances[0] == substances[0].name;
      if (here)
        study_.handbook.push_back({fact->T_K, fact->P_Pa, fact->x[same_order ? 0 : 1], fact->heterogeneous,
                                   fact->maximum ? Extremum::maximum_boiling : Extremum::minimum_boiling, 0});
    }
  }

  void calculate(Contender& contender) {
    Reach reach;
    const CurveOptions options{static_cast<std::size_t>(request_.points)};
    const std::size_t first = study_.curves.size();
    for (const double value : request_.held.values) {
      BinaryCurve curve = request_.held.isobaric() ? txy(contender.mixture, value, options)
                                                   : pxy(contender.mixture, value, options);
      for (const BinaryPoint& point : curve.points) reach.include(point.T_K, point.P_Pa);
      if (study_.compared()) curve.label = contender.label;
      study_.curves.push_back(std::move(curve));
    }
    reach.add_doubts(contender.mixture, study_.curves[first].notices);
    for (std::size_t k = first; k < study_.curves.size(); ++k) {
      // What concerns the substances is the same for every model compared; once is enough.
      for (const Notice& notice : study_.curves[k].notices) {
        const bool of_substance = notice.code.starts_with("vapour-pressure");
        if (of_substance && first > 0) continue;
        study_.notices.add(notice.code, notice.text);
      }
    }
  }

  const BinaryRequest& request_;
  BinaryStudy study_;
};

}  // namespace

BinaryStudy study(const BinaryRequest& request) {
  return Curves(request).found();
}

}  // namespace jampot
