#include "jampot/substance/smiles.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>
#include <optional>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

class Parser {
 public:
  explicit Parser(std::string_view text) : text_(text) {}

  Molecule parse() {
    while (at_ < text_.size()) step();
    if (!branches_.empty()) fail("a branch is not closed");
    if (!open_rings_.empty()) fail(fmt::format("ring {} is not closed", open_rings_.begin()->first));
    if (molecule_.atoms.empty()) fail("expected an atom");
    imply_hydrogens();
    mark_rings();
    return std::move(molecule_);
  }

 private:
  [[noreturn]] void fail(const std::string& what) const {
    throw RequestError(
        fmt::format("SMILES '{}', position {}: {}", text_, std::min(at_, text_.size()) + 1, what));
  }

  void step() {
    const char c = text_[at_];
    if (c == '(') {
      if (!last_) fail("a branch needs an atom before it");
      branches_.push_back(*last_);
      ++at_;
    } else if (c == ')') {
      if (branches_.empty()) fail("this branch was not opened");
      last_ = branches_.back();
      branches_.pop_back();
      ++at_;
    } else if (const auto bond = std::string_view("-=#:/\\").find(c); bond != std::string_view::npos) {
      order_ = c == '=' ? 2 : c == '#' ? 3 : 1;
      ++at_;
    } else if (std::isdigit(static_cast<unsigned char>(c)) || c == '%') {
      ring();
    } else if (c == '.') {
      fail("more than one molecule");
    } else {
      atom();
    }
  }

  void ring() {
    int number = text_[at_] - '0';
    if (text_[at_] == '%') {
      if (at_ + 2 >= text_.size()) fail("expected two digits");
      number = 10 * (text_[at_ + 1] - '0') + (text_[at_ + 2] - '0');
      at_ += 2;
    }
    ++at_;
    if (!last_) fail("a ring needs an atom before it");
    const auto open = open_rings_.find(number);
    if (open == open_rings_.end()) {
      open_rings_[number] = {*last_, order_};
    } else {
      if (open->second.first == *last_) fail("a ring of one atom");
      connect(open->second.first, *last_, order_ ? order_ : open->second.second);
      open_rings_.erase(open);
    }
    order_.reset();
  }

  void atom() {
    SmilesAtom atom;
    atom.position = at_ + 1;
    bool bracket = text_[at_] == '[';
    if (bracket) {
      ++at_;
      while (at_ < text_.size() && std::isdigit(static_cast<unsigned char>(text_[at_]))) ++at_;  // isotope
    }
    read_element(atom);
    if (bracket) read_bracket(atom);
    explicit_hydrogens_.push_back(bracket);
    molecule_.atoms.push_back(atom);
    const std::size_t number = molecule_.atoms.size() - 1;
    if (last_) connect(*last_, number, order_);
    order_.reset();
    last_ = number;
  }

  void read_element(SmilesAtom& atom) {
    static const std::vector<std::string> elements{"Cl", "Br", "Si", "B", "C", "N", "O", "P", "S", "F", "I"};
    for (const std::string& element : elements) {
      if (text_.substr(at_).starts_with(element)) {
        atom.element = element;
        at_ += element.size();
        return;
      }
    }
    if (at_ < text_.size() && std::string_view("cnops").find(text_[at_]) != std::string_view::npos) {
      atom.element = std::string(1, static_cast<char>(std::toupper(static_cast<unsigned char>(text_[at_]))));
      atom.aromatic = true;
      ++at_;
      return;
    }
    fail("expected an atom");
  }

