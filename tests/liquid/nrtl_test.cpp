#include "jampot/liquid/nrtl.hpp"

#include <gtest/gtest.h>

#include <numeric>

#include "jampot/basis/error.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;
using test::random_composition;
using test::random_nrtl_pairs;

// n gE/(RT) written down a second time, straight from the definition, for amounts n.
double excess_gibbs(const std::vector<PairParameters>& pairs, double T_K,
                    const std::vector<double>& amounts) {
  const std::size_t size = amounts.size();
  std::vector<std::vector<double>> tau(size, std::vector<double>(size)),
      G(size, std::vector<double>(size, 1));
  std::size_t p = 0;
  for (std::size_t i = 0; i < size; ++i) {
    for (std::size_t j = i + 1; j < size; ++j, ++p) {
      const double alpha = pairs[p].terms.at("alpha").value(T_K);
      tau[i][j] = pairs[p].terms.at("tau_12").value(T_K);
      tau[j][i] = pairs[p].terms.at("tau_21").value(T_K);
      G[i][j] = std::exp(-alpha * tau[i][j]);
      G[j][i] = std::exp(-alpha * tau[j][i]);
    }
  }
  double sum = 0;
  for (std::size_t i = 0; i < size; ++i) {
    double above = 0, below = 0;
    for (std::size_t j = 0; j < size; ++j) {
      above += tau[j][i] * G[j][i] * amounts[j];
      below += G[j][i] * amounts[j];
    }
    sum += amounts[i] * above / below;
  }
  return sum;
}

class NrtlAtRandomStates : public ::testing::TestWithParam<std::size_t> {
 protected:
  void SetUp() override {
    generator.seed(100 + GetParam());
    pairs = random_nrtl_pairs(generator, GetParam());
    model = std::make_unique<Nrtl>(GetParam(), pairs);
    x = random_composition(generator, GetParam());
    model->set_temperature(T_K);
  }
  std::size_t n() const { return GetParam(); }
  double ln_gamma_at(std::size_t i, const std::vector<double>& amounts, double T) {
    std::vector<double> values(n());
    model->set_temperature(T);
    model->evaluate(amounts, values, {}, {});
    return values[i];
  }

  std::mt19937_64 generator;
  std::vector<PairParameters> pairs;
  std::unique_ptr<Nrtl> model;
  std::vector<double> x;
  const double T_K = 331.7;
};

TEST_P(NrtlAtRandomStates, IsTheDerivativeOfTheExcessGibbsEnergy) {
  std::vector<double> ln_gamma(n());
  model->evaluate(x, ln_gamma, {}, {});
  for (std::size_t i = 0; i < n(); ++i) {
    const auto g = [&](double amount) {
      std::vector<double> amounts = x;
      amounts[i] = amount;
      return excess_gibbs(pairs, T_K, amounts);
    };
    EXPECT_NEAR(ln_gamma[i], derivative(g, x[i], 1e-3 * x[i]), 1e-9);
  }
}

TEST_P(NrtlAtRandomStates, DerivativesAreExact) {
  std::vector<double> ln_gamma(n()), dT(n()), dn(n() * n());
  model->evaluate(x, ln_gamma, dT, dn);
  for (std::size_t i = 0; i < n(); ++i) {
    EXPECT_NEAR(dT[i], derivative([&](double T) { return ln_gamma_at(i, x, T); }, T_K, 0.05), 1e-10);
    for (std::size_t k = 0; k < n(); ++k) {
      const auto along = [&](double amount) {
        std::vector<double> amounts = x;
        amounts[k] = amount;
        return ln_gamma_at(i, amounts, T_K);
      };
      EXPECT_NEAR(dn[i * n() + k], derivative(along, x[k], 1e-3 * x[k]), 1e-8);
    }
  }
}

TEST_P(NrtlAtRandomStates, ObeysGibbsDuhemAndSymmetry) {
  std::vector<double> ln_gamma(n()), dn(n() * n());
  model->evaluate(x, ln_gamma, {}, dn);
  for (std::size_t k = 0; k < n(); ++k) {
    double duhem = 0, homogeneity = 0;
    for (std::size_t i = 0; i < n(); ++i) {
      duhem += x[i] * dn[i * n() + k];
      homogeneity += x[i] * dn[k * n() + i];
      EXPECT_DOUBLE_EQ(dn[i * n() + k], dn[k * n() + i]);
    }
    EXPECT_NEAR(duhem, 0, 1e-13);
    EXPECT_NEAR(homogeneity, 0, 1e-13);
  }
}

