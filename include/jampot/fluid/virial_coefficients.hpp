#pragma once
// Second virial coefficients of mixtures.
#include <memory>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/fluid/interaction_table.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// A second virial coefficient and its derivatives with T; m3/mol, K.
struct VirialCoefficient {
  double value = 0,  ///< m3/mol
      dT = 0,        ///< first derivative with T
      dTT = 0;       ///< second derivative with T
};

/// B_ij of every pair at a temperature. Holds scratch space: one object per thread.
class VirialCoefficients {
 public:
  virtual ~VirialCoefficients() = default;
  /// As users write it.
  virtual std::string_view name() const = 0;
  /// An independent copy.
  virtual std::unique_ptr<VirialCoefficients> clone() const = 0;

  /// Number of components.
  std::size_t size() const { return size_; }
  /// Computes all pairs where the temperature has changed.
  void set_temperature(double T_K);
  /// Coefficient of a pair at the temperature set last.
  const VirialCoefficient& total(std::size_t i, std::size_t j) const { return total_[i * size_ + j]; }
  /// The share of pairs that stay together (metastable, bound, chemically associated): what an associating
  /// vapour treats as dimers. The rest, total - bound, is that of free molecules.
  const VirialCoefficient& bound(std::size_t i, std::size_t j) const { return bound_[i * size_ + j]; }
  /// Whether molecules pair up so strongly that dimers have to be counted as molecules of their own.
  bool dimers() const { return dimers_; }
  /// What the user should know: substances without parameters, forms used outside their purpose.
  const Notices& notices() const { return notices_; }

 protected:
  /// For that many components.
  explicit VirialCoefficients(std::size_t size) : size_(size), total_(size * size), bound_(size * size) {}
  /// Fills the coefficients of all pairs at T_K.
  virtual void compute(double T_K) = 0;
  /// Sets a pair, in both orders: all of it and the part that is bound in dimers.
  void set(std::size_t i, std::size_t j, const VirialCoefficient& total, const VirialCoefficient& bound);

  std::size_t size_;     ///< number of components
  bool dimers_ = false;  ///< true where a component dimerises
  Notices notices_;      ///< filled by the constructors

 private:
  double T_K_ = 0;
  std::vector<VirialCoefficient> total_, bound_;
};

/// Corresponding states in the form for non-polar substances, with the combining rules of J. M. Prausnitz et
/// al., Molecular Thermodynamics of Fluid-Phase Equilibria, 2nd ed. (1986): Tc_ij = sqrt(Tc_i Tc_j) (1 -
/// k_ij). Source: C. Tsonopoulos, AIChE J. 20 (1974) 263-272. Polar substances are named in a notice.
class TsonopoulosVirial final : public VirialCoefficients {
 public:
  /// @throws CalculationError naming every substance whose critical point or acentric factor is not known
  explicit TsonopoulosVirial(const std::vector<Substance>& substances,
                             const InteractionTable& interactions = {});
  /// As users write it.
  std::string_view name() const override { return "tsonopoulos"; }
  /// An independent copy.
  std::unique_ptr<VirialCoefficients> clone() const override {
    return std::make_unique<TsonopoulosVirial>(*this);
  }

 private:
  struct Pair {
    double Tc_K, scale, omega;  ///< scale = R Tc/Pc
  };
  void compute(double T_K) override;
  std::vector<Pair> pairs_;
};

/// From radius of gyration, dipole moment and association: polar and associating substances too. Pairs with a
/// substance whose parameters are not known are taken from `TsonopoulosVirial`, with a notice. Acids without
/// parameters pair up by the constants of their dimers; dimers of two different ones by K = 2 sqrt(K1 K2)
/// (J. Marek, G. Standart, Collect. Czech. Chem. Commun. 19 (1954) 1074). Source: J. G.
/// Hayden, J. P. O'Connell, Ind. Eng. Chem. Process Des. Dev. 14 (1975) 209-216, in the arrangement of J. M.
/// Prausnitz et al. (1980).
class HaydenOConnellVirial final : public VirialCoefficients {
 public:
  /// Throws MissingData where a constant of the method is missing.
  explicit HaydenOConnellVirial(const std::vector<Substance>& substances);
  /// As users write it.
  std::string_view name() const override { return "virial"; }
  /// An independent copy.
  std::unique_ptr<VirialCoefficients> clone() const override {
    return std::make_unique<HaydenOConnellVirial>(*this);
  }

 private:
  struct Pair {  // sizes in Angstrom, energies over k in K
    bool known = false;
    double omega, energy, sigma, dipole2, eta;
  };
  void compute(double T_K) override;
  void pair_up(double T_K);
  std::vector<Pair> pairs_;
  std::vector<std::optional<DimerConstant>> dimer_;  ///< of acids without parameters
  std::vector<bool> acid_;
  TsonopoulosVirial rest_;
};

}  // namespace jampot
