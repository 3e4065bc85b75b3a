#pragma once
#include <array>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/contact_sum.hpp"
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/size_part.hpp"
#include "jampot/substance/unifac_groups.hpp"

namespace jampot {

/// What two main groups do to each other: psi_mn = exp(-(a + b T + c T^2)/T).
struct GroupInteraction {
  double a_K = 0,    ///< constant, K
      b = 0,         ///< factor of T
      c_per_K = 0;   ///< factor of T squared, 1/K
  char grade = 'C';  ///< A to D, how well the source is established
};

/// An interaction in use: both directions, for the record of a result.
struct GroupPair {
  std::array<std::string, 2> main_groups;  ///< names of both
  GroupInteraction forward,                ///< of the first with the second
      backward;                            ///< of the second with the first
};

/// UNIFAC, the group-contribution method, with one of its three published tables:
///
///   ln gamma_i = size part (SizePart) + sum_k nu_ki (ln Gamma_k - ln Gamma_k(pure i)),
///   ln Gamma_k = Q_k (1 - ln sum_m theta_m psi_mk - sum_m theta_m psi_km / sum_n theta_n psi_nm),
///
/// with theta_m the surface fraction of group m. The tables for vapour-liquid and for liquid-liquid
/// equilibria have psi_mn = exp(-a_mn/T); the modified one has psi_mn = exp(-(a + b T + c T^2)/T) and the
/// exponent 3/4 in the size part.
///
/// Source: Aa. Fredenslund, R. L. Jones, J. M. Prausnitz, AIChE J. 21 (1975) 1086-1099; tables: UnifacTable.
class Unifac final : public ActivityModel {
 public:
  /// @throws CalculationError naming every substance without a group make-up, or every missing interaction by
  /// the names of its groups and of the substances that have them: nothing is taken as zero
  Unifac(const std::vector<Substance>& substances, UnifacTable table);

  /// What the model is, for users and for fits.
  static ModelDescription description(UnifacTable table);

  std::string_view name() const override { return name_; }
  std::size_t size() const override { return size_part_.size(); }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Unifac>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;

  /// Which table.
  UnifacTable table() const { return table_; }
  /// The interactions in use, each pair of main groups once.
  const std::vector<GroupPair>& group_pairs() const { return pairs_; }
  /// Those of a grade, "H2O - CNO2": C rests on one transcription, D contradicts what is known.
  std::vector<std::string> group_pairs_of(char grade) const;

  // For those who want to see the calculation (--working).
  /// Those that occur.
  const std::vector<UnifacGroup>& groups() const { return groups_; }
  /// How often a group occurs in a component.
  double count(std::size_t component, std::size_t group) const {
    return count_[component * groups_.size() + group];
  }
  /// Interaction at the temperature set last.
  double psi(std::size_t m, std::size_t n) const { return contacts_.psi(m, n); }
  /// The combinatorial part.
  const SizePart& size_part() const { return size_part_; }

 private:
  struct Entry {  ///< one psi that is not 1: its place and its interaction
    std::size_t m, n;
    GroupInteraction value;
  };
  void read_interactions(const std::vector<Substance>& substances);
  void pure_liquids();
  void derivatives_with_T();

  UnifacTable table_;
  std::string name_;
  std::vector<UnifacGroup> groups_;  ///< the distinct subgroups of the mixture
  std::vector<double> count_;        ///< nu_ki, component by component
  std::vector<double> surface_;      ///< nu_ki Q_k
  std::vector<GroupPair> pairs_;
  /// The distinct interactions and, for each place of psi, which of them stands there (-1: none, psi is 1).
  std::vector<Entry> entries_;
  std::vector<GroupInteraction> interactions_;
  std::vector<std::size_t> entry_interaction_;
  std::vector<double> psi_of_, dpsi_of_;
  SizePart size_part_;
  ContactSum contacts_;
  double T_K_ = 0;
  bool dT_ready_ = false;                      ///< derivatives with T are made when first asked for
  std::vector<std::vector<std::size_t>> own_;  ///< the groups that each component has
  /// sum_k nu_ki ln Gamma_k(pure i), and its derivative with T
  std::vector<double> reference_, dreference_;
  std::vector<double> s_, gradient_, dgradient_, hessian_, product_;
};

/// The range of temperatures that the authors of a table state, if they do.
std::optional<std::array<double, 2>> unifac_T_range_K(UnifacTable table);

/// What to do where a table has an interaction that contradicts what is known (grade D).
enum class DoubtfulGroups { refuse, use };
/// @throws RequestError naming both
DoubtfulGroups parse_doubtful_groups(const std::string& text);
/// @throws CalculationError naming the interactions of grade D of a UNIFAC model, and what would help
void refuse_doubtful_groups(const ActivityModel& model);

/// The citation of a table.
std::string unifac_source(UnifacTable table);

}  // namespace jampot
