#include "jampot/study/route.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

class Words {
 public:
  explicit Words(const std::vector<Substance>& substances) : substances_(substances) {}

  // "0.85 mol of ethanol", "1.01 mol (ethanol 0.155, water 0.012, benzene 0.834)"
  std::string stream(const std::array<double, 3>& n) const {
    const double total = n[0] + n[1] + n[2];
    std::vector<std::string> parts;
    for (std::size_t i = 0; i < 3; ++i) {
      constexpr double none = 1e-7;
      if (n[i] > (1 - none) * total) return fmt::format("{:.3f} mol of {}", total, name(i));
      if (n[i] > none * total) parts.push_back(fmt::format("{} {:.3f}", name(i), n[i] / total));
    }
    return fmt::format("{:.3f} mol ({})", total, joined(parts, ", "));
  }

  std::string unit(const Route& route, std::size_t number) const {
    const RouteUnit& unit = route.units[number];
    const std::array<const char*, 2> names =
        unit.decanter ? std::array{"one liquid", "the other"} : std::array{"overhead", "bottoms"};
    std::string text =
        fmt::format("{} {} takes {}: ", unit.decanter ? "decanter" : "column", number + 1, stream(unit.in));
    for (std::size_t o = 0; o < 2; ++o) {
      const RouteStream& out = unit.out[o];
      text += fmt::format("{}{} {}{}", o == 0 ? "" : "; ", names[o], stream(out.n), end(route, out.to));
    }
    if (unit.relies_on_curvature())
      text += ". It works across a boundary and relies on the boundary being curved";
    return text;
  }

 private:
  const std::string& name(std::size_t i) const { return substances_[i].name; }

  static std::string end(const Route& route, const StreamEnd& to) {
    if (to.kind == StreamEnd::Kind::product) return ", a product";
    return fmt::format(", {} {} {}", to.kind == StreamEnd::Kind::unit ? "to" : "back to",
                       route.units[to.number].decanter ? "decanter" : "column", to.number + 1);
  }

  const std::vector<Substance>& substances_;
};

}  // namespace

RouteStudy study(const RouteRequest& request) {
  if (request.mixture.substances.size() != 3)
    throw RequestError(fmt::format("a route is read off a map of three substances; {} are named",
                                   request.mixture.substances.size()));
  if (request.most_units < 1 || request.most_units > 6)
    throw RequestError(fmt::format("`most-units` {}: expected 1 to 6", request.most_units));
  const std::array<double, 3> z = three(request.feed.fractions());
  if (std::count_if(z.begin(), z.end(), [](double part) { return part > 0; }) < 2)
    throw RequestError("the feed is pure; there is nothing to separate");
  if (request.decanter_T_K) demand_temperature(*request.decanter_T_K);
  ResidueRequest wanted;
  wanted.mixture = request.mixture;
  wanted.P_Pa = request.P_Pa;
  wanted.curves = request.curves;
  wanted.progress = request.progress;
  RouteStudy study;
  study.map = jampot::study(wanted);
  study.feed = request.feed;
  study.decanter_T_K = request.decanter_T_K;
  study.notices = study.map.notices;
  study.routes = routes(study.map.contenders.front().mixture, study.map.map(),
                        {z, request.decanter_T_K, request.most_units});
  const std::vector<Substance>& substances = study.substances();
  if (study.routes.empty()) {
    study.verdict = fmt::format(
        "no sequence of up to {} columns and decanters makes pure products of this feed", request.most_units);
    study.notices.add(
        "no-route",
        study.verdict +
            ". Not looked at: a second feed higher up (extractive distillation: 'jampot screen' ranks "
            "entrainers), a second pressure ('jampot swing'), another entrainer, a decanter at another "
            "temperature");
    return study;
  }
  const Route& first = study.routes.front();
  study.verdict = fmt::format(
      "{} {}, {:.3f} mol sent back per mol of feed{}", first.units.size(),
      first.units.size() == 1 ? "column" : "columns and decanters", first.recycled,
      first.entrainer > 0
          ? fmt::format(
                "; {:.3g} mol of {} goes round per mol of feed (the best of "
                "the amounts tried)",
                first.entrainer,
                substances[static_cast<std::size_t>(std::find(z.begin(), z.end(), 0.0) - z.begin())].name)
          : std::string());
  const Words words(substances);
  for (std::size_t k = 0; k < first.units.size(); ++k)
    study.sentences.push_back((k == 0 ? "for each mol of feed " : "") + words.unit(first, k));
  if (first.relies_on_curvature())
    study.notices.add("boundary-curvature",
                      "this route works across a distillation boundary because the boundary is curved; where "
                      "the model bends it otherwise, it fails, so measure near it first");
  return study;
}

}  // namespace jampot
