#pragma once
// Gases dissolved after Henry's law in a liquid whose solvents follow an activity model.
#include <optional>
#include <string_view>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Henry's constant of a solute in a solvent, H = limit of f/x, Pa: ln H = constant + slope/T.
struct HenryConstant {
  std::size_t solute = 0,  ///< number of the dissolved gas
      solvent = 0;         ///< number of the solvent
  double constant = 0,     ///< ln of the constant in Pa at infinite temperature
      slope_K = 0;         ///< over T, K

  /// Ln of the constant in Pa.
  double ln_H(double T_K) const { return constant + slope_K / T_K; }
};

/// Reads "carbon dioxide in water = 1640 bar" or, for a change with temperature, "... = 1640 bar at 25 degC,
/// 2360 bar at 40 degC" (ln H linear in 1/T through both).
/// @throws RequestError saying what was expected
HenryConstant parse_henry(std::string_view text, const std::vector<Substance>& substances);

/// Solutes after Henry's law: f_i = x_i H_i with ln H_i = sum over solvents x'_j ln H_ij (x' without the
/// solutes), the rule of an ideal mixed solvent; solvents after their own model in x', and with the term that
/// the Gibbs-Duhem equation asks of them in a mixed solvent. "ln gamma" of a solute is ln(H_i/Pa). Source of
/// the mixing rule: J. M. Prausnitz et al., Molecular Thermodynamics of Fluid-Phase Equilibria, 2nd ed.
/// (1986), chapter 8.
class HenrySolution final : public ActivityModel {
 public:
  /// @param solvents model of the solvents among themselves in their order in the mixture; nullptr where
  /// there is one
  /// @throws RequestError naming a solute without its constant in one of the solvents
  HenrySolution(const std::vector<Substance>& substances, std::unique_ptr<ActivityModel> solvents,
                std::vector<HenryConstant> constants);
  /// A copy with a state of its own.
  HenrySolution(const HenrySolution& other);
  HenrySolution& operator=(const HenrySolution&) = delete;

  std::string_view name() const override { return solvents_ ? solvents_->name() : "ideal"; }
  std::size_t size() const override { return place_.size(); }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<HenrySolution>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  void write_out(Working& page) const override;
  /// True where a component is dissolved by Henry's law.
  bool is_solute(std::size_t i) const { return solute_[i]; }
  /// All constants.
  const std::vector<HenryConstant>& constants() const { return constants_; }

 private:
  const HenryConstant& of(std::size_t solute, std::size_t solvent) const;

  std::unique_ptr<ActivityModel> solvents_;
  std::vector<HenryConstant> constants_;
  std::vector<bool> solute_;
  std::vector<std::size_t> place_;    ///< number among the solvents
  std::vector<std::size_t> members_;  ///< the solvents
  double T_K_ = 0;
  std::vector<double> x_, ln_gamma_, dT_, dn_;
};

}  // namespace jampot
