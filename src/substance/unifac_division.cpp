#include "jampot/substance/unifac_division.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/substance/unifac_groups.hpp"

namespace jampot {
namespace {

// A subgroup as the atoms that make it up, hydrogens counted, and what else must hold where it is found.
struct Pattern {
  std::string group;
  Molecule molecule;
  int cost = 0;         // of divisions with equally many groups the one of least cost is usual
  std::string outside;  // rules for the neighbours outside, see allowed()
};

std::vector<Pattern> make_patterns() {
  struct Row {
    const char *group, *smiles;
    int cost = 0;
    const char* outside = "";
  };
  // "ketone": its carbonyl carbon has carbon neighbours only. "ether": no carbonyl next to the oxygen, which
  // is not in a ring of five. "ring ether": it is. "amine": no carbonyl and no aromatic carbon next to the
  // nitrogen. "alcohol": no carbonyl carbon and no aromatic one. "vinyl": next to a double bond.
  static const std::vector<Row> rows{{"CH3", "[CH3]"},
                                     {"CH2", "[CH2]"},
                                     {"CH", "[CH]"},
                                     {"C", "[C]"},
                                     {"CH2=CH", "[CH2]=[CH]"},
                                     {"CH=CH", "[CH]=[CH]"},
                                     {"CH2=C", "[CH2]=[C]"},
                                     {"CH=C", "[CH]=[C]"},
                                     {"C=C", "[C]=[C]"},
                                     {"CH#C", "[CH]#[C]"},
                                     {"C#C", "[C]#[C]"},
                                     {"ACH", "[cH]"},
                                     {"AC", "[c]"},
                                     {"ACCH3", "[c][CH3]"},
                                     {"ACCH2", "[c][CH2]"},
                                     {"ACCH", "[c][CH]"},
                                     {"OH", "[OH]", 0, "alcohol"},
                                     {"CH3OH", "[CH3][OH]"},
                                     {"H2O", "[OH2]"},
                                     {"ACOH", "[c][OH]"},
                                     {"DOH", "[OH][CH2][CH2][OH]"},
                                     {"CH3CO", "[CH3][C]=[O]", 0, "ketone"},
                                     {"CH2CO", "[CH2][C]=[O]", 1, "ketone"},
                                     {"CHO", "[CH]=[O]", 0, "ketone"},
                                     {"CH3COO", "[CH3][C](=[O])[O]", 0, "ester"},
                                     {"CH2COO", "[CH2][C](=[O])[O]", 1, "ester"},
                                     {"HCOO", "[CH](=[O])[O]", 0, "ester"},
                                     {"COO", "[C](=[O])[O]", 2, "ester"},
                                     {"CH3O", "[CH3][O]", 0, "ether"},
                                     {"CH2O", "[CH2][O]", 1, "ether"},
                                     {"CH-O", "[CH][O]", 2, "ether"},
                                     {"FCH2O", "[CH2][O]", 0, "ring ether"},
                                     {"CH3NH2", "[CH3][NH2]"},
                                     {"CH2NH2", "[CH2][NH2]"},
                                     {"CHNH2", "[CH][NH2]"},
                                     {"CH3NH", "[CH3][NH]", 0, "amine"},
                                     {"CH2NH", "[CH2][NH]", 1, "amine"},
                                     {"CHNH", "[CH][NH]", 2, "amine"},
                                     {"CH3N", "[CH3][N]", 0, "amine"},
                                     {"CH2N", "[CH2][N]", 1, "amine"},
                                     {"ACNH2", "[c][NH2]"},
                                     {"C5H5N", "[cH]1[cH][cH][cH][cH][n]1"},
                                     {"C5H4N", "[c]1[cH][cH][cH][cH][n]1"},
                                     {"C5H4N", "[cH]1[c][cH][cH][cH][n]1"},
                                     {"C5H4N", "[cH]1[cH][c][cH][cH][n]1"},
                                     {"C5H3N", "[c]1[cH][cH][cH][c][n]1"},
                                     {"C5H3N", "[c]1[c][cH][cH][cH][n]1"},
                                     {"C5H3N", "[c]1[cH][c][cH][cH][n]1"},
                                     {"C5H3N", "[c]1[cH][cH][c][cH][n]1"},
                                     {"C5H3N", "[cH]1[c][c][cH][cH][n]1"},
                                     {"C5H3N", "[cH]1[c][cH][c][cH][n]1"},
                                     {"CH3CN", "[CH3][C]#[N]"},
                                     {"CH2CN", "[CH2][C]#[N]"},
                                     {"ACRY", "[CH2]=[CH][C]#[N]"},
                                     {"COOH", "[C](=[O])[OH]"},
                                     {"HCOOH", "[CH](=[O])[OH]"},
                                     {"CH2Cl", "[CH2][Cl]"},
                                     {"CHCl", "[CH][Cl]"},
                                     {"CCl", "[C][Cl]"},
                                     {"CH2Cl2", "[CH2]([Cl])[Cl]"},
                                     {"CHCl2", "[CH]([Cl])[Cl]"},
                                     {"CCl2", "[C]([Cl])[Cl]"},
                                     {"CHCl3", "[CH]([Cl])([Cl])[Cl]"},
                                     {"CCl3", "[C]([Cl])([Cl])[Cl]"},
                                     {"CCl4", "[C]([Cl])([Cl])([Cl])[Cl]"},
                                     {"ACCl", "[c][Cl]"},
                                     {"Cl-(C=C)", "[Cl]", 0, "vinyl"},
                                     {"CH3NO2", "[CH3][N](=[O])[O]"},
                                     {"CH2NO2", "[CH2][N](=[O])[O]"},
                                     {"CHNO2", "[CH][N](=[O])[O]"},
                                     {"ACNO2", "[c][N](=[O])[O]"},
                                     {"CH3NO2", "[CH3][N](=[O])=[O]"},
                                     {"CH2NO2", "[CH2][N](=[O])=[O]"},
                                     {"CHNO2", "[CH][N](=[O])=[O]"},
                                     {"ACNO2", "[c][N](=[O])=[O]"},
                                     {"CS2", "[S]=[C]=[S]"},
                                     {"CH3SH", "[CH3][SH]"},
                                     {"CH2SH", "[CH2][SH]"},
                                     {"CH3S", "[CH3][S]"},
                                     {"CH2S", "[CH2][S]", 1},
                                     {"CHS", "[CH][S]", 2},
                                     {"DMSO", "[CH3][S](=[O])[CH3]"},
                                     {"C4H4S", "[cH]1[cH][cH][cH][s]1"},
                                     {"FURFURAL", "[O]=[CH][c]1[cH][cH][cH][o]1"},
                                     {"I", "[I]"},
                                     {"Br", "[Br]"},
                                     {"ACF", "[c][F]"},
                                     {"CF3", "[C]([F])([F])[F]"},
                                     {"CF2", "[C]([F])[F]"},
                                     {"CF", "[C][F]"},
                                     {"DMF", "[CH3][N]([CH3])[CH]=[O]"},
                                     {"HCON(CH2)2", "[CH](=[O])[N]([CH2])[CH2]"},
                                     {"NMP", "[CH3][N]1[CH2][CH2][CH2][C]1=[O]"},
                                     {"MORPH", "[O]1[CH2][CH2][NH][CH2][CH2]1"},
                                     {"CONH2", "[C](=[O])[NH2]"},
                                     {"CONHCH3", "[C](=[O])[NH][CH3]"},
                                     {"CONHCH2", "[C](=[O])[NH][CH2]"},
                                     {"CON(CH3)2", "[C](=[O])[N]([CH3])[CH3]"},
                                     {"CONCH3CH2", "[C](=[O])[N]([CH3])[CH2]"},
                                     {"CON(CH2)2", "[C](=[O])[N]([CH2])[CH2]"}};
  std::vector<Pattern> patterns;
  for (const Row& row : rows)
    patterns.push_back({row.group, parse_smiles(row.smiles), row.cost, row.outside});
  return patterns;
}

const std::vector<Pattern>& patterns() {
  static const std::vector<Pattern> list = make_patterns();
  return list;
}

class UnifacDivider {
 public:
  explicit UnifacDivider(const Molecule& molecule) : molecule_(molecule), around_(molecule.atoms.size()) {
    for (std::size_t b = 0; b < molecule.bonds.size(); ++b) {
      around_[molecule.bonds[b].from].push_back({molecule.bonds[b].to, b});
      around_[molecule.bonds[b].to].push_back({molecule.bonds[b].from, b});
    }
  }

