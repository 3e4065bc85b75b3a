// A fit of 30 points by maximum likelihood: two energies and alpha, from one start and from sixteen.
#include <benchmark/benchmark.h>

#include <Eigen/Cholesky>
#include <algorithm>
#include <array>
#include <cmath>

#include "jampot/files/measured_csv.hpp"
#include "jampot/regression/fit.hpp"

namespace {

using namespace jampot;

void fit_30_points_3_parameters(benchmark::State& state) {
  const DataSet data = read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv");
  FitOptions options;
  options.release = {"alpha"};
  options.starts = static_cast<int>(state.range(0));
  long evaluations = 0;
  for (auto _ : state) {
    const Fit result = fit({data}, options);
    benchmark::DoNotOptimize(result.objective);
    evaluations = result.evaluations;
  }
  state.counters["evaluations"] = static_cast<double>(evaluations);
}
BENCHMARK(fit_30_points_3_parameters)->ArgName("starts")->Arg(1)->Arg(16)->Unit(benchmark::kMillisecond);

// The textbook's way: least squares on T and y from one start (Gauss and Newton with differences, damped),
// every boiling point by bisection, the measured x taken as exact. No uncertainties come out.
struct PlainFit {
  DataSet data = read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv");
  long evaluations = 0;

  double pressure(const std::array<double, 3>& p, double x1, double T, double& y1) {
    ++evaluations;
    const double x2 = 1 - x1, tau12 = p[0] / T, tau21 = p[1] / T;
    const double G12 = std::exp(-p[2] * tau12), G21 = std::exp(-p[2] * tau21);
    const double gamma1 = std::exp(
        x2 * x2 * (tau21 * std::pow(G21 / (x1 + x2 * G21), 2) + tau12 * G12 / std::pow(x2 + x1 * G12, 2)));
    const double gamma2 = std::exp(
        x1 * x1 * (tau12 * std::pow(G12 / (x2 + x1 * G12), 2) + tau21 * G21 / std::pow(x1 + x2 * G21, 2)));
    const double P1 = x1 * gamma1 * data.substances[0].vapour_pressure->P_Pa(T);
    const double P2 = x2 * gamma2 * data.substances[1].vapour_pressure->P_Pa(T);
    y1 = P1 / (P1 + P2);
    return P1 + P2;
  }

  std::vector<double> residuals(const std::array<double, 3>& p) {
    std::vector<double> r;
    for (const DataPoint& point : data.points) {
      double low = 280, high = 380, y1 = 0;
      while (high - low > 1e-9) {
        const double T = (low + high) / 2;
        (pressure(p, point.x[0], T, y1) > point.P_Pa ? high : low) = T;
      }
      r.push_back((low - point.T_K) / 0.07);
      r.push_back((y1 - point.y[0]) / 0.0045);
    }
    return r;
  }

  std::array<double, 3> solve() {
    std::array<double, 3> p{100, 100, 0.3};
    std::vector<double> r = residuals(p);
    double damping = 1e-3,
           objective = Eigen::Map<Eigen::VectorXd>(r.data(), Eigen::Index(r.size())).squaredNorm();
    for (int round = 0; round < 100; ++round) {
      Eigen::MatrixXd J(Eigen::Index(r.size()), 3);
      for (int k = 0; k < 3; ++k) {
        std::array<double, 3> moved = p;
        const double step = 1e-4 * std::max(1e-2, std::abs(p[std::size_t(k)]));
        moved[std::size_t(k)] += step;
        const std::vector<double> s = residuals(moved);
        for (std::size_t i = 0; i < r.size(); ++i) J(Eigen::Index(i), k) = (s[i] - r[i]) / step;
      }
      const Eigen::Map<Eigen::VectorXd> b(r.data(), Eigen::Index(r.size()));
      Eigen::Matrix3d H = J.transpose() * J;
      const Eigen::Vector3d g = J.transpose() * b;
      bool better = false;
      double before = objective;
      for (int tries = 0; tries < 20 && !better; ++tries, damping *= 4) {
        Eigen::Matrix3d damped = H;
        damped.diagonal() *= 1 + damping;
        const Eigen::Vector3d step = damped.ldlt().solve(-g);
        const std::array<double, 3> next{p[0] + step[0], p[1] + step[1],
                                         std::clamp(p[2] + step[2], 0.05, 0.8)};
        std::vector<double> s = residuals(next);
        const double value = Eigen::Map<Eigen::VectorXd>(s.data(), Eigen::Index(s.size())).squaredNorm();
        if (value >= objective) continue;
        better = true;
        p = next;
        r = std::move(s);
        objective = value;
        damping /= 40;
      }
      if (!better || before - objective < 1e-8 * before) break;
    }
    return p;
  }
};

void fit_30_points_textbook(benchmark::State& state) {
  PlainFit plain;
  for (auto _ : state) {
    plain.evaluations = 0;
    benchmark::DoNotOptimize(plain.solve());
  }
  state.counters["evaluations"] = static_cast<double>(plain.evaluations);
}
BENCHMARK(fit_30_points_textbook)->Unit(benchmark::kMillisecond);

}  // namespace
