#include "jampot/liquid/pair_parameters.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
PairParameters::PairParameters() = default;
PairParameters::PairParameters(const PairParameters&) = default;
PairParameters::PairParameters(PairParameters&&) noexcept = default;
PairParameters& PairParameters::operator=(const PairParameters&) = default;
PairParameters& PairParameters::operator=(PairParameters&&) noexcept = default;
PairParameters::~PairParameters() = default;
namespace {

// The terms of a model that change their sign where a pair is read from the other side.
std::vector<std::string> odd_terms(const std::string& model) {
  std::vector<std::string> names;
  const auto known = liquid_model_names();
  if (std::find(known.begin(), known.end(), model) == known.end()) return names;
  for (const TermForFit& term : terms_for_fit(model)) {
    if (term.odd) names.push_back(term.name);
  }
  return names;
}

}  // namespace

PairParameters PairParameters::swapped() const {
  PairParameters other = *this;
  std::swap(other.between[0], other.between[1]);
  other.terms.clear();
  const auto turned = [](std::string name) {
    if (name.ends_with("_12")) {
      name.replace(name.size() - 3, 3, "_21");
    } else if (name.ends_with("_21")) {
      name.replace(name.size() - 3, 3, "_12");
    }
    return name;
  };
  for (const auto& [name, function] : terms) other.terms[turned(name)] = function;
  for (FittedCoefficient& coefficient : other.fitted) coefficient.term = turned(coefficient.term);
  for (const std::string& name : odd_terms(model)) {
    if (const auto found = other.terms.find(name); found != other.terms.end())
      for (const Coefficient coefficient : all_coefficients) found->second[coefficient] *= -1;
    for (FittedCoefficient& coefficient : other.fitted) {
      if (coefficient.term == name) coefficient.sign *= -1;
    }
  }
  if (other.molar_volumes_m3_mol)
    std::swap((*other.molar_volumes_m3_mol)[0], (*other.molar_volumes_m3_mol)[1]);
  if (other.sizes) {
    for (auto* values : {&other.sizes->r, &other.sizes->q, &other.sizes->q_residual})
      std::swap((*values)[0], (*values)[1]);
  }
  return other;
}

bool PairParameters::same_values(const PairParameters& other) const {
  const PairParameters seen = between == other.between ? other : other.swapped();
  return model == seen.model && terms == seen.terms && molar_volumes_m3_mol == seen.molar_volumes_m3_mol &&
         sizes == seen.sizes;
}

void take_sizes(PairParameters& pair, const std::vector<PairParameters>& others) {
  if (!pair.sizes) return;
  for (std::size_t k = 0; k < 2; ++k) {
    for (const PairParameters& other : others) {
      if (other.model != pair.model || !other.sizes) continue;
      for (std::size_t l = 0; l < 2; ++l) {
        if (other.between[l] != pair.between[k]) continue;
        pair.sizes->r[k] = other.sizes->r[l];
        pair.sizes->q[k] = other.sizes->q[l];
        pair.sizes->q_residual[k] = other.sizes->q_residual[l];
      }
    }
  }
}

void ParameterCollection::add(PairParameters parameters) {
  const auto& [first, second] = parameters.between;
  for (const PairParameters& known : list_) {
    const bool same_pair = known.model == parameters.model && (known.between == parameters.between ||
                                                               known.swapped().between == parameters.between);
    if (!same_pair) continue;
    if (known.same_values(parameters)) return;
    throw RequestError(
        fmt::format("conflicting {} parameters for {} and {}: one set from '{}', another from '{}'. "
                    "Name only the one that is to be used.",
                    parameters.model, first, second, known.source, parameters.source));
  }
  list_.push_back(std::move(parameters));
}

std::optional<PairParameters> ParameterCollection::find(const std::string& model, const std::string& first,
                                                        const std::string& second) const {
  for (const PairParameters& known : list_) {
    if (known.model != model) continue;
    if (known.between[0] == first && known.between[1] == second) return known;
    if (known.between[0] == second && known.between[1] == first) return known.swapped();
  }
  return std::nullopt;
}

}  // namespace jampot
