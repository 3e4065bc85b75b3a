#include "jampot/study/residue.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/known/facts.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/study/held.hpp"
#include "reach.hpp"
#include "singular.hpp"

namespace jampot {
namespace {

class Maps {
 public:
  explicit Maps(const ResidueRequest& request) : request_(request) {
    const std::size_t n = request.mixture.substances.size();
    if (n != 3) throw RequestError(fmt::format("a residue curve map has three substances; {} are named", n));
    if (request.curves < 0 || request.curves > 500)
      throw RequestError(fmt::format("`curves` {}: expected 0 to 500", request.curves));
    demand_count("isotherms", static_cast<double>(request.isotherms_K.size()), 200);
    study_.contenders = prepare_all(request.mixture, request.compare, study_.notices);
    study_.P_Pa = request.P_Pa;
    study_.through = request.through;
    study_.decanter_T_K = request.decanter_T_K;
    add_handbook();
  }

  ResidueStudy found() {
    ResidueOptions wanted{request_.curves, {}, request_.progress};
    for (const AskedComposition& asked : request_.through) wanted.through.push_back(asked.x);
    for (std::size_t k = 0; k < study_.contenders.size(); ++k) {
      study_.maps.push_back(map_of(k, wanted));
      wanted.curves = 0;  // of the others no curves are drawn
      wanted.through.clear();
    }
    Mixture& first = study_.contenders.front().mixture;
    tie_lines(first);
    for (const auto& z : request_.feeds)
      study_.feeds.push_back(read_feed(first, study_.map(), z, request_.decanter_T_K));
    if (request_.working) study_.working = azeotrope_working(first, study_.map().singular);
    if (!request_.isotherms_K.empty())
      study_.isotherms = isotherms(first, request_.P_Pa, study_.map().two_liquids, request_.isotherms_K);
    return std::move(study_);
  }

 private:
  ResidueMap map_of(std::size_t number, const ResidueOptions& wanted) {
    Contender& contender = study_.contenders[number];
    ResidueMap map = residue_map(contender.mixture, request_.P_Pa, wanted);
    Reach reach;
    for (const SingularPoint& point : map.singular.points) reach.include(point.T_K, request_.P_Pa);
    Notices& notices = study_.notices;
    for (const Notice& notice : map.notices)
      notices.add(notice.code, (study_.compared() ? contender.label + ": " : "") + notice.text);
    add_doubtful_predictions(contender.mixture, map.singular.points, notices);
    for (const Notice& notice : contender.mixture.range_notices(reach.coldest_K, reach.hottest_K)) {
      const bool of_substance = notice.code.starts_with("vapour-pressure");  // said once, of the first
      if (!of_substance || number == 0) notices.add(notice.code, notice.text);
    }
    reach.add_doubts(contender.mixture, notices);
    return map;
  }

  void add_handbook() {
    const auto& substances = study_.substances();
    std::vector<std::string> names;
    for (const Substance& substance : substances) names.push_back(substance.name);
    for (const Fact* fact : KnownFacts::built_in().among(names)) {
      constexpr double part = 0.05;
      if (fact->kind != FactKind::azeotrope || fact->x.size() != fact->substances.size()) continue;
      if (std::abs(fact->P_Pa / request_.P_Pa - 1) > part) continue;
      HandbookAzeotrope azeotrope{{}, fact->T_K, fact->heterogeneous};
      for (std::size_t k = 0; k < fact->x.size(); ++k)
        azeotrope.x[member_named(fact->substances[k], substances)] = fact->x[k];
      study_.handbook.push_back(azeotrope);
    }
  }

  void tie_lines(Mixture& mixture) {
    BoilingLiquid boiling(mixture, request_.P_Pa, study_.map().two_liquids);
    for (const AskedComposition& asked : request_.tie_lines) {
      if (const auto found = boiling.tie_line(asked.x)) {
        study_.tie_lines.push_back({asked, found->line, found->share});
      } else {
        study_.notices.add(
            "no-tie-line",
            fmt::format("no tie line passes through {}: it boils as one liquid or as three", asked.name()));
      }
    }
  }

  const ResidueRequest& request_;
  ResidueStudy study_;
};

}  // namespace

ResidueStudy study(const ResidueRequest& request) {
  return Maps(request).found();
}

}  // namespace jampot
