// A 101-point T-x-y of MTBE and methanol with its azeotrope, and the same curve by a plain textbook
// implementation.
#include <benchmark/benchmark.h>

#include <cmath>

#include "hidden_truth.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/phase/mixture.hpp"

namespace {

using namespace jampot;

Mixture mtbe_methanol() {
  ParameterCollection parameters;
  parameters.add(hidden_truth::pair());
  return {substances_named({"methyl tert-butyl ether", "methanol"}), "nrtl", parameters};
}

void txy_101(benchmark::State& state) {
  Mixture mixture = mtbe_methanol();
  long evaluations = 0, search = 0;
  std::size_t points = 0;
  for (auto _ : state) {
    const BinaryCurve curve = txy(mixture, 101325);
    benchmark::DoNotOptimize(curve.points.data());
    evaluations = curve.evaluations;
    search = curve.search_evaluations;
    points = curve.points.size();
  }
  state.counters["evaluations_per_point"] = static_cast<double>(evaluations) / static_cast<double>(points);
  state.counters["azeotrope_evaluations"] = static_cast<double>(search);
}
BENCHMARK(txy_101)->Unit(benchmark::kMicrosecond);

// As a textbook would have it: two-component NRTL and Antoine typed in, bisection on T between 250 and 450 K
// to the same residual, nothing kept from one evaluation to the next, and no azeotrope.
struct Textbook {
  long evaluations = 0;

  double residual(double x1, double T, double P, double& y1) {
    ++evaluations;
    const double x2 = 1 - x1, alpha = 0.3;
    const double tau12 = 236.0 / T, tau21 = 194.0 / T;
    const double G12 = std::exp(-alpha * tau12), G21 = std::exp(-alpha * tau21);
    const double gamma1 = std::exp(
        x2 * x2 * (tau21 * std::pow(G21 / (x1 + x2 * G21), 2) + tau12 * G12 / std::pow(x2 + x1 * G12, 2)));
    const double gamma2 = std::exp(
        x1 * x1 * (tau12 * std::pow(G12 / (x2 + x1 * G12), 2) + tau21 * G21 / std::pow(x1 + x2 * G21, 2)));
    const double t = T - 273.15;
    const double P1 = std::pow(10.0, 6.99529 - 1190.420 / (t + 234.110)) * 133.322387415;
    const double P2 = std::pow(10.0, 8.08097 - 1582.271 / (t + 239.726)) * 133.322387415;
    const double sum = x1 * gamma1 * P1 + x2 * gamma2 * P2;
    y1 = x1 * gamma1 * P1 / sum;
    return sum / P - 1;
  }

  double bubble_T(double x1, double P, double& y1) {
    double low = 250, high = 450;
    while (true) {
      const double T = (low + high) / 2, r = residual(x1, T, P, y1);
      if (std::abs(r) < 1e-12 || high - low < 1e-13 * T) return T;
      (r > 0 ? high : low) = T;
    }
  }
};

void txy_101_textbook(benchmark::State& state) {
  long evaluations = 0;
  for (auto _ : state) {
    Textbook textbook;
    for (int k = 0; k <= 100; ++k) {
      double y1 = 0;
      benchmark::DoNotOptimize(textbook.bubble_T(0.01 * k, 101325, y1));
      benchmark::DoNotOptimize(y1);
    }
    evaluations = textbook.evaluations;
  }
  state.counters["evaluations_per_point"] = static_cast<double>(evaluations) / 101;
}
BENCHMARK(txy_101_textbook)->Unit(benchmark::kMicrosecond);

}  // namespace