  GroupDivision divide() {
    constexpr std::size_t most = 60;
    if (molecule_.atoms.size() > most) {
      throw CalculationError(
          "the molecule is too large to be divided into UNIFAC groups by itself; give the groups");
    }
    find_matches();
    covered_.assign(molecule_.atoms.size(), false);
    search(0, 0);
    if (best_.empty()) {
      throw CalculationError("no division into UNIFAC groups covers every atom once");
    }
    GroupDivision division;
    std::map<std::string, int> counts;
    for (const std::size_t m : best_) {
      division.parts.push_back({patterns()[matches_[m].pattern].group, matches_[m].atoms});
      ++counts[division.parts.back().group];
    }
    for (const auto& [group, count] : counts) division.groups.push_back({group, count});
    if (make_ups_.size() > 1) {
      std::string others;
      for (const std::string& other : make_ups_) {
        if (other != unifac_text(division.groups)) others += (others.empty() ? "" : " or ") + other;
      }
      division.notices.add("division-not-unique",
                           fmt::format("UNIFAC groups: {} was taken; {} would be as good",
                                       unifac_text(division.groups), others));
    }
    return division;
  }

 private:
  struct Neighbour {
    std::size_t atom, bond;
  };
  struct Match {
    std::size_t pattern;
    std::vector<std::size_t> atoms;  // of the molecule, in the order of the pattern
  };

