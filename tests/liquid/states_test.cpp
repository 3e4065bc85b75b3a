// Many states at once against one after the other.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "nrtl_pairs.hpp"
#include "support.hpp"

namespace jampot {
namespace {

std::vector<PairParameters> random_pairs(std::size_t n, std::mt19937& random, bool with_log) {
  std::uniform_real_distribution<double> tau(-300, 900), alpha(0.15, 0.45), small(-0.3, 0.3);
  return test::nrtl_pairs(n, [&](PairParameters& pair) {
    for (const char* term : {"tau_12", "tau_21"}) {
      pair.terms[term].constant = small(random);
      pair.terms[term].inverse_T = tau(random);
      if (with_log) pair.terms[term].log_T = 0.1 * small(random);
    }
    pair.terms["alpha"].constant = alpha(random);
  });
}

struct States {
  std::vector<double> T_K, x;
  std::size_t count;
};

States random_states(std::size_t n, std::size_t count, std::mt19937& random) {
  std::uniform_real_distribution<double> part(0, 1), T(280, 420);
  States states{std::vector<double>(count), std::vector<double>(n * count), count};
  for (std::size_t k = 0; k < count; ++k) {
    states.T_K[k] = T(random);
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) sum += states.x[i * count + k] = k % 7 == i ? 0 : part(random);
    for (std::size_t i = 0; i < n; ++i) states.x[i * count + k] /= sum;
  }
  return states;
}

// ln gamma one after the other, with the temperature of each or that at which the model stands.
std::vector<double> one_by_one(ActivityModel& model, const States& states, bool each_T) {
  const std::size_t n = model.size();
  std::vector<double> all(n * states.count), at(n), one(n);
  for (std::size_t k = 0; k < states.count; ++k) {
    for (std::size_t i = 0; i < n; ++i) at[i] = states.x[i * states.count + k];
    if (each_T) model.set_temperature(states.T_K[k]);
    model.evaluate(at, one);
    for (std::size_t i = 0; i < n; ++i) all[i * states.count + k] = one[i];
  }
  return all;
}

TEST(ManyStates, AreThoseOfOneAfterTheOther) {
  std::mt19937 random(77);
  for (const std::size_t n : {2u, 3u, 4u, 5u}) {
    for (const std::size_t count : {1u, 63u, 64u, 65u, 300u}) {
      Nrtl model(n, random_pairs(n, random, count == 65));
      const States states = random_states(n, count, random);
      std::vector<double> found(n * count);
      model.set_temperature(331);
      model.evaluate_states(states.x, found);
      const auto same_T = one_by_one(model, states, false);
      for (std::size_t k = 0; k < found.size(); ++k)
        ASSERT_NEAR(found[k], same_T[k], 1e-13 * (1 + std::abs(same_T[k]))) << n << " " << count;
      model.evaluate_states(states.T_K, states.x, found);
      const auto each_T = one_by_one(model, states, true);
      for (std::size_t k = 0; k < found.size(); ++k)
        ASSERT_NEAR(found[k], each_T[k], 1e-12 * (1 + std::abs(each_T[k]))) << n << " " << count;
    }
  }
}

TEST(ManyStates, OfAModelThatTakesOneAtATime) {
  std::mt19937 random(5);
  const auto model = make_activity_model("unifac", substances_named({"ethanol", "water", "benzene"}), {});
  const States states = random_states(3, 40, random);
  std::vector<double> found(3 * states.count);
  model->evaluate_states(states.T_K, states.x, found);
  const auto expected = one_by_one(*model, states, true);
  EXPECT_EQ(found, expected);
}

TEST(ManyStates, WrongSizesAreRefused) {
  std::mt19937 random(6);
  Nrtl model(3, random_pairs(3, random, false));
  model.set_temperature(300);
  std::vector<double> x(9, 1.0 / 3), out(8), T(3, 300.0);
  EXPECT_THROW(model.evaluate_states(x, out), RequestError);
  EXPECT_THROW(model.evaluate_states(T, x, out), RequestError);
  out.resize(9);
  x.resize(8);
  EXPECT_THROW(model.evaluate_states(x, out), RequestError);
  EXPECT_THROW(model.evaluate_states(T, x, out), RequestError);
}

}  // namespace
}  // namespace jampot