TEST_P(NrtlAtRandomStates, TermDerivativesAreExact) {
  const std::size_t terms = model->terms().size();
  std::vector<double> exact(n() * terms);
  model->term_derivatives(x, exact);
  for (std::size_t t = 0; t < terms; ++t) {
    const double before = model->terms()[t].function.constant;
    for (std::size_t i = 0; i < n(); ++i) {
      const auto along = [&](double value) {
        model->set_coefficient(t, Coefficient::constant, value);
        return ln_gamma_at(i, x, T_K);
      };
      EXPECT_NEAR(exact[i * terms + t], derivative(along, before, 1e-3), 1e-9);
    }
    model->set_coefficient(t, Coefficient::constant, before);
  }
}

TEST_P(NrtlAtRandomStates, NumberingDoesNotMatter) {
  std::vector<double> ln_gamma(n());
  model->evaluate(x, ln_gamma, {}, {});
  std::vector<std::size_t> order(n());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::shuffle(order.begin(), order.end(), generator);
  // pair (a, b) of the new numbering is the pair of their old numbers, seen from a
  const auto index = [&](std::size_t i, std::size_t j) {
    std::size_t p = 0;
    for (std::size_t a = 0; a < n(); ++a) {
      for (std::size_t b = a + 1; b < n(); ++b, ++p) {
        if (a == i && b == j) return p;
      }
    }
    return p;
  };
  std::vector<PairParameters> renumbered;
  std::vector<double> turned_x;
  for (std::size_t a = 0; a < n(); ++a) {
    turned_x.push_back(x[order[a]]);
    for (std::size_t b = a + 1; b < n(); ++b) {
      const std::size_t i = order[a], j = order[b];
      renumbered.push_back(i < j ? pairs[index(i, j)] : pairs[index(j, i)].swapped());
    }
  }
  Nrtl turned(n(), renumbered);
  turned.set_temperature(T_K);
  std::vector<double> turned_ln_gamma(n());
  turned.evaluate(turned_x, turned_ln_gamma, {}, {});
  for (std::size_t a = 0; a < n(); ++a) EXPECT_NEAR(turned_ln_gamma[a], ln_gamma[order[a]], 1e-13);
}

TEST_P(NrtlAtRandomStates, PureComponentsAreIdeal) {
  for (std::size_t i = 0; i < n(); ++i) {
    std::vector<double> pure(n()), ln_gamma(n());
    pure[i] = 1;
    model->evaluate(pure, ln_gamma, {}, {});
    EXPECT_NEAR(ln_gamma[i], 0, 1e-15);
    // and the approach is quadratic: ln gamma_i ~ (1 - x_i)^2
    for (std::size_t k = 0; k < n(); ++k) pure[k] = k == i ? 1 - 1e-4 : 1e-4 / static_cast<double>(n() - 1);
    model->evaluate(pure, ln_gamma, {}, {});
    EXPECT_LT(std::abs(ln_gamma[i]), 1e-6);
  }
}

INSTANTIATE_TEST_SUITE_P(Sizes, NrtlAtRandomStates, ::testing::Values(2, 3, 4, 6));

TEST(Nrtl, LimitingCoefficientsHaveTheirClosedForm) {
  const PairParameters pair = test::nrtl_pair("a", "b", 400, -100, 0.35);
  Nrtl model(2, {pair});
  const double T = 320, t12 = 400 / T, t21 = -100 / T;
  model.set_temperature(T);
  std::vector<double> ln_gamma(2);
  model.evaluate(std::vector<double>{0, 1}, ln_gamma, {}, {});
  EXPECT_NEAR(ln_gamma[0], t21 + t12 * std::exp(-0.35 * t12), 1e-14);
  model.evaluate(std::vector<double>{1, 0}, ln_gamma, {}, {});
  EXPECT_NEAR(ln_gamma[1], t12 + t21 * std::exp(-0.35 * t21), 1e-14);
}

TEST(Nrtl, NamesAMissingOrForeignTerm) {
  PairParameters pair = test::nrtl_pair("a", "b", 1, 1, 0.3);
  pair.terms.erase("alpha");
  EXPECT_THROW(Nrtl(2, {pair}), RequestError);
  pair = test::nrtl_pair("a", "b", 1, 1, 0.3);
  pair.terms["lambda_12"] = {};
  EXPECT_THROW(Nrtl(2, {pair}), RequestError);
}

}  // namespace
}  // namespace jampot
