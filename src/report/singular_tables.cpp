#include "singular_tables.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

// Names as in the list of substances: labels are for people.
Json names_of(const SingularPoint& point, const std::vector<Substance>& substances) {
  Json members = Json::array();
  for (const std::size_t i : point.members) members.push_back(substances[i].name);
  return members;
}

}  // namespace

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

}  // namespace jampot
