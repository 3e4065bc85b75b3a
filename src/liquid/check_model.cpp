#include "jampot/liquid/check_model.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <random>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

// The largest fault of each kind and where it was.
class Faults {
 public:
  void note(const std::string& what, double found, double expected, double tolerance,
            const std::string& where) {
    const double off = std::abs(found - expected);
    if (!(off > tolerance * (1 + std::abs(expected))) && std::isfinite(found)) return;
    auto& [worst, text] = worst_[what];
    if (off <= worst && !text.empty()) return;
    worst = off;
    text = fmt::format("{}: {:.6g}, expected {:.6g}, at {}", what, found, expected, where);
  }
  std::vector<std::string> told() const {
    std::vector<std::string> list;
    for (const auto& [what, fault] : worst_) list.push_back(fault.second);
    return list;
  }

 private:
  std::map<std::string, std::pair<double, std::string>> worst_;
};

class Checker {
 public:
  Checker(const ActivityModel& model, Faults& faults)
      : own_(model.clone()),
        n_(own_->size()),
        faults_(faults),
        ln_gamma_(n_),
        dT_(n_),
        dn_(n_ * n_),
        a_(n_),
        b_(n_) {}

  void check(double T_K, const std::vector<double>& x) {
    T_K_ = T_K;
    x_ = x;
    where_ = fmt::format("{:.2f} K, x = ({})", T_K, numbers_text(x, 4));
    own_->set_temperature(T_K);
    own_->evaluate(x, ln_gamma_, dT_, dn_);
    total();
    composition();
    temperature();
    third();
    terms();
  }

  void pure(double T_K) {
    own_->set_temperature(T_K);
    for (std::size_t i = 0; i < n_; ++i) {
      std::vector<double> x(n_);
      x[i] = 1;
      own_->evaluate(x, a_);
      faults_.note("ln gamma of a pure component", a_[i], 0, 1e-10,
                   fmt::format("component {}, {:.2f} K", i + 1, T_K));
    }
  }

 private:
  void total() {
    std::vector<double> doubled(x_);
    for (double& value : doubled) value *= 2;
    own_->evaluate(doubled, a_);
    for (std::size_t i = 0; i < n_; ++i)
      faults_.note("ln gamma of the same composition with twice the amounts", a_[i], ln_gamma_[i], 1e-10,
                   where_);
  }

  void composition() {
    constexpr double h = 1e-5;
    for (std::size_t k = 0; k < n_; ++k) {
      std::vector<double> n(x_);
      n[k] += h;
      own_->evaluate(n, a_);
      n[k] -= 2 * h;
      own_->evaluate(n, b_);
      double duhem = 0;
      for (std::size_t i = 0; i < n_; ++i) {
        duhem += x_[i] * dn_[i * n_ + k];
        faults_.note("d ln gamma/dn against differences", dn_[i * n_ + k], (a_[i] - b_[i]) / (2 * h), 1e-6,
                     where_);
        faults_.note("d ln gamma_i/dn_k against d ln gamma_k/dn_i", dn_[i * n_ + k], dn_[k * n_ + i], 1e-9,
                     where_);
      }
      faults_.note("Gibbs-Duhem, sum x_i d ln gamma_i/dn_k", duhem, 0, 1e-9, where_);
    }
  }

  void temperature() {
    constexpr double h = 0.01;
    own_->set_temperature(T_K_ + h);
    own_->evaluate(x_, a_);
    own_->set_temperature(T_K_ - h);
    own_->evaluate(x_, b_);
    own_->set_temperature(T_K_);
    for (std::size_t i = 0; i < n_; ++i)
      faults_.note("d ln gamma/dT against differences", dT_[i], (a_[i] - b_[i]) / (2 * h), 1e-7, where_);
  }

  void third() {
    std::vector<double> u(n_);
    u[0] = 1;
    u[1] = -1;
    own_->set_temperature(T_K_);
    faults_.note("third derivative against differences", own_->third_derivative(x_, u),
                 own_->ActivityModel::third_derivative(x_, u), 1e-3, where_);
  }

  void terms() {
    const std::size_t count = own_->terms().size();
    std::vector<double> slopes(n_ * count);
    own_->set_temperature(T_K_);
    if (count > 0) own_->term_derivatives(x_, slopes);
    constexpr double h = 1e-5;
    for (std::size_t t = 0; t < count; ++t) {
      const double before = own_->terms()[t].function.constant;
      const auto moved = [&](double by, std::vector<double>& out) {
        own_->set_coefficient(t, Coefficient::constant, before + by);
        own_->set_temperature(T_K_);
        own_->evaluate(x_, out);
      };
      moved(h, a_);
      moved(-h, b_);
      own_->set_coefficient(t, Coefficient::constant, before);
      for (std::size_t i = 0; i < n_; ++i)
        faults_.note("d ln gamma/d " + own_->terms()[t].name + " against differences", slopes[i * count + t],
                     (a_[i] - b_[i]) / (2 * h), 1e-5, where_);
    }
    own_->set_temperature(T_K_);
  }

  std::unique_ptr<ActivityModel> own_;
  std::size_t n_;
  Faults& faults_;
  std::vector<double> ln_gamma_, dT_, dn_, a_, b_, x_;
  double T_K_ = 0;
  std::string where_;
};

}  // namespace

std::vector<std::string> check_model(const ActivityModel& model, std::array<double, 2> T_range_K) {
  Faults faults;
  Checker checker(model, faults);
  std::mt19937_64 generator(20260101);
  std::exponential_distribution<double> amount(1.0);
  std::uniform_real_distribution<double> temperature(T_range_K[0], T_range_K[1]);
  constexpr int states = 25;
  for (int k = 0; k < states; ++k) {
    std::vector<double> x(model.size());
    double sum = 0;
    for (double& value : x) sum += value = 0.05 + amount(generator);
    for (double& value : x) value /= sum;
    checker.check(temperature(generator), x);
    checker.pure(temperature(generator));
  }
  return faults.told();
}

}  // namespace jampot
