#include "jampot/substance/vapour_pressure.hpp"

#include <algorithm>
#include <numbers>
#include <numeric>

#include "../basis/bracket.hpp"
#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

// Coefficients of tau, tau^1.5, tau^2.5, tau^5 for f0, f1, f2 (Ambrose, Walton 1989, table 1).
constexpr double f0[] = {-5.97616, 1.29874, -0.60394, -1.06841};
constexpr double f1[] = {-5.03365, 1.11505, -5.41217, -7.46628};
constexpr double f2[] = {-0.64771, 2.41539, -4.26979, 3.25259};

double combined(int power, double acentric_factor) {
  return f0[power] + acentric_factor * (f1[power] + acentric_factor * f2[power]);
}

}  // namespace

CorrespondingStates::CorrespondingStates(const Critical& critical)
    : Tc_K_(critical.Tc_K),
      ln_Pc_(std::log(critical.Pc_Pa)),
      c1_(combined(0, critical.acentric_factor)),
      c15_(combined(1, critical.acentric_factor)),
      c25_(combined(2, critical.acentric_factor)),
      c5_(combined(3, critical.acentric_factor)) {}

double CorrespondingStates::numerator(double tau) const {
  const double root = std::sqrt(tau);
  return tau * (c1_ + c15_ * root + tau * (c2_ + c25_ * root)) + c5_ * std::pow(tau, 5);
}

double CorrespondingStates::numerator_slope(double tau) const {
  const double root = std::sqrt(tau);
  return c1_ + 1.5 * c15_ * root + tau * (2 * c2_ + 2.5 * c25_ * root) + 5 * c5_ * std::pow(tau, 4);
}

double CorrespondingStates::ln_P(double T_K) const {
  const double Tr = T_K / Tc_K_;
  return ln_Pc_ + numerator(1 - Tr) / Tr;
}

double CorrespondingStates::dln_P_dT(double T_K) const {
  const double Tr = T_K / Tc_K_, tau = 1 - Tr;
  return -(numerator_slope(tau) + numerator(tau) / Tr) / (Tr * Tc_K_);
}

CorrespondingStates CorrespondingStates::joined(double T_K, double ln_P, double dln_P_dT) const {
  const double Tr = T_K / Tc_K_, tau = 1 - Tr;
  const double missing = (ln_P - ln_Pc_) * Tr - numerator(tau);
  const double missing_slope = -(dln_P_dT * Tc_K_ * Tr + (ln_P - ln_Pc_)) - numerator_slope(tau);
  // c1 tau + c2 tau^2 = missing, c1 + 2 c2 tau = missing_slope
  const double c2 = (missing_slope * tau - missing) / (tau * tau);
  return with_terms(missing_slope - 2 * c2 * tau, c2);
}

CorrespondingStates CorrespondingStates::with_terms(double c1, double c2) const {
  CorrespondingStates curve = *this;
  curve.c1_ += c1;
  curve.c2_ += c2;
  return curve;
}

double CorrespondingStates::acentric_factor(double Tb_K, double Tc_K, double Pc_Pa, double P_Pa) {
  // ln P is quadratic in the acentric factor; its f2 is small, so a few secant-free corrections settle it.
  double omega = 0.3;
  for (int iteration = 0; iteration < 50; ++iteration) {
    constexpr double step = 1e-4;
    const auto error = [&](double w) {
      return CorrespondingStates({Tc_K, Pc_Pa, w}).ln_P(Tb_K) - std::log(P_Pa);
    };
    const double here = error(omega);
    if (std::abs(here) < 1e-13) break;
    omega -= here * step / (error(omega + step) - here);
  }
  return omega;
}

LongCurve::LongCurve(const Coefficients& coefficients) : of_(coefficients), Tc_K_(coefficients.Tmax_K) {}

namespace {

constexpr double fading_K = 20, led_from = 0.9;  // of Tc

}  // namespace

LongCurve LongCurve::ending_at(double Tc_K, double Pc_Pa) const {
  LongCurve curve = *this;
  curve.Tc_K_ = Tc_K;
  curve.end_ = 0;
  curve.end_ = std::log(Pc_Pa) - curve.ln_P(Tc_K);
  return curve;
}

// Value and slope of the difference at u = 0 are A and B - A/fading.
LongCurve::Join LongCurve::join_at(double T_K, double ln, double slope, double side) const {
  const double A = ln - ln_P(T_K);
  return {T_K, A, side * (slope - dln_P_dT(T_K)) + A / fading_K};
}

