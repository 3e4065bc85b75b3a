#include "jampot/study/ternary.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/working.hpp"
#include "liquids.hpp"

namespace jampot {

bool TernaryStudy::parts() const {
  return std::any_of(diagrams.begin(), diagrams.end(),
                     [](const TernaryByModel& one) { return !one.diagram.regions.empty(); });
}

namespace {

// The share of beta on a tie line through z, read along the fraction that differs most.
double share_of_beta(const TieLine& line, const std::array<double, 3>& z) {
  double share = 0, largest = 0;
  for (std::size_t i = 0; i < 3; ++i) {
    const double step = line.beta[i] - line.alpha[i];
    if (std::abs(step) <= largest) continue;
    largest = std::abs(step);
    share = (z[i] - line.alpha[i]) / step;
  }
  return share;
}

class Triangles {
 public:
  explicit Triangles(const TernaryRequest& request) : request_(request) {
    study_.contenders = liquid_contenders(request.mixture, request.compare, study_.notices);
    study_.T_K = request.T_K;
    const std::size_t n = study_.substances().size();
    if (n != 3) throw RequestError(fmt::format("a triangle has three substances; {} are named", n));
    for (const DataSet& set : request.measured)
      study_.measured.push_back(in_order_of(study_.substances(), set));
  }

  TernaryStudy found() {
    add_liquid_notices(study_.contenders, request_.T_K, request_.T_K, study_.notices);
    for (std::size_t k = 0; k < study_.contenders.size(); ++k) {
      add_diagram(study_.contenders[k].mixture);
      if (request_.uncertainty && k == 0) uncertainty();
      overlays(k);
    }
    through();
    if (request_.working) work();
    if (!study_.parts())
      study_.notices.add("one-liquid",
                         "the three are one liquid at every composition at this temperature, by this model");
    return std::move(study_);
  }

 private:
  ActivityModel& first_model() { return study_.contenders.front().mixture.activity(); }

  void add_diagram(Mixture& mixture) {
    TernaryOptions wanted;
    wanted.tie_lines = request_.tie_lines;
    TernaryByModel one;
    one.diagram = ternary_diagram(mixture.activity(), request_.T_K, wanted);
    study_.notices.add(one.diagram.notices);
    one.roles = roles_in(one.diagram, request_.solute, request_.solvent);
    study_.diagrams.push_back(std::move(one));
  }

  void uncertainty() {
    const Mixture& mixture = study_.contenders.front().mixture;
    const TernaryDiagram& diagram = study_.diagrams.front().diagram;
    std::vector<TieLine> lines;
    for (const ShownTieLine& line : diagram.tie_lines) lines.push_back(line.line);
    study_.uncertainties = tie_line_uncertainties(mixture, request_.T_K, lines);
    for (const TwoLiquidRegion& region : diagram.regions)
      study_.bands.push_back(tie_line_uncertainties(mixture, request_.T_K, region.tie_lines));
  }

  void overlays(std::size_t number) {
    for (const DataSet& set : study_.measured) {
      study_.notices.add(set.notices);
      for (const DataPoint& point : set.points) {
        if (std::abs(point.T_K - request_.T_K) > 0.5 && !study_.notices.has("other-temperature"))
          study_.notices.add(
              "other-temperature",
              fmt::format("{} has pairs at other temperatures than the triangle; deviations are taken at "
                          "their own",
                          set.name));
      }
      study_.beside.push_back(
          {set.name, number, compare_liquids(study_.contenders[number].mixture.activity(), set)});
    }
  }

  void through() {
    for (const AskedComposition& asked : request_.through) {
      if (const auto found = tie_line_through(first_model(), request_.T_K, asked.x)) {
        study_.through.push_back({asked, found->line, share_of_beta(found->line, asked.x)});
      } else {
        study_.notices.add(
            "no-tie-line",
            fmt::format("no tie line passes through {}: it is one liquid or three there", asked.name()));
      }
    }
  }

  void work() {
    const auto& lines = study_.diagrams.front().diagram.tie_lines;
    if (lines.empty()) return;
    const auto& x = lines[lines.size() / 2].line.alpha;
    study_.working = working(first_model(), study_.substances(), request_.T_K, {x.begin(), x.end()});
  }

  const TernaryRequest& request_;
  TernaryStudy study_;
};

}  // namespace

TernaryStudy study(const TernaryRequest& request) {
  return Triangles(request).found();
}

}  // namespace jampot