  const SmilesAtom& atom(std::size_t k) const { return molecule_.atoms[k]; }

  bool carbonyl(std::size_t k) const {
    return atom(k).element == "C" &&
           std::any_of(around_[k].begin(), around_[k].end(), [&](const Neighbour& other) {
             return atom(other.atom).element == "O" && molecule_.bonds[other.bond].order == 2;
           });
  }

  // Size of the smallest ring through the atom; 0 where there is none.
  std::size_t ring_size(std::size_t k) const {
    std::size_t smallest = 0;
    for (const Neighbour& first : around_[k]) {
      // Shortest way from the neighbour back to the atom that does not use the bond between them.
      std::vector<std::size_t> distance(molecule_.atoms.size(), 0), front{first.atom};
      distance[first.atom] = 1;
      while (!front.empty()) {
        std::vector<std::size_t> next;
        for (const std::size_t at : front) {
          for (const Neighbour& other : around_[at]) {
            if (other.bond == first.bond || distance[other.atom] > 0) continue;
            distance[other.atom] = distance[at] + 1;
            next.push_back(other.atom);
          }
        }
        front = std::move(next);
      }
      if (distance[k] > 0 && (smallest == 0 || distance[k] < smallest)) smallest = distance[k];
    }
    return smallest;
  }

  void find_matches() {
    const bool hetero_aromatic =
        std::any_of(molecule_.atoms.begin(), molecule_.atoms.end(),
                    [](const SmilesAtom& a) { return a.aromatic && a.element != "C"; });
    by_atom_.resize(molecule_.atoms.size());
    for (std::size_t p = 0; p < patterns().size(); ++p) {
      // Groups of one aromatic carbon belong to benzene rings.
      const Molecule& wanted = patterns()[p].molecule;
      const bool benzene = wanted.atoms[0].aromatic && wanted.atoms.size() <= 4;
      if (benzene && hetero_aromatic) continue;
      std::vector<std::size_t> chosen;
      std::set<std::vector<std::size_t>> seen;
      extend(p, chosen, seen);
    }
    for (std::size_t k = 0; k < molecule_.atoms.size(); ++k) {
      if (!by_atom_[k].empty()) continue;
      throw CalculationError(fmt::format("UNIFAC has no subgroup for {} at position {} of the SMILES string",
                                         atom(k).element, atom(k).position));
    }
  }

  // Maps the next atom of the pattern in every way.
  void extend(std::size_t p, std::vector<std::size_t>& chosen, std::set<std::vector<std::size_t>>& seen) {
    const Pattern& pattern = patterns()[p];
    if (chosen.size() == pattern.molecule.atoms.size()) {
      std::vector<std::size_t> sorted = chosen;
      std::sort(sorted.begin(), sorted.end());
      if (!seen.insert(sorted).second || !fits(pattern, chosen)) return;
      for (const std::size_t member : chosen) by_atom_[member].push_back(matches_.size());
      matches_.push_back({p, chosen});
      return;
    }
    const SmilesAtom& wanted = pattern.molecule.atoms[chosen.size()];
    for (std::size_t k = 0; k < molecule_.atoms.size(); ++k) {
      const SmilesAtom& candidate = atom(k);
      if (candidate.element != wanted.element || candidate.aromatic != wanted.aromatic ||
          candidate.hydrogens != wanted.hydrogens ||
          std::find(chosen.begin(), chosen.end(), k) != chosen.end()) {
        continue;
      }
      const bool joined = std::all_of(
          pattern.molecule.bonds.begin(), pattern.molecule.bonds.end(), [&](const SmilesBond& bond) {
            const std::size_t here = chosen.size();
            if (std::max(bond.from, bond.to) != here) return true;
            const std::size_t other = chosen[std::min(bond.from, bond.to)];
            return std::any_of(around_[k].begin(), around_[k].end(), [&](const Neighbour& neighbour) {
              const SmilesBond& found = molecule_.bonds[neighbour.bond];
              return neighbour.atom == other && found.order == bond.order && found.aromatic == bond.aromatic;
            });
          });
      if (!joined) continue;
      chosen.push_back(k);
      extend(p, chosen, seen);
      chosen.pop_back();
    }
  }