LongCurve LongCurve::joined_below(double T_K, double ln, double slope) const {
  LongCurve curve = *this;
  curve.below_ = join_at(T_K, ln, slope, -1);
  return curve;
}

LongCurve LongCurve::joined_above(double T_K, double ln, double slope) const {
  LongCurve curve = *this;
  curve.above_ = join_at(T_K, ln, slope, 1);
  return curve;
}

double LongCurve::ln_P(double T_K) const {
  const auto& [c1, c2, c3, c4, c5] = of_.C;
  double ln = std::log(of_.scale) + c1 + c2 / T_K + c3 * std::log(T_K) + c4 * std::pow(T_K, c5);
  const double start = led_from * Tc_K_;
  if (T_K > start) ln += end_ * std::pow((T_K - start) / (Tc_K_ - start), 2);
  if (above_ && T_K >= above_->T_K) {
    const double u = T_K - above_->T_K;
    ln += (above_->A + above_->B * u) * std::exp(-u / fading_K);
  } else if (below_ && T_K <= below_->T_K) {
    const double u = below_->T_K - T_K;
    ln += (below_->A + below_->B * u) * std::exp(-u / fading_K);
  }
  return ln;
}

double LongCurve::dln_P_dT(double T_K) const {
  const auto& [c1, c2, c3, c4, c5] = of_.C;
  double slope = (-c2 / T_K + c3 + c4 * c5 * std::pow(T_K, c5)) / T_K;
  const double start = led_from * Tc_K_;
  if (T_K > start) slope += 2 * end_ * (T_K - start) / std::pow(Tc_K_ - start, 2);
  const auto faded = [](const Join& join, double u) {
    return (join.B - (join.A + join.B * u) / fading_K) * std::exp(-u / fading_K);
  };
  if (above_ && T_K >= above_->T_K) {
    slope += faded(*above_, T_K - above_->T_K);
  } else if (below_ && T_K <= below_->T_K) {
    slope -= faded(*below_, below_->T_K - T_K);
  }
  return slope;
}

VapourPressure::VapourPressure(LongCurve curve, const std::optional<Coefficients>& row, std::string source,
                               char grade, const std::optional<Critical>& critical)
    : source_(std::move(source)), grade_(grade) {
  if (row) {
    a_ = row->A * std::numbers::ln10 + std::log(mmHg);
    b_ = row->B * std::numbers::ln10;
    c_ = row->C - celsius_zero;
    Tmin_K_ = row->Tmin_K;
    Tmax_K_ = row->Tmax_K;
    curve = curve.joined_below(Tmin_K_, ln_P(Tmin_K_), dln_P_dT(Tmin_K_))
                .joined_above(Tmax_K_, ln_P(Tmax_K_), dln_P_dT(Tmax_K_));
  }
  if (critical) curve = curve.ending_at(critical->Tc_K, critical->Pc_Pa);
  measured_low_K_ = std::min(curve.Tmin_K(), row ? Tmin_K_ : curve.Tmin_K());
  measured_high_K_ = curve.Tmax_K();
  Tc_K_ = measured_high_K_;
  curve_ = std::move(curve);
  set_ends(measured_low_K_);
}

VapourPressure::VapourPressure(const Coefficients& table, std::string source, char grade,
                               std::optional<Critical> critical, std::optional<double> Tm_K)
    : a_(table.A * std::numbers::ln10 + std::log(mmHg)),
      b_(table.B * std::numbers::ln10),
      c_(table.C - celsius_zero),
      Tmin_K_(table.Tmin_K),
      Tmax_K_(table.Tmax_K),
      measured_low_K_(table.Tmin_K),
      measured_high_K_(table.Tmax_K),
      source_(std::move(source)),
      grade_(grade) {
  double lowest = Tmin_K_;
  if (critical && critical->Tc_K > Tmax_K_) {
    Tc_K_ = critical->Tc_K;
    const CorrespondingStates curve(*critical);
    below_ = curve.joined(Tmin_K_, ln_P(Tmin_K_), dln_P_dT(Tmin_K_));
    above_ = curve.joined(Tmax_K_, ln_P(Tmax_K_), dln_P_dT(Tmax_K_));
    lowest = std::min(Tmin_K_, Tm_K.value_or(0.35 * *Tc_K_));
  }
  set_ends(lowest);
}

