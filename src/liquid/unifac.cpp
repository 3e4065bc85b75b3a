#include "jampot/liquid/unifac.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/unifac_interactions.hpp"
#include "jampot/liquid/working.hpp"

namespace jampot {
namespace {

std::vector<std::vector<GroupCount>> make_ups(const std::vector<Substance>& substances, UnifacTable table) {
  std::vector<std::vector<GroupCount>> list;
  std::vector<std::string> missing;
  for (const Substance& substance : substances) {
    const auto found = substance.groups.find(name_of(table));
    if (found == substance.groups.end()) {
      missing.push_back(substance.name);
      list.emplace_back();
    } else {
      list.push_back(UnifacGroups::of(table).parse(found->second));
    }
  }
  if (!missing.empty()) {
    throw CalculationError(fmt::format(
        "{} has no groups in the table of {}; 'jampot define' assigns groups to a user-defined component",
        joined(missing, " and "), name_of(table)));
  }
  return list;
}

SizePart size_part(const std::vector<Substance>& substances, UnifacTable table) {
  std::vector<double> r, q;
  for (const auto& groups : make_ups(substances, table)) {
    const MoleculeSize size = molecule_size(groups, table);
    r.push_back(size.r);
    q.push_back(size.q);
  }
  return {r, q, table == UnifacTable::dortmund ? 0.75 : 1.0};
}

std::vector<UnifacGroup> distinct_groups(const std::vector<Substance>& substances, UnifacTable table) {
  std::vector<UnifacGroup> groups;
  for (const auto& make_up : make_ups(substances, table)) {
    for (const GroupCount& entry : make_up) {
      const bool known = std::any_of(groups.begin(), groups.end(),
                                     [&](const UnifacGroup& group) { return group.name == entry.group; });
      if (!known) groups.push_back(*UnifacGroups::of(table).find(entry.group));
    }
  }
  return groups;
}

}  // namespace

std::optional<std::array<double, 2>> unifac_T_range_K(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle:
      return std::array{275.0, 425.0};
    case UnifacTable::lle:
      return std::array{283.15, 313.15};
    case UnifacTable::dortmund:
      break;
  }
  return std::nullopt;
}

std::string unifac_source(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle:
      return "UNIFAC (VLE table), Hansen et al., Ind. Eng. Chem. Res. 30 (1991) 2352";
    case UnifacTable::lle:
      return "UNIFAC (LLE table), Magnussen et al., Ind. Eng. Chem. Process Des. Dev. 20 (1981) 331";
    case UnifacTable::dortmund:
      break;
  }
  return "modified UNIFAC (Dortmund), Gmehling, Li, Schiller, Ind. Eng. Chem. Res. 32 (1993) 178";
}

DoubtfulGroups parse_doubtful_groups(const std::string& text) {
  if (text == "refuse") return DoubtfulGroups::refuse;
  if (text == "use") return DoubtfulGroups::use;
  throw RequestError(fmt::format("`doubtful-groups` '{}': expected refuse or use.{}", text,
                                 did_you_mean(text, {"refuse", "use"})));
}

void refuse_doubtful_groups(const ActivityModel& model) {
  const auto* unifac = dynamic_cast<const Unifac*>(&model);
  if (unifac == nullptr) return;
  const auto doubtful = unifac->group_pairs_of('D');
  if (doubtful.empty()) return;
  throw CalculationError(fmt::format(
      "the table of {} has an interaction that contradicts handbooks, or another table by a factor of more "
      "than 50 (grade D): {}. Another model helps ('jampot known' with `rank` compares them); "
      "`doubtful-groups` use takes it all the same",
      unifac->name(), joined(doubtful, ", ")));
}

std::vector<std::string> Unifac::group_pairs_of(char grade) const {
  std::vector<std::string> names;
  for (const GroupPair& pair : pairs_) {
    if (std::max(pair.forward.grade, pair.backward.grade) == grade)
      names.push_back(fmt::format("{} - {}", pair.main_groups[0], pair.main_groups[1]));
  }
  return names;
}

Unifac::Unifac(const std::vector<Substance>& substances, UnifacTable table)
    : table_(table),
      name_(name_of(table)),
      groups_(distinct_groups(substances, table)),
      count_(substances.size() * groups_.size()),
      surface_(count_.size()),
      size_part_(jampot::size_part(substances, table)),
      contacts_(groups_.size()),
      own_(substances.size()),
      reference_(substances.size()),
      dreference_(substances.size()),
      s_(groups_.size()),
      gradient_(groups_.size()),
      dgradient_(groups_.size()),
      hessian_(groups_.size() * groups_.size()),
      product_(count_.size()) {
  const auto counts = make_ups(substances, table);
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (const GroupCount& entry : counts[i]) {
      for (std::size_t k = 0; k < groups_.size(); ++k) {
        if (groups_[k].name != entry.group) continue;
        count_[i * groups_.size() + k] = entry.count;
        surface_[i * groups_.size() + k] = entry.count * groups_[k].Q;
        own_[i].push_back(k);
      }
    }
  }
  read_interactions(substances);
}

