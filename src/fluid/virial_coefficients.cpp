#include "jampot/fluid/virial_coefficients.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/math/differentiation/autodiff.hpp>
#include <cmath>
#include <numbers>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"

namespace jampot {
namespace {

using boost::math::differentiation::make_fvar;

template <class Series>
VirialCoefficient coefficient(const Series& B) {
  return {B.derivative(0), B.derivative(1), B.derivative(2)};
}

// The solvation parameter of an unlike pair; zero where nothing is known.
double solvation(const std::string& first, const std::string& second) {
  static const CsvTable table(jampot_data::hayden_oconnell_cross_csv(), "hayden_oconnell_cross.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const std::string_view a = table.text(row, table.column("first")),
                           b = table.text(row, table.column("second"));
    if ((a == first && b == second) || (a == second && b == first))
      return table.number(row, table.column("eta"));
  }
  return 0;
}

}  // namespace

void VirialCoefficients::set_temperature(double T_K) {
  if (T_K == T_K_) return;
  T_K_ = T_K;
  compute(T_K);
}

void VirialCoefficients::set(std::size_t i, std::size_t j, const VirialCoefficient& total,
                             const VirialCoefficient& bound) {
  total_[i * size_ + j] = total_[j * size_ + i] = total;
  bound_[i * size_ + j] = bound_[j * size_ + i] = bound;
}

TsonopoulosVirial::TsonopoulosVirial(const std::vector<Substance>& substances,
                                     const InteractionTable& interactions)
    : VirialCoefficients(substances.size()), pairs_(size_ * size_) {
  std::vector<std::string> missing, polar;
  for (const Substance& substance : substances) {
    if (!substance.Tc_K || !substance.Pc_Pa || !substance.acentric_factor) missing.push_back(substance.name);
    constexpr double hardly_polar_D = 1;
    if (substance.dipole_D && *substance.dipole_D > hardly_polar_D) polar.push_back(substance.name);
  }
  if (!missing.empty()) {
    throw CalculationError(
        fmt::format("the second virial coefficient needs critical temperature, critical pressure and "
                    "acentric factor; not "
                    "known of: {}",
                    joined(missing, ", ")));
  }
  if (!polar.empty()) {
    notices_.add(
        "virial-polar",
        fmt::format("the second virial coefficients of Tsonopoulos are used in their form for non-polar "
                    "substances, too small in size for: {}",
                    joined(polar, ", ")));
  }
  const auto volume = [](const Substance& s) {
    return s.Vc_m3_mol ? s.Vc_m3_mol->value
                       : (0.291 - 0.080 * *s.acentric_factor) * gas_constant * *s.Tc_K / *s.Pc_Pa;
  };
  for (std::size_t i = 0; i < size_; ++i) {
    for (std::size_t j = 0; j < size_; ++j) {
      const Substance &a = substances[i], &b = substances[j];
      const double k = i == j ? 0 : interactions.find(a.name, b.name).value_or(0);
      const double Tc = std::sqrt(*a.Tc_K * *b.Tc_K) * (1 - k), va = volume(a), vb = volume(b);
      const double Pc = i == j ? a.Pc_Pa->value
                               : 4 * Tc * (*a.Pc_Pa * va / *a.Tc_K + *b.Pc_Pa * vb / *b.Tc_K) /
                                     std::pow(std::cbrt(va) + std::cbrt(vb), 3);
      pairs_[i * size_ + j] = {Tc, gas_constant * Tc / Pc, (*a.acentric_factor + *b.acentric_factor) / 2};
    }
  }
}

void TsonopoulosVirial::compute(double T_K) {
  for (std::size_t i = 0; i < size_; ++i) {
    for (std::size_t j = 0; j <= i; ++j) {
      const Pair& pair = pairs_[i * size_ + j];
      const auto t = pair.Tc_K / make_fvar<double, 2>(T_K);
      const auto t2 = t * t, t3 = t2 * t, t8 = t3 * t3 * t2;
      const auto B = pair.scale * (0.1445 - 0.330 * t - 0.1385 * t2 - 0.0121 * t3 - 0.000607 * t8 +
                                   pair.omega * (0.0637 + 0.331 * t2 - 0.423 * t3 - 0.008 * t8));
      set(i, j, coefficient(B), {});
    }
  }
}

HaydenOConnellVirial::HaydenOConnellVirial(const std::vector<Substance>& substances)
    : VirialCoefficients(substances.size()),
      pairs_(size_ * size_),
      dimer_(size_),
      acid_(size_),
      rest_(substances) {
  std::vector<std::string> missing;
  struct Single {
    double omega, energy, sigma, dipole;
  };
  std::vector<Single> singles(size_);
  for (std::size_t i = 0; i < size_; ++i) {
    const auto& p = substances[i].hayden_oconnell;
    if (!p) {
      missing.push_back(substances[i].name);
      dimer_[i] = substances[i].dimer;
      acid_[i] = dimer_[i].has_value();
      if (!dimer_[i]) continue;
      dimers_ = true;
      notices_.add(
          "dimers",
          fmt::format("{} forms dimers in the vapour, with the dimerisation constant of {} (grade {})",
                      substances[i].name, dimer_[i]->source, dimer_[i]->grade));
      continue;
    }
    const double R = p->radius_A, Tc = *substances[i].Tc_K, Pc_bar = *substances[i].Pc_Pa / 1e5;
    const double omega = 0.006 * R + 0.02087 * R * R - 0.00136 * R * R * R;
    double energy = Tc * (0.748 + 0.91 * omega - 0.4 * p->eta / (2 + 20 * omega));
    double sigma = (2.44 - omega) * std::cbrt(1.0133 * Tc / Pc_bar);
    constexpr double strongly_polar_D = 1.45;
    if (p->dipole_D >= strongly_polar_D) {
      const double C = 2.882 - 1.882 * omega / (0.03 + omega);
      const double xi = 1.7941e7 * std::pow(p->dipole_D, 4) / (C * Tc * std::pow(sigma, 6) * energy);
      const double c1 = (16 + 400 * omega) / (10 + 400 * omega), c2 = 3 / (10 + 400 * omega);
      energy *= 1 - xi * c1 * (1 - xi * (1 + c1) / 2);
      sigma *= std::cbrt(1 + xi * c2);
    }
    singles[i] = {omega, energy, sigma, p->dipole_D};
    acid_[i] = p->eta >= 4.5;
    dimers_ = dimers_ || acid_[i];
  }
  for (std::size_t i = 0; i < size_; ++i) {
    for (std::size_t j = 0; j < size_; ++j) {
      if (!substances[i].hayden_oconnell || !substances[j].hayden_oconnell) continue;
      const Single &a = singles[i], &b = singles[j];
      Pair& pair = pairs_[i * size_ + j];
      pair = {true, a.omega, a.energy, a.sigma, a.dipole * b.dipole, substances[i].hayden_oconnell->eta};
      if (i == j) continue;
      pair.eta = solvation(substances[i].name, substances[j].name);
      pair.omega = (a.omega + b.omega) / 2;
      pair.energy = 0.7 * std::sqrt(a.energy * b.energy) + 0.6 / (1 / a.energy + 1 / b.energy);
      pair.sigma = std::sqrt(a.sigma * b.sigma);
      // A strongly polar molecule beside one without a moment.
      const auto induced = [&](const Single& polar, const Single& other) {
        if (polar.dipole < 2 || other.dipole > 0) return;
        const double xi = polar.dipole * polar.dipole * std::pow(other.energy, 2.0 / 3) *
                          std::pow(other.sigma, 4) / (pair.energy * std::pow(pair.sigma, 6));
        const double c1 = (16 + 400 * pair.omega) / (10 + 400 * pair.omega), c2 = 3 / (10 + 400 * pair.omega);
        pair.energy *= 1 + xi * c1;
        pair.sigma *= 1 - xi * c2;
      };
      induced(a, b);
      induced(b, a);
    }
  }
  if (!missing.empty()) {
    notices_.add(
        "virial-parameters",
        fmt::format("the parameters of Hayden and O'Connell are not known for {}: pairs with it are taken "
                    "from the corresponding states of Tsonopoulos",
                    joined(missing, ", ")));
  }
}

void HaydenOConnellVirial::compute(double T_K) {
  rest_.set_temperature(T_K);
  const auto T = make_fvar<double, 2>(T_K);
  for (std::size_t i = 0; i < size_; ++i) {
    for (std::size_t j = 0; j <= i; ++j) {
      const Pair& pair = pairs_[i * size_ + j];
      if (!pair.known) {
        set(i, j, rest_.total(i, j), {});
        continue;
      }
      const double b0 = 1.26184e-6 * std::pow(pair.sigma, 3);  // m3/mol
      const double dipole = 7243.8 * pair.dipole2 / (pair.energy * std::pow(pair.sigma, 3));
      const double reduced = dipole < 0.04 ? dipole : dipole < 0.25 ? 0 : dipole - 0.25;
      const auto t = pair.energy / T, s = t - 1.6 * pair.omega, s2 = s * s, s3 = s2 * s;
      const auto free =
          b0 * (0.94 - 1.47 * s - 0.85 * s2 + 1.015 * s3 - reduced * (0.74 - 3.0 * s + 2.1 * s2 + 2.1 * s3));
      const double A = -0.3 - 0.05 * dipole, H = 1.99 + 0.2 * dipole * dipole;
      auto bound = b0 * A * exp(H * t);
      if (pair.eta > 0) {
        const double D = pair.eta < 4.5 ? 650 / (pair.energy + 300) : 42800 / (pair.energy + 22400);
        bound += b0 * std::exp(pair.eta * (D - 4.27)) * (1 - exp(1500 * pair.eta / T));
      }
      set(i, j, coefficient(free + bound), coefficient(bound));
    }
  }
  pair_up(T_K);
}

// As a second virial coefficient the dimers of one acid are -R T K, those of two -R T K/2.
void HaydenOConnellVirial::pair_up(double T_K) {
  if (std::none_of(dimer_.begin(), dimer_.end(), [](const auto& dimer) { return dimer.has_value(); })) return;
  const auto T = make_fvar<double, 2>(T_K);
  const auto plus = [](const VirialCoefficient& a, const VirialCoefficient& b) {
    return VirialCoefficient{a.value + b.value, a.dT + b.dT, a.dTT + b.dTT};
  };
  for (std::size_t i = 0; i < size_; ++i) {
    if (!dimer_[i]) continue;
    const VirialCoefficient own =
        coefficient(-gas_constant / mmHg * T * exp(std::numbers::ln10 * (dimer_[i]->A + dimer_[i]->B_K / T)));
    set(i, i, plus(total(i, i), own), own);
  }
  for (std::size_t i = 0; i < size_; ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      if (!acid_[i] || !acid_[j] || !(dimer_[i] || dimer_[j])) continue;
      // b = -sqrt(bi bj), with its derivatives from those of ln |b|.
      const VirialCoefficient &a = bound(i, i), &b = bound(j, j);
      const auto log_slope = [](const VirialCoefficient& c) { return c.dT / c.value; };
      const auto log_bend = [&](const VirialCoefficient& c) {
        return c.dTT / c.value - log_slope(c) * log_slope(c);
      };
      const double value = -std::sqrt(a.value * b.value), slope = (log_slope(a) + log_slope(b)) / 2;
      const VirialCoefficient cross{value, value * slope,
                                    value * (slope * slope + (log_bend(a) + log_bend(b)) / 2)};
      set(i, j, plus(total(i, j), cross), cross);
    }
  }
}

}  // namespace jampot