  void read_bracket(SmilesAtom& atom) {
    const auto digit = [&](int none) {
      if (at_ < text_.size() && std::isdigit(static_cast<unsigned char>(text_[at_])))
        return text_[at_++] - '0';
      return none;
    };
    while (at_ < text_.size() && text_[at_] == '@') ++at_;  // stereochemistry
    if (at_ < text_.size() && text_[at_] == 'H') {
      ++at_;
      atom.hydrogens = digit(1);
    }
    if (at_ < text_.size() && (text_[at_] == '+' || text_[at_] == '-')) {
      const int sign = text_[at_++] == '+' ? 1 : -1;
      atom.charge = sign * digit(1);
    }
    if (at_ >= text_.size() || text_[at_] != ']') fail("expected ']'");
    ++at_;
  }

  void connect(std::size_t from, std::size_t to, std::optional<int> order) {
    const bool aromatic = !order && molecule_.atoms[from].aromatic && molecule_.atoms[to].aromatic;
    molecule_.bonds.push_back({from, to, order.value_or(1), aromatic, false});
  }

  void imply_hydrogens() {
    static const std::map<std::string, int> valence{{"B", 3},  {"C", 4},  {"N", 3}, {"O", 2},
                                                    {"P", 3},  {"S", 2},  {"F", 1}, {"I", 1},
                                                    {"Cl", 1}, {"Br", 1}, {"Si", 4}};
    for (std::size_t k = 0; k < molecule_.atoms.size(); ++k) {
      SmilesAtom& atom = molecule_.atoms[k];
      if (explicit_hydrogens_[k]) continue;
      int bonds = atom.aromatic ? 1 : 0;  // the share in the aromatic ring
      for (const SmilesBond& bond : molecule_.bonds) bonds += bond.from == k || bond.to == k ? bond.order : 0;
      const int free = valence.at(atom.element) - bonds;
      const bool lone_pair =
          atom.aromatic && (atom.element == "O" || atom.element == "S" || atom.element == "N");
      const bool nitro = atom.element == "N" && free == -2;  // N(=O)=O, as many write it
      if (free < 0 && !lone_pair && !nitro && atom.element != "S" && atom.element != "P") {
        at_ = atom.position - 1;
        fail(fmt::format("{} has more bonds than it can", atom.element));
      }
      atom.hydrogens = std::max(0, free);
    }
  }

  // A bond is in a ring if its ends stay connected without it.
  void mark_rings() {
    for (std::size_t b = 0; b < molecule_.bonds.size(); ++b) {
      std::vector<bool> reached(molecule_.atoms.size());
      std::vector<std::size_t> front{molecule_.bonds[b].from};
      while (!front.empty()) {
        const std::size_t atom = front.back();
        front.pop_back();
        if (reached[atom]) continue;
        reached[atom] = true;
        for (std::size_t other = 0; other < molecule_.bonds.size(); ++other) {
          const SmilesBond& bond = molecule_.bonds[other];
          if (other == b) continue;
          if (bond.from == atom) front.push_back(bond.to);
          if (bond.to == atom) front.push_back(bond.from);
        }
      }
      if (!reached[molecule_.bonds[b].to]) continue;
      molecule_.bonds[b].in_ring = true;
      molecule_.atoms[molecule_.bonds[b].from].in_ring = molecule_.atoms[molecule_.bonds[b].to].in_ring =
          true;
    }
  }

  std::string_view text_;
  std::size_t at_ = 0;
  Molecule molecule_;
  std::optional<std::size_t> last_;
  std::optional<int> order_;
  std::vector<std::size_t> branches_;
  std::map<int, std::pair<std::size_t, std::optional<int>>> open_rings_;
  std::vector<bool> explicit_hydrogens_;
};

class Divider {
 public:
  explicit Divider(const Molecule& molecule) : molecule_(molecule), taken_(molecule.atoms.size()) {}

  GroupDivision divide() {
    for (std::size_t k = 0; k < atoms().size(); ++k) nitro_and_nitrile(k);
    for (std::size_t k = 0; k < atoms().size(); ++k) carbonyl(k);
    for (std::size_t k = 0; k < atoms().size(); ++k) single(k);
    std::map<std::string, int> counts;
    for (const auto& part : division_.parts) ++counts[part.group];
    for (const auto& [group, count] : counts) division_.groups.push_back({group, count});
    if (formula_of(division_.groups) != molecule_.formula()) {
      throw CalculationError(
          fmt::format("the groups found make up {}, the molecule is {}: no division is possible with the "
                      "groups there are",
                      formula_of(division_.groups), molecule_.formula()));
    }
    return std::move(division_);
  }

