#pragma once
// The subgroups of the three published UNIFAC tables and the make-up of molecules from them.
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "jampot/substance/group_contributions.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Which published table. Groups of one name differ between tables in their size and in their partners.
enum class UnifacTable {
  vle,  ///< for vapour-liquid equilibria: Hansen et al., Ind. Eng. Chem. Res. 30 (1991) 2352
  lle,  ///< for liquid-liquid equilibria: Magnussen et al., Ind. Eng. Chem. Process Des. Dev. 20 (1981) 331
  dortmund  ///< modified: Gmehling, Li, Schiller, Ind. Eng. Chem. Res. 32 (1993) 178
};
inline constexpr UnifacTable all_unifac_tables[] = {UnifacTable::vle, UnifacTable::lle,
                                                    UnifacTable::dortmund};

/// "unifac", "unifac-lle", "unifac-dortmund": the word of the model and the key in Substance::groups.
std::string name_of(UnifacTable table);

/// A subgroup of a UNIFAC table.
struct UnifacGroup {
  std::string name;        ///< "CH3"
  std::string main_group;  ///< "CH2"
  int main_number = 0;     ///< of the main group, the key of the interaction parameters
  double R = 0,            ///< volume of the group
      Q = 0;               ///< volume and surface
  char grade = 'C';        ///< A to D, how well the source is established
};

/// The subgroups of one table.
class UnifacGroups {
 public:
  /// The groups of a table.
  static const UnifacGroups& of(UnifacTable table);

  /// In the order of the table.
  const std::vector<UnifacGroup>& all() const { return groups_; }
  /// nullptr where the table has no such subgroup.
  const UnifacGroup* find(const std::string& name) const;
  /// Names of all groups.
  std::vector<std::string> names() const;

  /// Reads "CH3=2, CH2=1" (as people write) or "CH3:2|CH2:1" (as the bank does).
  /// @throws RequestError for a subgroup that is not in the table (nearest suggested) or a count that is no
  /// positive whole number
  std::vector<GroupCount> parse(std::string_view text) const;

 private:
  explicit UnifacGroups(UnifacTable table);
  std::vector<UnifacGroup> groups_;
  std::unordered_map<std::string, std::size_t> by_name_;
  std::string table_name_;
};

/// "CH3:2|CH2:1", the form in which a substance keeps its make-up.
std::string unifac_text(const std::vector<GroupCount>& groups);

/// Volume r and surface q of a molecule: sums of R and Q over its subgroups.
struct MoleculeSize {
  double r = 0,  ///< volume
      q = 0;     ///< surface
};
MoleculeSize molecule_size(const std::vector<GroupCount>& groups, UnifacTable table);

}  // namespace jampot