VapourPressure::VapourPressure(const CorrespondingStates& curve, double Tc_K, double Tmin_K, double Tmax_K,
                               std::string source, std::optional<double> Tm_K)
    : measured_low_K_(Tmin_K),
      measured_high_K_(Tmax_K),
      Tc_K_(Tc_K),
      below_(curve),
      above_(curve),
      source_(std::move(source)),
      grade_('C') {
  set_ends(std::min(Tmin_K, Tm_K.value_or(0.35 * Tc_K)));
}

VapourPressure::VapourPressure(const CorrespondingStates& curve, double Tc_K, std::string source,
                               std::optional<double> Tm_K)
    : Tc_K_(Tc_K), below_(curve), above_(curve), source_(std::move(source)), grade_('C') {
  set_ends(Tm_K.value_or(0.35 * Tc_K));
}

VapourPressure::VapourPressure(const Critical& critical, std::string source, std::optional<double> Tm_K)
    : VapourPressure(CorrespondingStates(critical), critical.Tc_K, std::move(source), Tm_K) {}

void VapourPressure::set_ends(double lowest_T_K) {
  const auto end = [](double T_K, double ln_P, double slope) { return End{T_K, ln_P, slope * T_K * T_K}; };
  if (curve_) {
    low_end_ = end(lowest_T_K, curve_->ln_P(lowest_T_K), curve_->dln_P_dT(lowest_T_K));
    high_end_ = end(*Tc_K_, curve_->ln_P(*Tc_K_), curve_->dln_P_dT(*Tc_K_));
    return;
  }
  const bool antoine = Tmin_K_ <= Tmax_K_;
  const bool from_curve = below_ && (!antoine || lowest_T_K < Tmin_K_);
  low_end_ = from_curve ? end(lowest_T_K, below_->ln_P(lowest_T_K), below_->dln_P_dT(lowest_T_K))
                        : end(lowest_T_K, ln_P(lowest_T_K), dln_P_dT(lowest_T_K));
  high_end_ = above_ ? end(*Tc_K_, above_->ln_P(*Tc_K_), above_->dln_P_dT(*Tc_K_))
                     : end(Tmax_K_, ln_P(Tmax_K_), dln_P_dT(Tmax_K_));
}

double VapourPressure::ln_P_outside(double T_K) const {
  if (T_K <= low_end_.T_K) return low_end_.ln_P - low_end_.slope * (1 / T_K - 1 / low_end_.T_K);
  if (T_K >= high_end_.T_K) return high_end_.ln_P - high_end_.slope * (1 / T_K - 1 / high_end_.T_K);
  if (curve_) return ln_factor_ + curve_->ln_P(T_K);
  return ln_factor_ + (T_K < Tmin_K_ ? below_->ln_P(T_K) : above_->ln_P(T_K));
}

VapourPressure VapourPressure::scaled(double factor) const {
  VapourPressure result = *this;
  const double ln_factor = std::log(factor);
  result.ln_factor_ += ln_factor;
  result.a_ += ln_factor;
  result.low_end_.ln_P += ln_factor;
  result.high_end_.ln_P += ln_factor;
  return result;
}

double VapourPressure::slope_outside(double T_K) const {
  if (T_K <= low_end_.T_K) return low_end_.slope / (T_K * T_K);
  if (T_K >= high_end_.T_K) return high_end_.slope / (T_K * T_K);
  if (curve_) return curve_->dln_P_dT(T_K);
  return T_K < Tmin_K_ ? below_->dln_P_dT(T_K) : above_->dln_P_dT(T_K);
}

double VapourPressure::T_K(double P_Pa) const {
  const double ln_P_wanted = std::log(P_Pa);
  const bool antoine = Tmin_K_ <= Tmax_K_;
  if (antoine && ln_P_wanted >= ln_P(Tmin_K_) && ln_P_wanted <= ln_P(Tmax_K_)) {
    return b_ / (a_ - ln_P_wanted) - c_;
  }
  for (const auto& [end, beyond] : {std::pair(&low_end_, ln_P_wanted <= low_end_.ln_P),
                                    std::pair(&high_end_, ln_P_wanted >= high_end_.ln_P)}) {
    if (!beyond) continue;
    const double inverse_T = 1 / end->T_K + (end->ln_P - ln_P_wanted) / end->slope;
    return inverse_T > 0 ? 1 / inverse_T : HUGE_VAL;
  }
  const auto f = [&](double T_K) { return ln_P(T_K) - ln_P_wanted; };
  const auto root = root_between(f, low_end_.T_K, high_end_.T_K, f(low_end_.T_K), f(high_end_.T_K), 52, 200);
  return std::midpoint(root.first, root.second);
}

}  // namespace jampot