 private:
  struct Neighbour {
    std::size_t atom;
    int order;
  };
  const std::vector<SmilesAtom>& atoms() const { return molecule_.atoms; }

  std::vector<Neighbour> neighbours(std::size_t k) const {
    std::vector<Neighbour> list;
    for (const SmilesBond& bond : molecule_.bonds) {
      if (bond.from == k) list.push_back({bond.to, bond.order});
      if (bond.to == k) list.push_back({bond.from, bond.order});
    }
    return list;
  }

  // The first neighbour of that element and bond order, still free.
  std::optional<std::size_t> neighbour(std::size_t k, const std::string& element, int order) const {
    for (const Neighbour& other : neighbours(k)) {
      if (!taken_[other.atom] && atoms()[other.atom].element == element && other.order == order)
        return other.atom;
    }
    return std::nullopt;
  }

  void take(const std::string& group, std::vector<std::size_t> members) {
    for (const std::size_t member : members) taken_[member] = true;
    division_.parts.push_back({group, std::move(members)});
  }

  [[noreturn]] void impossible(std::size_t k) const {
    throw CalculationError(
        fmt::format("there is no group for {} at position {} of the SMILES string; no division is "
                    "possible with the groups there are",
                    atoms()[k].element, atoms()[k].position));
  }

  void nitro_and_nitrile(std::size_t k) {
    if (taken_[k] || atoms()[k].element != "N") return;
    std::vector<std::size_t> oxygens;
    for (const Neighbour& other : neighbours(k)) {
      const SmilesAtom& oxygen = atoms()[other.atom];
      if (oxygen.element == "O" && (other.order == 2 || oxygen.charge == -1)) oxygens.push_back(other.atom);
    }
    if (oxygens.size() == 2) {
      take("NO2", {k, oxygens[0], oxygens[1]});
    } else if (const auto carbon = neighbour(k, "C", 3); carbon && atoms()[*carbon].hydrogens == 0) {
      take("CN", {*carbon, k});
    }
  }

  void carbonyl(std::size_t k) {
    const SmilesAtom& carbon = atoms()[k];
    if (taken_[k] || carbon.element != "C") return;
    const auto oxygen = neighbour(k, "O", 2);
    if (!oxygen) return;
    std::optional<std::size_t> acid, ester;
    int bridges = 0;
    for (const Neighbour& other : neighbours(k)) {
      const SmilesAtom& second = atoms()[other.atom];
      if (taken_[other.atom] || second.element != "O" || other.order != 1) continue;
      ++bridges;
      if (second.hydrogens == 1) acid = other.atom;
      if (second.hydrogens == 0 && !second.in_ring) ester = other.atom;
    }
    if (carbon.hydrogens == 0 && acid) {
      take("COOH", {k, *oxygen, *acid});
    } else if (carbon.hydrogens == 0 && ester && !carbon.in_ring) {
      const std::vector<Neighbour> around = neighbours(*ester);
      const bool shared = std::any_of(around.begin(), around.end(), [&](const Neighbour& other) {
        return other.atom != k && neighbour(other.atom, "O", 2).has_value();
      });
      if (shared || bridges > 1) {
        division_.notices.add(
            "division-not-unique",
            fmt::format("the oxygen at position {} could go with either of its neighbours; the first "
                        "carbon took it",
                        atoms()[*ester].position));
      }
      take("COO", {k, *oxygen, *ester});
    } else if (carbon.hydrogens >= 1) {
      if (carbon.hydrogens > 1) impossible(k);  // formaldehyde
      if (acid) impossible(k);                  // formic acid
      take("CHO", {k, *oxygen});
    } else {
      if (carbon.in_ring && bridges > 0) {
        division_.notices.add("division-not-unique",
                              "a ring ester has no group of its own: ring CO and ring O were taken");
      }
      take(carbon.in_ring ? "ring CO" : "CO", {k, *oxygen});
    }
  }

