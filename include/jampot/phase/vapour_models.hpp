#pragma once
// The vapours that can stand beside a liquid, by name.
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/fluid/interaction_table.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A vapour and what the pure liquid takes from it.
struct VapourChoice {
  std::string model = "ideal";    ///< a word of vapour_model_names()
  InteractionTable interactions;  ///< k_ij of equations of state and of Tsonopoulos' virial coefficients
  bool translated = false;        ///< volume translation of cubic equations
  /// Fugacity coefficient of the saturated vapour in the fugacity of the pure liquid; where nothing is said,
  /// with every vapour but the ideal one.
  std::optional<bool> saturation_fugacity;
  std::optional<bool> poynting;  ///< Poynting factor; likewise
};

/// ideal, virial (Hayden and O'Connell), tsonopoulos, srk, pr, pc-saft.
const std::vector<std::string>& vapour_model_names();
/// Those that describe liquids as well: srk, pr, pc-saft.
const std::vector<std::string>& equation_names();

/// @throws RequestError for an unknown name; CalculationError naming substances without parameters
std::unique_ptr<EquationOfState> make_equation(const std::string& name,
                                               const std::vector<Substance>& substances,
                                               const InteractionTable& interactions = {},
                                               bool translated = false);

/// A vapour phase with what the user should know of it.
struct Vapour {
  std::unique_ptr<Phase> phase;  ///< its model
  Notices notices;               ///< what the reader must know
  bool associates = false;       ///< whether it knows of carboxylic acids that pair up
};
/// One or more substances. @throws as make_equation
Vapour make_vapour(const VapourChoice& choice, const std::vector<Substance>& substances);

}  // namespace jampot
