#include "singular_tables.hpp"

#include <fmt/format.h>

#include "jampot/basis/text.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot::tool {
namespace {

std::vector<std::string> names_of(const SingularPoint& point, const std::vector<Substance>& substances) {
  std::vector<std::string> members;
  for (const std::size_t i : point.members) members.push_back(substances[i].short_name());
  return members;
}

}  // namespace

std::string members_of(const SingularPoint& point, const std::vector<Substance>& substances) {
  return joined(names_of(point, substances), " + ");
}

std::string kind_of(const SingularPoint& point) {
  if (point.members.size() == 1) return "pure";
  return point.heterogeneous ? "heterogeneous" : "homogeneous";
}

Json to_json(const SingularPoint& point, double P_Pa, const std::vector<Substance>& substances) {
  Json json{{"members", names_of(point, substances)},
            {"T_K", point.T_K},
            {"P_Pa", P_Pa},
            {"x", point.x},
            {"w", mass_fractions(point.x, substances)},
            {"kind", kind_of(point)},
            {"stability", name_of(point.stability)},
            {"eigenvalues", point.eigenvalues},
            {"residual", point.residual}};
  if (point.heterogeneous) json["liquids"] = point.liquids;
  return json;
}

std::string balance_of(const SingularPoints& found) {
  return fmt::format("index balance {} ({} of {})", found.balanced() ? "met" : "not met", found.index_sum,
                     found.index_expected);
}

}  // namespace jampot::tool
