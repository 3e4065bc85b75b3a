#pragma once
// Cubic equations of state: Soave-Redlich-Kwong and Peng-Robinson.
#include <array>

#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/fluid/interaction_table.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// P = R T/(v - b) - a/((v + d1 b)(v + d2 b)) with van der Waals' mixing rules,
///
///   a = sum_ij x_i x_j sqrt(a_i a_j) (1 - k_ij),  b = sum_i x_i b_i,
///   a_i = Omega_a R^2 Tc^2/Pc alpha(T),  b_i = Omega_b R Tc/Pc,  alpha = (1 + m (1 - sqrt(T/Tc)))^2.
///
/// Soave-Redlich-Kwong: d1 = 1, d2 = 0, m = 0.480 + 1.574 w - 0.176 w^2 (G. Soave, Chem. Eng. Sci. 27 (1972)
/// 1197-1203); of hydrogen alpha = 1.202 exp(-0.30288 T/Tc) (M. S. Graboski, T. E. Daubert, Ind. Eng. Chem.
/// Process Des. Dev. 18 (1979) 300-306). Peng-Robinson: d1, d2 = 1 +- sqrt 2, m = 0.37464 + 1.54226 w -
/// 0.26992 w^2 (D.-Y. Peng, D. B. Robinson, Ind. Eng. Chem. Fundam. 15 (1976) 59-64).
class CubicEquation final : public EquationOfState {
 public:
  /// Which of the two equations.
  enum class Form { soave_redlich_kwong, peng_robinson };

  /// @param translated volumes are translated so that liquid densities come out right: c = 0.40768 (0.29441 -
  /// Z_RA) R Tc/Pc with Soave-Redlich-Kwong (A. Peneloux, E. Rauzy, R. Freze, Fluid Phase Equilib. 8 (1982)
  /// 7-23), 0.50033 (0.25969 - Z_RA) R Tc/Pc with Peng-Robinson (as printed by K. S. Pedersen, P. L.
  /// Christensen, Phase Behavior of Petroleum Reservoir Fluids (2007)); equilibria do not change
  /// @throws CalculationError naming every substance whose critical point or acentric factor is not known
  CubicEquation(Form form, const std::vector<Substance>& substances,
                const InteractionTable& interactions = {}, bool translated = false);

  std::string_view name() const override { return form_ == Form::peng_robinson ? "pr" : "srk"; }
  std::size_t size() const override { return b_.size(); }
  std::unique_ptr<EquationOfState> clone() const override { return std::make_unique<CubicEquation>(*this); }
  void evaluate(double T_K, double V_m3, std::span<const double> n, HelmholtzWanted wanted,
                Helmholtz& out) override;
  VolumeRoots volumes(double T_K, double P_Pa, std::span<const double> x) override;

  bool vapour_like(double T_K, double v_m3_mol, std::span<const double> x) override;
  std::optional<double> ln_phi_pure(std::size_t i, double T_K, double P_Pa) override;
  double translation(std::size_t i) const override { return c_[i]; }
  bool translated() const override { return translated_; }

  /// For those who want to see the calculation (--working).
  struct Mixed {
    double a,                     ///< attraction, J m3/mol2
        b,                        ///< co-volume, m3/mol
        A,                        ///< a P/(R T)^2
        B;                        ///< b P/(R T)
    std::array<double, 4> cubic;  ///< coefficients of Z^3, Z^2, Z, 1
  };
  /// Parameters of the mixture.
  Mixed mixed(double T_K, double P_Pa, std::span<const double> x);
  double a(std::size_t i, double T_K);  ///< Pa m6/mol2
  /// Co-volume of a component, m3/mol.
  double b(std::size_t i) const { return b_[i]; }
  /// Binary interaction parameter.
  double k(std::size_t i, std::size_t j) const { return k_[i * size() + j]; }

 private:
  void set_temperature(double T_K);
  void mix(std::span<const double> n);
  void add_cubic(Mixed& mixed, double T_K, double P_Pa) const;
  VolumeRoots roots(const Mixed& mixed, double T_K, double P_Pa) const;
  double gibbs(const Mixed& mixed, double T_K, const VolumeRoot& root) const;
  void add_root(const Mixed& mixed, double T_K, double P_Pa, double Z, VolumeRoots& roots) const;

  Form form_;
  bool translated_;
  double d1_, d2_;
  std::vector<double> Tc_, root_ac_, m_, b_, k_, c_;
  std::vector<bool> hydrogen_;
  double T_K_ = 0;
  std::vector<double> unlike_;           ///< 1 - k_ij
  std::vector<double> s_, ds_, dds_;     ///< sqrt(a_i) and its derivatives with T, at T_K_
  std::vector<double> pull_;             ///< sqrt(a_i a_j) (1 - k_ij) at T_K_
  std::vector<double> mixed_n_;          ///< amounts to which sum_ belongs
  std::vector<double> sum_, slope_sum_;  ///< scratch
  std::vector<double> D_i_, D_iT_;
};

}  // namespace jampot
