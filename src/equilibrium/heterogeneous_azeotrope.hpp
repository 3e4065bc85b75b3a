#pragma once
// Two liquids whose common vapour lies on their tie line.
#include <Eigen/Dense>
#include <optional>
#include <vector>

#include "jampot/phase/phase.hpp"

namespace jampot {

/// Two liquids and a vapour between them at a pressure.
struct HeterogeneousState {
  std::vector<double> alpha, beta, y;
  double T_K = 0;
  double share = 0;  ///< of beta in the whole liquid
  double residual = 0;
};

/// The equations ln(x phi) alike in both liquids and the vapour, y = (1 - share) alpha + share beta, solved
/// by Newton's method for all of them together.
class HeterogeneousAzeotrope {
 public:
  HeterogeneousAzeotrope(Phase& liquid, Phase& vapour, double P_Pa);

  /// From two liquids near their equilibrium; components that are zero there stay away.
  /// @return nothing where no vapour between the liquids is reached, or the liquids become one
  std::optional<HeterogeneousState> solve(HeterogeneousState start);

  /// Eigenvalues of d(x - y)/dx at a solution, x the whole liquid at its boiling point.
  std::vector<double> eigenvalues(const HeterogeneousState& state);

 private:
  void assemble(const HeterogeneousState& state);

  Phase &liquid_, &vapour_;
  double P_Pa_;
  PhaseValues a_, b_, v_;
  std::vector<Eigen::Index> there_;  ///< components that are there
  Eigen::MatrixXd J_;
  Eigen::VectorXd f_;
};

}  // namespace jampot
