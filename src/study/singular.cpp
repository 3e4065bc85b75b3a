#include "singular.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/text.hpp"
#include "vle_working.hpp"

namespace jampot {

std::string members_of(const SingularPoint& point, const std::vector<Substance>& substances) {
  std::vector<std::string> members;
  for (const std::size_t i : point.members) members.push_back(substances[i].short_name());
  return joined(members, " + ");
}

std::string kind_of(const SingularPoint& point) {
  if (point.members.size() == 1) return "pure";
  return point.heterogeneous ? "heterogeneous" : "homogeneous";
}

void add_doubtful_predictions(const Mixture& mixture, const std::vector<SingularPoint>& points,
                              Notices& notices) {
  const bool predicted =
      mixture.unifac() != nullptr || std::any_of(mixture.parameters().begin(), mixture.parameters().end(),
                                                 [](const PairParameters& pair) { return pair.estimated; });
  if (!predicted) return;
  // Most predicted azeotropes are within this of the handbooks (docs/unifac-azeotropes.md).
  constexpr double error = 0.05;
  for (const SingularPoint& point : points) {
    if (point.members.size() < 2 || point.heterogeneous) continue;
    const auto largest = std::max_element(point.x.begin(), point.x.end());
    if (*largest < 1 - error) continue;
    const Substance& substance = mixture.substances()[static_cast<std::size_t>(largest - point.x.begin())];
    notices.add(
        "azeotrope-near-pure",
        fmt::format("the azeotrope of {} is predicted at {:.3f} from pure {}: predictions are off by up to "
                    "{} in mole fraction for most pairs, so it may not exist",
                    members_of(point, mixture.substances()), 1 - *largest, substance.name, error));
  }
}

std::vector<std::string> azeotrope_working(Mixture& mixture, const SingularPoints& found) {
  const auto azeotrope = std::find_if(found.points.begin(), found.points.end(),
                                      [](const SingularPoint& point) { return point.members.size() > 1; });
  if (azeotrope == found.points.end()) return {"", "there is no azeotrope to write out"};
  std::vector<std::string> lines{"", fmt::format("{} azeotrope of {}", kind_of(*azeotrope),
                                                 members_of(*azeotrope, mixture.substances()))};
  const std::vector<std::vector<double>> liquids =
      azeotrope->heterogeneous ? azeotrope->liquids : std::vector<std::vector<double>>{azeotrope->x};
  for (const std::vector<double>& x : liquids) {
    const auto one = vle_working(mixture, azeotrope->T_K, found.P_Pa, x, azeotrope->x);
    lines.insert(lines.end(), one.begin(), one.end());
  }
  if (!azeotrope->heterogeneous) {
    lines.push_back(
        fmt::format("azeotrope: y_i = x_i;  largest |ln(y_i/x_i)| = {:.1e}", azeotrope->residual));
    return lines;
  }
  // The vapour lies on the straight line (or plane) between the liquids: the whole liquid has its
  // composition.
  lines.emplace_back(
      "all liquids give the same vapour;  the whole liquid, their mixture, has its composition:");
  for (const std::size_t i : azeotrope->members) {
    std::string text = fmt::format("y_{} = {:.6g}, between", i + 1, azeotrope->x[i]);
    for (const std::vector<double>& x : liquids) text += fmt::format(" {:.6g}", x[i]);
    lines.push_back(std::move(text));
  }
  return lines;
}

}  // namespace jampot
