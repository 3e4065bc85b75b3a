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
  std::vector<Substance> substances{};              ///< in the order of the components
  std::vector<std::string> equations{"pr"};         ///< words of equation_names()
  InteractionTable interactions{};                  ///< binary interactions of the equations
  bool translated = false;                          ///< volumes of cubic equations
  std::vector<double> T_K{},                        ///< temperatures, K
      P_Pa{};                                       ///< pressures, Pa
  std::vector<std::vector<double>> compositions{};  ///< mole fractions; of one substance not needed
  bool working = false;                             ///< write out the first state
};

/// One volume root of one equation.
struct FugacityRoot {
  double T_K = 0,               ///< temperature, K
      P_Pa = 0;                 ///< pressure, Pa
  std::vector<double> x{};      ///< mole fractions
  std::string phase{};          ///< "liquid", "vapour" of two roots; "gas" or "dense" of one
  bool only = false,            ///< true where the equation has one root
      stable = false;           ///< true where it has the lowest Gibbs energy
  double Z = 0,                 ///< compressibility factor P v/(R T)
      v_m3_mol = 0;             ///< molar volume, m3/mol
  std::vector<double> phi{};    ///< fugacity coefficients
  double h_residual_J_mol = 0,  ///< residual enthalpy, J/mol
      s_residual_J_mol_K = 0;   ///< residual entropy, J/(mol K)
};

/// The roots by one equation, state by state.
struct FugacityByEquation {
  std::string equation{};             ///< name of the equation of state
  std::vector<FugacityRoot> roots{};  ///< one for each state and root
};

/// Roots by each equation.
struct FugacityStudy {
  std::vector<Substance> substances{};        ///< in the order of the components
  std::vector<FugacityByEquation> results{};  ///< one for each equation
  std::shared_ptr<EquationOfState> first{};   ///< the first equation, with its parameters
  std::vector<std::string> working{};         ///< how the numbers came about, line by line
  Notices notices{};                          ///< what the reader must know
};

/// @throws RequestError for an unknown equation, too many states or no composition
FugacityStudy study(const FugacityRequest& request);

}  // namespace jampot