  // The bonds that lead out of the group are single (or aromatic), and its own rule holds.
  bool fits(const Pattern& pattern, const std::vector<std::size_t>& chosen) const {
    for (std::size_t member = 0; member < chosen.size(); ++member) {
      for (const Neighbour& other : around_[chosen[member]]) {
        if (std::find(chosen.begin(), chosen.end(), other.atom) != chosen.end()) continue;
        if (molecule_.bonds[other.bond].order != 1) return false;
        if (!allowed(pattern.outside, atom(chosen[member]), chosen[member], other.atom)) return false;
      }
    }
    return true;
  }

  bool allowed(const std::string& rule, const SmilesAtom& inside, std::size_t inside_number,
               std::size_t outside) const {
    const SmilesAtom& other = atom(outside);
    if (rule == "ketone") return !carbonyl(inside_number) || other.element == "C";
    if (rule == "ester") {
      if (inside.element == "O") return other.element == "C" && !carbonyl(outside);
      return true;
    }
    if (rule == "ether" || rule == "ring ether") {
      if (inside.element != "O") return true;
      const bool ring_of_five = ring_size(inside_number) == 5;
      return other.element == "C" && !carbonyl(outside) && ring_of_five == (rule == "ring ether");
    }
    if (rule == "amine")
      return inside.element != "N" || (other.element == "C" && !carbonyl(outside) && !other.aromatic);
    if (rule == "alcohol") return other.element == "C" && !carbonyl(outside) && !other.aromatic;
    if (rule == "vinyl") {
      return other.element == "C" && !other.aromatic &&
             std::any_of(around_[outside].begin(), around_[outside].end(),
                         [&](const Neighbour& next) { return molecule_.bonds[next.bond].order == 2; });
    }
    return true;
  }

  // Covers the first atom that is still free in every way; keeps the best and every make-up as good as it.
  void search(std::size_t groups, int cost) {
    const auto free = std::find(covered_.begin(), covered_.end(), false);
    const std::pair<std::size_t, int> here{groups, cost};
    if (!best_.empty() && groups > best_score_.first) return;
    if (free == covered_.end()) {
      if (!best_.empty() && here > best_score_) return;
      if (best_.empty() || here < best_score_) {
        make_ups_.clear();
        best_ = taken_;
        best_score_ = here;
      }
      std::map<std::string, int> counts;
      for (const std::size_t m : taken_) ++counts[patterns()[matches_[m].pattern].group];
      std::vector<GroupCount> make_up;
      for (const auto& [group, count] : counts) make_up.push_back({group, count});
      make_ups_.insert(unifac_text(make_up));
      return;
    }
    if (++steps_ > 2000000) return;  // a very symmetric large molecule; the best so far stands
    const auto first = static_cast<std::size_t>(free - covered_.begin());
    for (const std::size_t m : by_atom_[first]) {
      const Match& match = matches_[m];
      if (std::any_of(match.atoms.begin(), match.atoms.end(), [&](std::size_t k) { return covered_[k]; }))
        continue;
      for (const std::size_t k : match.atoms) covered_[k] = true;
      taken_.push_back(m);
      search(groups + 1, cost + patterns()[match.pattern].cost);
      taken_.pop_back();
      for (const std::size_t k : match.atoms) covered_[k] = false;
    }
  }

  const Molecule& molecule_;
  std::vector<std::vector<Neighbour>> around_;
  std::vector<Match> matches_;
  std::vector<std::vector<std::size_t>> by_atom_;
  std::vector<bool> covered_;
  std::vector<std::size_t> taken_, best_;
  std::pair<std::size_t, int> best_score_;
  std::set<std::string> make_ups_;
  long steps_ = 0;
};

}  // namespace

GroupDivision divide_into_unifac_groups(const Molecule& molecule) {
  return UnifacDivider(molecule).divide();
}

}  // namespace jampot
