#pragma once
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/pair_model.hpp"

namespace jampot {

/// The Margules equation with two constants for each pair, for any number of components:
///
///   gE/(RT) = sum over pairs of x_i x_j [(A_12 + A_21)/2 + (A_21 - A_12)/2 (x_i - x_j)],
///
/// of a binary ln gamma_1 = x_2^2 [A_12 + 2 (A_21 - A_12) x_1], so that A_12 and A_21 are the logarithms of
/// the limiting activity coefficients of the first and of the second substance. To more components it goes
/// by pairs alone, as a Redlich-Kister expansion does: no term of three.
///
/// Terms of a pair: A_12 and A_21, each a TemperatureFunction.
///
/// Sources: M. Margules, Sitzungsber. Akad. Wiss. Wien 104 (1895) 1243-1278; O. Redlich, A. T. Kister, Ind.
/// Eng. Chem. 40 (1948) 345-348.
class Margules final : public PairModel {
 public:
  static constexpr std::string_view model_name = "margules";  ///< as users write it

  /// `pairs[p]` for i < j in the order (0,1), (0,2), ... (1,2), ..., with i as substance 1.
  /// @throws RequestError where a pair lacks A_12 or A_21, or names another term.
  Margules(std::size_t size, const std::vector<PairParameters>& pairs);

  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return model_name; }
  std::size_t size() const override { return n_; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Margules>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

 private:
  struct Pair {
    std::size_t i, j;
    double mean = 0, half = 0;        ///< (A_12 + A_21)/2 and (A_21 - A_12)/2 at T
    double mean_dT = 0, half_dT = 0;  ///< their derivatives with T
  };
  std::size_t n_;
  std::vector<Pair> pairs_;
};

}  // namespace jampot
