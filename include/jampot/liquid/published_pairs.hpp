#pragma once
// The small built-in collection of published pair parameters, and the conventions in which such are printed.
#include <optional>
#include <string>
#include <vector>

#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// All published sets, the one to be preferred first where a pair has several. Each carries its citation, its
/// range where it is known, and the sizes it was fitted with.
const std::vector<PairParameters>& published_pairs();

/// Those for one model and pair, with `first` as substance 1.
std::vector<PairParameters> published_pairs(const std::string& model, const std::string& first,
                                            const std::string& second);

/// The pairs of NRTL, and of UNIQUAC where those cannot meet the facts, that the project fitted to what
/// handbooks say of the pair (azeotropes, solubilities, limiting coefficients): data/pairs_from_facts.csv.
/// They meet these facts; between them they are what a prediction and the model make of it. Their range
/// reaches 20 K beyond their facts.
const std::vector<PairParameters>& pairs_from_facts();
std::optional<PairParameters> pair_from_facts(const std::string& model, const std::string& first,
                                              const std::string& second);
/// Whether such a pair meets facts of grade A or B that the published set of the same model does not: then it
/// comes before print.
bool comes_before_print(const std::string& model, const std::string& first, const std::string& second);

/// The published sets of a model for every pair of these substances that has one, the preferred one of each:
/// `Mixture(substances, "wilson", with_published(substances, "wilson"))`. A pair without a set is not there,
/// and the mixture then names it.
ParameterCollection with_published(const std::vector<Substance>& substances, const std::string& model);

/// How print states the energies of a pair: as such, divided by the gas constant, or as the term itself.
enum class EnergyUnit { kelvin, joule_mol, calorie_mol, dimensionless };

/// "K", "J/mol", "cal/mol", "1". @throws RequestError naming them
EnergyUnit parse_energy_unit(const std::string& text);
std::string name_of(EnergyUnit unit);

/// The term of a model from a printed energy: inverse_T = energy/R for an energy, a constant for a
/// dimensionless one. Calories are thermochemical (4.184 J).
TemperatureFunction term_from_print(double value, EnergyUnit unit);

/// What print would state for a term at T_K: T value(T) in kelvin, times R for an energy. Exact for a term
/// that is inverse_T/T; otherwise it holds at that temperature only.
double print_of_term(const TemperatureFunction& term, EnergyUnit unit, double T_K);

}  // namespace jampot