  void single(std::size_t k) {
    if (taken_[k]) return;
    const SmilesAtom& atom = atoms()[k];
    if (atom.charge != 0) impossible(k);
    const std::string group = atom.element == "C"   ? carbon_group(k)
                              : atom.element == "O" ? oxygen_group(k)
                              : atom.element == "N" ? nitrogen_group(k)
                              : atom.element == "S" ? sulphur_group(k)
                                                    : atom.element;
    const std::vector<std::string> known = group_names();
    if (std::find(known.begin(), known.end(), group) == known.end()) impossible(k);
    take(group, {k});
  }

  std::string carbon_group(std::size_t k) const {
    const SmilesAtom& atom = atoms()[k];
    int doubles = 0, triples = 0;
    for (const Neighbour& other : neighbours(k)) {
      doubles += other.order == 2;
      triples += other.order == 3;
    }
    const std::string hydrogens = atom.hydrogens == 0   ? ""
                                  : atom.hydrogens == 1 ? "H"
                                                        : "H" + std::to_string(atom.hydrogens);
    if (atom.in_ring) return (atom.aromatic || doubles > 0 ? "ring =C" : "ring C") + hydrogens;
    if (triples > 0) return "#C" + hydrogens;
    if (doubles == 2) return "=C=";
    return (doubles > 0 ? "=C" : "C") + hydrogens;
  }

  std::string oxygen_group(std::size_t k) const {
    const SmilesAtom& atom = atoms()[k];
    const auto around = neighbours(k);
    if (around.size() == 1 && around[0].order == 2) return "=O";
    if (atom.hydrogens == 1 && around.size() == 1) {
      return atoms()[around[0].atom].aromatic ? "phenol OH" : "OH";
    }
    if (atom.hydrogens > 0) return "none";  // water
    return atom.in_ring ? "ring O" : "O";
  }

  std::string nitrogen_group(std::size_t k) const {
    const SmilesAtom& atom = atoms()[k];
    const auto around = neighbours(k);
    const bool doubled =
        std::any_of(around.begin(), around.end(), [](const Neighbour& other) { return other.order == 2; });
    if (atom.hydrogens == 2 && around.size() == 1) return "NH2";
    if (doubled && atom.hydrogens == 1) return "=NH";
    if (atom.hydrogens == 1) return atom.in_ring ? "ring NH" : "NH";
    if (atom.hydrogens > 1) return "none";
    if (atom.in_ring) return (atom.aromatic && around.size() == 2) || doubled ? "ring =N" : "none";
    return doubled ? "=N" : "N";
  }

  std::string sulphur_group(std::size_t k) const {
    const SmilesAtom& atom = atoms()[k];
    if (neighbours(k).size() + static_cast<std::size_t>(atom.hydrogens) != 2) return "none";
    if (atom.hydrogens == 1) return "SH";
    return atom.in_ring ? "ring S" : "S";
  }

  const Molecule& molecule_;
  std::vector<bool> taken_;
  GroupDivision division_;
};

}  // namespace

std::string Molecule::formula() const {
  std::map<std::string, int> counts;
  for (const SmilesAtom& atom : atoms) {
    ++counts[atom.element];
    if (atom.hydrogens > 0) counts["H"] += atom.hydrogens;
  }
  return hill_formula(counts);
}

Molecule parse_smiles(std::string_view text) {
  return Parser(text).parse();
}

GroupDivision divide_into_groups(const Molecule& molecule) {
  return Divider(molecule).divide();
}

}  // namespace jampot
