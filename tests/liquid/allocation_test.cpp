// The kernels allocate nothing: every allocation of the program is counted while they run.
#include <gtest/gtest.h>

#include <atomic>
#include <cstdlib>
#include <new>

#include "jampot/equilibrium/bubble_states.hpp"
#include "jampot/equilibrium/stability_states.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/liquid/models.hpp"
#include "support.hpp"

namespace {
std::atomic<long> allocations{0};
}

// NOLINTBEGIN: replacing the global allocation functions is the point
void* operator new(std::size_t size) {
  ++allocations;
  if (void* memory = std::malloc(size ? size : 1)) return memory;
  throw std::bad_alloc();
}
void operator delete(void* memory) noexcept {
  std::free(memory);
}
void operator delete(void* memory, std::size_t) noexcept {
  std::free(memory);
}
// NOLINTEND

namespace jampot {
namespace {

TEST(Allocation, ActivityCoefficientsTakeNone) {
  const auto substances = substances_named({"ethanol", "water", "acetone", "ethyl acetate"});
  for (const std::string& model_name : liquid_model_names()) {
    if (model_name == "unifac-dortmund") continue;  // lacks an interaction of these
    Notices notices;
    EstimateOptions options;
    options.model = model_name;
    const auto model = make_activity_model(
        model_name, substances,
        complete_pairs(model_name, substances, {}, MissingPairs::estimate, options, notices));
    const std::vector<double> x{0.1, 0.4, 0.3, 0.2};
    std::vector<double> ln_gamma(4), dT(4), dn(16), slopes(4 * model->terms().size());
    model->set_temperature(300);
    model->evaluate(x, ln_gamma, dT, dn);
    const long before = allocations;
    for (int k = 0; k < 10; ++k) {
      model->set_temperature(310 + k);
      model->evaluate(x, ln_gamma);
      model->evaluate(x, ln_gamma, dT, dn);
      model->term_derivatives(x, slopes);
    }
    EXPECT_EQ(allocations - before, 0) << model_name;
  }
}

TEST(Allocation, ManyStatesTakeNone) {
  const auto substances = substances_named({"ethanol", "water", "acetone"});
  Notices notices;
  Mixture mixture(substances, "nrtl",
                  complete_pairs("nrtl", substances, {}, MissingPairs::estimate, EstimateOptions(), notices));
  constexpr std::size_t states = 150;
  std::vector<double> x(3 * states, 1.0 / 3), T_K(states), P_Pa(states), y(3 * states), distance(states);
  for (std::size_t k = 0; k < states; ++k) {
    x[k] = (static_cast<double>(k) + 0.5) / (2 * states);
    x[states + k] = 2.0 / 3 - x[k];
  }
  BubbleStates bubbles(mixture);
  StabilityStates stability(mixture.activity());
  const auto all = [&] {
    std::fill(T_K.begin(), T_K.end(), 0.0);
    EXPECT_EQ(bubbles.temperatures(101325, x, T_K, y), 0u);
    EXPECT_EQ(bubbles.pressures(T_K, x, P_Pa, y), 0u);
    stability.distances(T_K, x, distance);
    mixture.activity().evaluate_states(x, y);
  };
  all();
  const long before = allocations;
  for (int k = 0; k < 5; ++k) all();
  EXPECT_EQ(allocations - before, 0);
}

}  // namespace
}  // namespace jampot
