#pragma once
// The face of every equation of state: its residual Helmholtz energy and what follows from it.
#include <array>
#include <cstddef>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"

namespace jampot {

/// Which derivatives a caller needs beside F, F_V, F_T and F_i.
struct HelmholtzWanted {
  bool V = false;            ///< F_VV, F_iV
  bool T = false;            ///< F_TV, F_iT
  bool TT = false;           ///< F_TT
  bool composition = false;  ///< F_ij
};

/// The reduced residual Helmholtz energy F = A^r(T, V, n)/(R T) and its derivatives, V in m3 for the amounts
/// n in mol.
struct Helmholtz {
  /// With room for n components.
  explicit Helmholtz(std::size_t n = 0) : i(n), iV(n), iT(n), ij(n * n) {}
  double F = 0,            ///< residual Helmholtz energy over R T
      V = 0,               ///< derivative with V
      VV = 0,              ///< second derivative with V
      T = 0,               ///< derivative with T
      TV = 0,              ///< with T and V
      TT = 0;              ///< second derivative with T
  std::vector<double> i,   ///< with n_i
      iV,                  ///< with n_i and V
      iT;                  ///< with n_i and T
  std::vector<double> ij;  ///< [i*n + j]
};

/// A volume at which the equation gives the pressure asked for.
struct VolumeRoot {
  double v_m3_mol = 0;  ///< molar volume, m3/mol
  double Z = 0;         ///< compressibility factor P v/(R T)
  double gibbs = 0;  ///< of several: residual Gibbs energy/(RT), sum x_i ln phi_i; the lowest one is stable
};

/// Up to three volumes, the smallest first.
class VolumeRoots {
 public:
  /// Adds one; at most three.
  void add(const VolumeRoot& root) { roots_[size_++] = root; }
  /// Number of roots.
  std::size_t size() const { return size_; }
  /// True where there is none.
  bool empty() const { return size_ == 0; }
  /// First root.
  const VolumeRoot* begin() const { return roots_.data(); }
  /// Past the last root.
  const VolumeRoot* end() const { return roots_.data() + size_; }
  /// First root.
  VolumeRoot* begin() { return roots_.data(); }
  /// Past the last root.
  VolumeRoot* end() { return roots_.data() + size_; }
  /// Smallest volume.
  const VolumeRoot& front() const { return roots_[0]; }
  /// Largest volume.
  const VolumeRoot& back() const { return roots_[size_ - 1]; }
  /// One of them, not checked.
  const VolumeRoot& operator[](std::size_t k) const { return roots_[k]; }
  /// The one with the lowest Gibbs energy. @pre not empty
  const VolumeRoot& stable() const;

 private:
  std::array<VolumeRoot, 3> roots_;
  std::size_t size_ = 0;
};

/// An equation of state for a mixture. Holds scratch space: one object per thread.
class EquationOfState {
 public:
  virtual ~EquationOfState() = default;
  /// The word by which it is chosen: "nrtl", "pr".
  virtual std::string_view name() const = 0;
  /// Number of components.
  virtual std::size_t size() const = 0;
  /// A copy of its own, for another thread or another temperature.
  virtual std::unique_ptr<EquationOfState> clone() const = 0;

  /// @pre T_K > 0, V large enough that molecules fit in; n_i >= 0, not all zero
  virtual void evaluate(double T_K, double V_m3, std::span<const double> n, HelmholtzWanted wanted,
                        Helmholtz& out) = 0;

  /// All mechanically stable volumes at T_K, P_Pa and mole fractions x (dP/dV < 0), the smallest first:
  /// liquid, vapour.
  virtual VolumeRoots volumes(double T_K, double P_Pa, std::span<const double> x) = 0;

  /// The smallest of them (`thin` false) or the largest, without the search for the others where an equation
  /// can do that. Nothing where there is none.
  virtual std::optional<VolumeRoot> outermost_volume(double T_K, double P_Pa, std::span<const double> x,
                                                     bool thin) {
    const VolumeRoots roots = volumes(T_K, P_Pa, x);
    if (roots.empty()) return std::nullopt;
    return thin ? roots.back() : roots.front();
  }

  /// Whether a fluid of this molar volume is called a vapour: thinner than at the equation's critical point.
  virtual bool vapour_like(double T_K, double v_m3_mol, std::span<const double> x) = 0;

  /// ln phi of a pure component at its stable volume, where the equation has it in closed form.
  virtual std::optional<double> ln_phi_pure(std::size_t, double, double) { return std::nullopt; }

  /// What is to be subtracted from the molar volume for each mole of a component (volume translation),
  /// m3/mol; zero where none is used. The volumes above are before translation.
  virtual double translation(std::size_t) const { return 0; }
  /// Whether any component has one.
  virtual bool translated() const { return false; }

  /// What the user should know: interactions taken as zero, functions put in for single substances.
  const Notices& notices() const { return notices_; }

 protected:
  Notices notices_;  ///< filled by the constructors of the equations
};

/// Which derivatives of ln phi_i are wanted.
struct FluidDerivatives {
  bool T = false,           ///< with temperature
      ln_P = false,         ///< with the logarithm of pressure
      composition = false;  ///< with amounts
};

/// What follows from F at one state, for one mole of mole fractions x.
struct FluidState {
  /// With room for n components.
  explicit FluidState(std::size_t n = 0) : ln_phi(n), dT(n), dln_P(n), dn(n * n), helmholtz(n) {}
  double P_Pa = 0,                ///< pressure, Pa
      Z = 0;                      ///< compressibility factor P v/(R T)
  double v_m3_mol = 0;            ///< molar volume after translation
  std::vector<double> ln_phi;     ///< ln of the fugacity coefficients
  double h_residual_J_mol = 0;    ///< enthalpy less that of the ideal gas at the same T
  double s_residual_J_mol_K = 0;  ///< entropy less that of the ideal gas at the same T and P
  std::vector<double> dT,         ///< derivatives of ln phi with T
      dln_P;                      ///< derivatives of ln phi with ln P
  std::vector<double> dn;         ///< [i*n + k] d ln phi_i/d n_k for one mole in all
  Helmholtz helmholtz;            ///< from which all this was computed
};

/// ln phi_i = F_i - ln Z and its relatives at T_K and a molar volume (before translation); derivatives where
/// wanted. A translation c_i takes c_i P/(R T) from each ln phi_i, alike in every phase.
/// @param P_Pa the pressure to which the volume belongs, where it is known; 0: computed
///
/// Source of the relations: M. L. Michelsen, J. M. Mollerup, Thermodynamic Models: Fundamentals and
/// Computational Aspects, 2nd ed. (2007), chapter 2.
void fluid_state(EquationOfState& equation, double T_K, double v_m3_mol, std::span<const double> x,
                 FluidDerivatives derivatives, FluidState& out, double P_Pa = 0);

/// The same with all derivatives or none.
inline void fluid_state(EquationOfState& equation, double T_K, double v_m3_mol, std::span<const double> x,
                        bool derivatives, FluidState& out, double P_Pa = 0) {
  fluid_state(equation, T_K, v_m3_mol, x, FluidDerivatives{derivatives, derivatives, derivatives}, out, P_Pa);
}

}  // namespace jampot
