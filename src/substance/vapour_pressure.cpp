#include "jampot/substance/vapour_pressure.hpp"

#include <numbers>

#include "jampot/basis/constants.hpp"

namespace jampot {

VapourPressure::VapourPressure(const Coefficients& table, std::string source, char grade)
    : a_(table.A * std::numbers::ln10 + std::log(mmHg)),
      b_(table.B * std::numbers::ln10),
      c_(table.C - celsius_zero),
      Tmin_K_(table.Tmin_K),
      Tmax_K_(table.Tmax_K),
      source_(std::move(source)),
      grade_(grade) {
  low_ = end_at(Tmin_K_);
  high_ = end_at(Tmax_K_);
}

VapourPressure::End VapourPressure::end_at(double T_K) const {
  return {a_ - b_ / (T_K + c_), b_ * T_K * T_K / ((T_K + c_) * (T_K + c_))};
}

double VapourPressure::T_K(double P_Pa) const {
  const double ln_P = std::log(P_Pa);
  if (ln_P < low_.ln_P) return 1 / (1 / Tmin_K_ + (low_.ln_P - ln_P) / low_.slope);
  if (ln_P > high_.ln_P) {
    const double inverse_T = 1 / Tmax_K_ + (high_.ln_P - ln_P) / high_.slope;
    // The continuation stays below a finite pressure however hot it gets; there is no boiling point beyond
    // that.
    return inverse_T > 0 ? 1 / inverse_T : HUGE_VAL;
  }
  return b_ / (a_ - ln_P) - c_;
}

}  // namespace jampot
