#pragma once
// The calculation of activity coefficients written out, as a careful engineer would check it by hand.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

class SizePart;

/// Lines of text: the equations of the model in symbols, then with the numbers put in, for one composition at
/// T_K. The last number of each component is its ln gamma as `evaluate` gives it.
std::vector<std::string> working(ActivityModel& model, const std::vector<Substance>& substances, double T_K,
                                 const std::vector<double>& x);

/// The page on which a model writes itself out (`ActivityModel::write_out`).
class Working {
 public:
  /// At one state.
  Working(double T_K, const std::vector<double>& x) : T_K_(T_K), x_(x) {}

  /// Temperature, K.
  double T_K() const { return T_K_; }
  /// Composition.
  const std::vector<double>& x() const { return x_; }

  /// Adds a line.
  void say(std::string_view line);
  /// "ln gamma_1 = a + b = sum;  gamma_1 = exp(sum)" of component i.
  void result(std::size_t i, const std::vector<double>& terms, double sum);
  /// The size part of UNIQUAC and UNIFAC; of the modified one with r^(3/4). @returns its ln gamma
  std::vector<double> size_part(const SizePart& part, bool modified);

  /// A function of temperature with the numbers put in, "1.2 - 310/298.15".
  std::string text_of(const TemperatureFunction& function) const;
  /// Six significant digits.
  static std::string number(double value);
  /// "a + b - c = sum".
  static std::string added(const std::vector<double>& terms, double sum);

  /// The lines; none are left behind.
  std::vector<std::string> take() { return std::move(lines_); }

 private:
  double T_K_;
  const std::vector<double>& x_;
  std::vector<std::string> lines_;
};

}  // namespace jampot
