#pragma once
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/pair_model.hpp"

namespace jampot {

/// The Redlich-Kister expansion up to four constants for each pair, for any number of components:
///
///   gE/(RT) = sum over pairs of x_i x_j [B_0 + B_1 (x_i - x_j) + B_2 (x_i - x_j)^2 + B_3 (x_i - x_j)^3].
///
/// With B_0 and B_1 alone it is the Margules equation with two constants, B_0 = (A_12 + A_21)/2 and
/// B_1 = (A_21 - A_12)/2; a fit holds B_2 and B_3 at zero unless it is asked to release them. To more
/// components it goes by pairs alone: no term of three. B_1 and B_3 change their sign where a pair is read
/// from the other side.
///
/// Terms of a pair: B_0, B_1, B_2 and B_3, each a TemperatureFunction.
///
/// Source: O. Redlich, A. T. Kister, Ind. Eng. Chem. 40 (1948) 345-348.
class RedlichKister final : public PairModel {
 public:
  static constexpr std::string_view model_name = "redlich-kister";  ///< as users write it
  static constexpr std::size_t orders = 4;                          ///< number of terms

  /// `pairs[p]` for i < j in the order (0,1), (0,2), ... (1,2), ..., with i as substance 1.
  /// @throws RequestError where a pair lacks a term, or names another one.
  RedlichKister(std::size_t size, const std::vector<PairParameters>& pairs);

  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return model_name; }
  std::size_t size() const override { return n_; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<RedlichKister>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

 private:
  std::size_t n_;
  std::vector<double> B_, B_dT_;  ///< of each term, at the current temperature
};

}  // namespace jampot
