#pragma once
// Fugacity coefficients, compressibility and volume roots from equations of state.
#include <memory>
#include <string>
#include <vector>

#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/fluid/interaction_table.hpp"
#include "jampot/phase/vapour_models.hpp"

namespace jampot {

/// What fugacities are asked for: each composition at each T and P.
struct FugacityRequest {
  std::vector<Substance> substances{};
  std::vector<std::string> equations{"pr"};  ///< words of equation_names()
  InteractionTable interactions{};
  bool translated = false;  ///< volumes of cubic equations
  std::vector<double> T_K{}, P_Pa{};
  std::vector<std::vector<double>> compositions{};  ///< mole fractions; of one substance not needed
  bool working = false;                             ///< write out the first state
};

/// One volume root of one equation.
struct FugacityRoot {
  double T_K = 0, P_Pa = 0;
  std::vector<double> x{};
  std::string phase{};  ///< "liquid", "vapour" of two roots; "gas" or "dense" of one
  bool only = false, stable = false;
  double Z = 0, v_m3_mol = 0;
  std::vector<double> phi{};
  double h_residual_J_mol = 0, s_residual_J_mol_K = 0;
};

/// The roots by one equation, state by state.
struct FugacityByEquation {
  std::string equation{};
  std::vector<FugacityRoot> roots{};
};

/// Roots by each equation.
struct FugacityStudy {
  std::vector<Substance> substances{};
  std::vector<FugacityByEquation> results{};
  std::shared_ptr<EquationOfState> first{};  ///< the first equation, with its parameters
  std::vector<std::string> working{};
  Notices notices{};
};

/// @throws RequestError for an unknown equation, too many states or no composition
FugacityStudy study(const FugacityRequest& request);

}  // namespace jampot