void Unifac::read_interactions(const std::vector<Substance>& substances) {
  std::map<std::pair<int, int>, std::size_t> known;  // main groups to the number of their interaction
  std::set<std::pair<std::string, std::string>> missing;
  for (std::size_t m = 0; m < groups_.size(); ++m) {
    for (std::size_t n = 0; n < groups_.size(); ++n) {
      const int main_m = groups_[m].main_number, main_n = groups_[n].main_number;
      if (main_m == main_n) continue;
      const auto interaction = group_interaction(table_, main_m, main_n);
      if (!interaction) {
        missing.insert(std::minmax(groups_[m].main_group, groups_[n].main_group));
        continue;
      }
      const auto [found, fresh] = known.emplace(std::pair(main_m, main_n), interactions_.size());
      if (fresh) interactions_.push_back(*interaction);
      entries_.push_back({m, n, *interaction});
      entry_interaction_.push_back(found->second);
      if (fresh && main_m < main_n) {
        const auto backward = group_interaction(table_, main_n, main_m);
        if (backward)
          pairs_.push_back({{groups_[m].main_group, groups_[n].main_group}, *interaction, *backward});
      }
    }
  }
  psi_of_.resize(interactions_.size());
  dpsi_of_.resize(interactions_.size());
  if (missing.empty()) return;
  const auto holders = [&](const std::string& main_group) {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < substances.size(); ++i) {
      for (std::size_t k = 0; k < groups_.size(); ++k) {
        if (groups_[k].main_group != main_group || count(i, k) == 0) continue;
        if (names.empty() || names.back() != substances[i].name) names.push_back(substances[i].name);
      }
    }
    return joined(names, ", ");
  };
  std::vector<std::string> list;
  for (const auto& [a, b] : missing)
    list.push_back(fmt::format("{} (in {}) with {} (in {})", a, holders(a), b, holders(b)));
  throw CalculationError(
      fmt::format("the table of {} (it holds {}) has no interaction of {}. It is not taken as zero; use "
                  "another table or a model with fitted parameters",
                  name_, extent_of(table_).text(), joined(list, "; ")));
}

void Unifac::set_temperature(double T_K) {
  if (T_K == T_K_) return;
  T_K_ = T_K;
  dT_ready_ = false;
  const double inverse = 1 / T_K;
  for (std::size_t e = 0; e < interactions_.size(); ++e) {
    const GroupInteraction& value = interactions_[e];
    psi_of_[e] = std::exp(-(value.a_K * inverse + value.b + value.c_per_K * T_K));
  }
  for (std::size_t e = 0; e < entries_.size(); ++e) {
    contacts_.psi(entries_[e].m, entries_[e].n) = psi_of_[entry_interaction_[e]];
  }
  pure_liquids();
}

// The sum over the groups of a pure liquid is its contact sum itself, which is homogeneous in the surfaces:
// sum_k s_k dE/ds_k = E = -sum_k s_k ln(T_k/S).
void Unifac::pure_liquids() {
  for (std::size_t i = 0; i < size(); ++i) {
    const double* surface = &surface_[i * groups_.size()];
    double S = 0, sum = 0;
    for (const std::size_t k : own_[i]) S += surface[k];
    for (const std::size_t k : own_[i]) {
      double T = 0;
      for (const std::size_t m : own_[i]) T += surface[m] * contacts_.psi(m, k);
      sum -= surface[k] * std::log(T / S);
    }
    reference_[i] = sum;
  }
}

void Unifac::derivatives_with_T() {
  if (dT_ready_) return;
  dT_ready_ = true;
  const double inverse = 1 / T_K_;
  for (std::size_t e = 0; e < interactions_.size(); ++e) {
    dpsi_of_[e] = psi_of_[e] * (interactions_[e].a_K * inverse * inverse - interactions_[e].c_per_K);
  }
  for (std::size_t e = 0; e < entries_.size(); ++e) {
    contacts_.dpsi(entries_[e].m, entries_[e].n) = dpsi_of_[entry_interaction_[e]];
  }
  for (std::size_t i = 0; i < size(); ++i) {
    const double* surface = &surface_[i * groups_.size()];
    dreference_[i] = 0;
    for (const std::size_t k : own_[i]) {
      double T = 0, dT = 0;
      for (const std::size_t m : own_[i]) {
        T += surface[m] * contacts_.psi(m, k);
        dT += surface[m] * contacts_.dpsi(m, k);
      }
      dreference_[i] -= surface[k] * dT / T;
    }
  }
}

