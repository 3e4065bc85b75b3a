#include "jampot/study/points.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "reach.hpp"
#include "vle_working.hpp"

namespace jampot {

std::vector<std::vector<double>> compositions_of(const Slice& slice,
                                                 const std::vector<Substance>& substances) {
  if (substances.size() != 3 || slice.component > 2 || !(slice.fraction >= 0 && slice.fraction < 1))
    throw RequestError("a slice is of three substances, at a fraction of one of them from 0 to below 1");
  if (slice.points < 3 || slice.points > 10001)
    throw RequestError("`points`: expected a number from 3 to 10001");
  std::vector<std::vector<double>> compositions;
  for (int k = 0; k < slice.points; ++k) {
    std::vector<double> x(3);
    const double share = static_cast<double>(k) / (slice.points - 1);
    x[slice.component] = slice.fraction;
    x[slice.component == 0 ? 1 : 0] = (1 - slice.fraction) * share;
    x[slice.component == 2 ? 1 : 2] = (1 - slice.fraction) * (1 - share);
    compositions.push_back(slice.basis == Basis::mass ? mole_fractions(x, substances) : x);
  }
  return compositions;
}

namespace {

class Points {
 public:
  Points(const PointsRequest& request, bool bubble) : request_(request) {
    study_.bubble = bubble;
    study_.contenders = prepare_all(request.mixture, request.compare, study_.notices);
    study_.slice = request.slice;
    study_.sought = request.held.sought;
    for (const DataSet& set : request.measured)
      study_.measured.push_back(in_order_of(study_.mixture().substances(), set));
  }

  PointsStudy found() {
    std::vector<std::vector<double>> compositions = request_.compositions;
    if (request_.slice) {
      for (auto& x : compositions_of(*request_.slice, study_.mixture().substances()))
        compositions.push_back(std::move(x));
    }
    if (compositions.empty() && study_.measured.empty())
      throw RequestError("there is no composition to find the point of");
    demand_count("states",
                 static_cast<double>(compositions.size()) *
                     static_cast<double>(std::max<std::size_t>(1, request_.held.values.size())),
                 most_states);
    for (Contender& contender : study_.contenders) {
      study_.points.push_back(solve(contender.mixture, compositions));
      if (study_.points.back().empty()) throw RequestError("there is no pressure or temperature to hold");
    }
    for (std::size_t k = 0; k < study_.contenders.size(); ++k) {
      for (const DataSet& set : study_.measured) {
        study_.beside.push_back({set.name, k, compare(study_.contenders[k].mixture, set)});
        study_.notices.add(set.notices);
      }
    }
    if (request_.working) {
      const VlePoint& point = study_.points.front().front();
      study_.working =
          vle_working(study_.contenders.front().mixture, point.T_K, point.P_Pa, point.x, point.y);
    }
    return std::move(study_);
  }

 private:
  std::vector<VlePoint> solve(Mixture& mixture, const std::vector<std::vector<double>>& compositions) {
    const bool T_sought = request_.held.isobaric();
    std::vector<VlePoint> points;
    for (const std::vector<double>& z : compositions) {
      for (const double value : request_.held.values) {
        if (study_.bubble)
          points.push_back(T_sought ? bubble_temperature(mixture, value, z)
                                    : bubble_pressure(mixture, value, z));
        else
          points.push_back(T_sought ? dew_temperature(mixture, value, z) : dew_pressure(mixture, value, z));
      }
    }
    if (compositions.empty()) {  // the measured points at their own conditions
      for (const DataSet& set : study_.measured) {
        for (const DataPoint& point : set.points)
          points.push_back(isobaric(set.kind) ? bubble_temperature(mixture, point.P_Pa, point.x)
                                              : bubble_pressure(mixture, point.T_K, point.x));
      }
    }
    Reach reach;
    for (const VlePoint& point : points) reach.include(point.T_K, point.P_Pa);
    // One statement for the whole range instead of one for every point.
    reach.add_notices(mixture, study_.notices);
    for (const VlePoint& point : points) {
      for (const Notice& notice : point.notices) {
        if (!study_.notices.has(notice.code)) study_.notices.add(notice.code, notice.text);
      }
    }
    return points;
  }

  const PointsRequest& request_;
  PointsStudy study_;
};

}  // namespace

PointsStudy study(const BubbleRequest& request) {
  return Points(request, true).found();
}

PointsStudy study(const DewRequest& request) {
  return Points(request, false).found();
}

}  // namespace jampot
