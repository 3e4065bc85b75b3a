// A user-defined liquid model: one class, and everything else knows it.
#include <fmt/format.h>

#include <memory>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/phase/mixture.hpp"

namespace {

// The two-suffix Margules equation, gE/RT = A x1 x2, in total amounts: n gE/RT = A n1 n2/(n1 + n2).
class Margules final : public jampot::ActivityModel {
 public:
  explicit Margules(double A) : A_(A) {}
  std::string_view name() const override { return "margules"; }
  std::size_t size() const override { return 2; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Margules>(*this); }
  void set_temperature(double) override {}  // A does not depend on temperature here

  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    ln_gamma[0] = A_ * x[1] * x[1];
    ln_gamma[1] = A_ * x[0] * x[0];
    for (double& slope : dT) slope = 0;
    if (dn.empty()) return;
    // d ln gamma_i/d n_k for one mole in all: symmetric, and each row obeys Gibbs-Duhem.
    dn[0] = -2 * A_ * x[1] * x[1];
    dn[1] = dn[2] = 2 * A_ * x[0] * x[1];
    dn[3] = -2 * A_ * x[0] * x[0];
  }

 private:
  double A_;
};

}  // namespace

int main() {
  using namespace jampot;
  for (const double A : {0.5, 1.0, 2.2}) {
    Mixture mixture(substances_named({"acetone", "methanol"}), std::make_unique<Margules>(A), {});
    const BinaryCurve curve = txy(mixture, 101325.0);
    fmt::print("A = {:.1f}: ", A);
    for (const Azeotrope& azeotrope : curve.azeotropes)
      fmt::print("azeotrope at x1 = {:.4f}, {:.2f} K{}\n", azeotrope.x1, azeotrope.T_K,
                 curve.three_phases.empty() ? "" : ", of two liquids");
    if (curve.azeotropes.empty()) fmt::print("no azeotrope\n");
  }
}