void Unifac::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                      std::span<double> dn) {
  const std::size_t K = groups_.size(), n = size();
  std::fill(s_.begin(), s_.end(), 0.0);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < K; ++k) s_[k] += x[i] * surface_[i * K + k];
  }
  size_part_.ln_gamma(x, ln_gamma);
  contacts_.gradient(s_, gradient_);
  for (std::size_t i = 0; i < n; ++i) {
    double sum = 0;
    for (std::size_t k = 0; k < K; ++k) sum += surface_[i * K + k] * gradient_[k];
    ln_gamma[i] += sum - reference_[i];
  }
  if (!dT.empty()) {
    derivatives_with_T();
    contacts_.gradient_dT(s_, dgradient_);
    for (std::size_t i = 0; i < n; ++i) {
      double sum = 0;
      for (std::size_t k = 0; k < K; ++k) sum += surface_[i * K + k] * dgradient_[k];
      dT[i] = sum - dreference_[i];
    }
  }
  if (!dn.empty()) {
    contacts_.hessian(s_, hessian_);
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t l = 0; l < K; ++l) {
        double sum = 0;
        for (std::size_t k = 0; k < K; ++k) sum += surface_[i * K + k] * hessian_[k * K + l];
        product_[i * K + l] = sum;
      }
    }
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t j = 0; j < n; ++j) {
        double sum = 0;
        for (std::size_t l = 0; l < K; ++l) sum += product_[i * K + l] * surface_[j * K + l];
        dn[i * n + j] = sum;
      }
    }
    size_part_.add_dn(dn);
  }
}

double Unifac::third_derivative(std::span<const double> x, std::span<const double> u) const {
  const std::size_t K = groups_.size();
  std::vector<double> s(K), ds(K);
  for (std::size_t i = 0; i < size(); ++i) {
    for (std::size_t k = 0; k < K; ++k) {
      s[k] += x[i] * surface_[i * K + k];
      ds[k] += u[i] * surface_[i * K + k];
    }
  }
  return size_part_.third_derivative(x, u) + contacts_.third_derivative(s, ds);
}

namespace {

// ln of the activity coefficients of the groups.
std::vector<double> ln_Gamma(const Unifac& model, Working& page, const std::vector<double>& x,
                             const std::string& where) {
  const std::vector<UnifacGroup>& groups = model.groups();
  const std::size_t K = groups.size();
  std::vector<double> theta(K), T(K), values(K);
  double total = 0;
  for (std::size_t k = 0; k < K; ++k) {
    for (std::size_t i = 0; i < x.size(); ++i) theta[k] += x[i] * model.count(i, k) * groups[k].Q;
    total += theta[k];
  }
  for (double& value : theta) value /= total;
  for (std::size_t k = 0; k < K; ++k) {
    for (std::size_t m = 0; m < K; ++m) T[k] += theta[m] * model.psi(m, k);
  }
  for (std::size_t k = 0; k < K; ++k) {
    double inner = 1 - std::log(T[k]);
    for (std::size_t m = 0; m < K; ++m) inner -= theta[m] * model.psi(k, m) / T[m];
    values[k] = groups[k].Q * inner;
    if (theta[k] == 0) continue;
    page.say(fmt::format("{}: theta({}) = {}, T = {}, ln Gamma = {}", where, groups[k].name,
                         Working::number(theta[k]), Working::number(T[k]), Working::number(values[k])));
  }
  return values;
}

}  // namespace

void Unifac::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  const std::size_t n = page.x().size();
  const std::vector<double> size = page.size_part(size_part_, table_ == UnifacTable::dortmund);
  const std::vector<UnifacGroup>& groups = groups_;
  page.say("groups: ln gamma_i(R) = sum_k nu_ki (ln Gamma_k - ln Gamma_k(pure i))");
  page.say("        ln Gamma_k = Q_k (1 - ln T_k - sum_m theta_m psi_km/T_m),  T_k = sum_m theta_m psi_mk");
  for (std::size_t k = 0; k < groups.size(); ++k) {
    std::string counts;
    for (std::size_t i = 0; i < n; ++i)
      counts += fmt::format(" {} in {}{}", count(i, k), i + 1, i + 1 < n ? "," : "");
    page.say(fmt::format("{} (main group {}): R = {}, Q = {};{}", groups[k].name, groups[k].main_group,
                         groups[k].R, groups[k].Q, counts));
  }
  for (std::size_t m = 0; m < groups.size(); ++m) {
    for (std::size_t k = 0; k < groups.size(); ++k) {
      if (groups[m].main_number == groups[k].main_number) continue;
      page.say(fmt::format("psi({}, {}) = {}", groups[m].name, groups[k].name, Working::number(psi(m, k))));
    }
  }
  const std::vector<double> mixture = ln_Gamma(*this, page, x, "mixture");
  std::vector<double> sum(n);
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> pure_x(n);
    pure_x[i] = 1;
    const std::vector<double> pure = ln_Gamma(*this, page, pure_x, fmt::format("pure {}", i + 1));
    std::vector<double> terms{size[i]};
    sum[i] = size[i];
    for (std::size_t k = 0; k < groups.size(); ++k) {
      if (count(i, k) == 0) continue;
      terms.push_back(count(i, k) * (mixture[k] - pure[k]));
      sum[i] += terms.back();
    }
    page.result(i, terms, sum[i]);
  }
}

ModelDescription Unifac::description(UnifacTable table) {
  ModelDescription description{name_of(table)};
  description.make = [table](const std::vector<Substance>& substances, const std::vector<PairParameters>&) {
    return std::make_unique<Unifac>(substances, table);
  };
  return description;
}

}  // namespace jampot
