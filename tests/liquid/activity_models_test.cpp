// What every liquid model must obey, at random states of random mixtures, against a second implementation
// written from the excess Gibbs energy.
#include <gtest/gtest.h>

#include <algorithm>
#include <functional>
#include <numeric>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/unifac_interactions.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;
using Amounts = std::vector<double>;

// A random mixture of one model: its substances, its parameters, and n gE/(RT) from the definition.
struct Case {
  std::vector<Substance> substances;
  ParameterCollection parameters;
  std::function<double(double T_K, const Amounts&)> excess_gibbs;
};

double sum(const Amounts& values) {
  return std::accumulate(values.begin(), values.end(), 0.0);
}

// Size part of UNIQUAC and UNIFAC for amounts n; p is r to the power 1 or 3/4.
double size_part(const Amounts& n, const Amounts& r, const Amounts& q, double exponent) {
  double N = sum(n), sum_r = 0, sum_q = 0, sum_p = 0, result = 0;
  for (std::size_t i = 0; i < n.size(); ++i) {
    sum_r += n[i] * r[i];
    sum_q += n[i] * q[i];
    sum_p += n[i] * std::pow(r[i], exponent);
  }
  for (std::size_t i = 0; i < n.size(); ++i) {
    const double share_p = std::pow(r[i], exponent) / sum_p * N, phi = r[i] / sum_r, theta = q[i] / sum_q;
    result += n[i] * (std::log(share_p) + 5 * q[i] * std::log(theta / phi));
  }
  return result;
}

std::vector<Substance> random_substances(std::mt19937_64& generator, std::size_t n,
                                         const std::function<bool(const Substance&)>& suits) {
  std::vector<Substance> all;
  for (const Substance& substance : Bank::built_in().all()) {
    if (suits(substance)) all.push_back(substance);
  }
  std::shuffle(all.begin(), all.end(), generator);
  all.resize(n);
  return all;
}

// Terms of every kind of temperature dependence for each pair.
void add_random_pairs(Case& made, std::mt19937_64& generator, const std::string& model, double low,
                      double high) {
  std::uniform_real_distribution<double> value(low, high), small(-1, 1);
  for (std::size_t i = 0; i < made.substances.size(); ++i) {
    for (std::size_t j = i + 1; j < made.substances.size(); ++j) {
      PairParameters pair = neutral_pair(model, made.substances[i], made.substances[j]);
      for (auto& [name, function] : pair.terms) {
        function = {value(generator), 60 * small(generator), 0.02 * small(generator),
                    2e-4 * small(generator)};
        if (name == "alpha")
          function = {0.2 + 0.1 * std::abs(small(generator)), 0, 0, 1e-4 * small(generator)};
      }
      pair.source = "test";
      made.parameters.add(pair);
    }
  }
}

// Value of a term of the pair (i, j) read from i.
double term(const Case& made, const std::string& model, const std::string& name, std::size_t i, std::size_t j,
            double T_K) {
  return made.parameters.find(model, made.substances[i].name, made.substances[j].name)
      ->terms.at(name)
      .value(T_K);
}

Case wilson_case(std::mt19937_64& generator, std::size_t size) {
  Case made;
  made.substances = random_substances(
      generator, size, [](const Substance& s) { return s.vapour_pressure && s.molar_volume_25C_m3_mol; });
  add_random_pairs(made, generator, "wilson", -0.5, 2);
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    double result = 0;
    for (std::size_t i = 0; i < size; ++i) {
      double inner = 0;
      for (std::size_t j = 0; j < size; ++j) {
        const double ratio =
            *made.substances[j].molar_volume_25C_m3_mol / *made.substances[i].molar_volume_25C_m3_mol;
        inner +=
            n[j] / sum(n) * (i == j ? 1 : ratio * std::exp(-term(made, "wilson", "lambda_12", i, j, T_K)));
      }
      result -= n[i] * std::log(inner);
    }
    return result;
  };
  return made;
}

Case margules_case(std::mt19937_64& generator, std::size_t size) {
  Case made;
  made.substances =
      random_substances(generator, size, [](const Substance& s) { return s.vapour_pressure.has_value(); });
  add_random_pairs(made, generator, "margules", -0.5, 2);
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    const double N = sum(n);
    double result = 0;
    for (std::size_t i = 0; i < size; ++i) {
      for (std::size_t j = i + 1; j < size; ++j) {
        // x_i A_ji + x_j A_ij of the binary, written out for the pair alone: 1 = x_i + x_j there
        const double a = term(made, "margules", "A_12", i, j, T_K),
                     b = term(made, "margules", "A_12", j, i, T_K);
        result += n[i] * n[j] / N * ((a + b) / 2 + (b - a) / 2 * (n[i] - n[j]) / N);
      }
    }
    return result;
  };
  return made;
}

Case redlich_kister_case(std::mt19937_64& generator, std::size_t size) {
  Case made;
  made.substances =
      random_substances(generator, size, [](const Substance& s) { return s.vapour_pressure.has_value(); });
  add_random_pairs(made, generator, "redlich-kister", -0.5, 1);
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    const double N = sum(n);
    double result = 0;
    for (std::size_t i = 0; i < size; ++i) {
      for (std::size_t j = i + 1; j < size; ++j) {
        double series = 0;
        for (int k = 0; k < 4; ++k)
          series += term(made, "redlich-kister", "B_" + std::to_string(k), i, j, T_K) *
                    std::pow((n[i] - n[j]) / N, k);
        result += n[i] * n[j] / N * series;
      }
    }
    return result;
  };
  return made;
}

Case nrtl_case(std::mt19937_64& generator, std::size_t size) {
  Case made;
  made.substances =
      random_substances(generator, size, [](const Substance& s) { return s.vapour_pressure.has_value(); });
  add_random_pairs(made, generator, "nrtl", -0.5, 2);
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    double result = 0;
    for (std::size_t i = 0; i < size; ++i) {
      double above = 0, below = n[i];
      for (std::size_t j = 0; j < size; ++j) {
        if (i == j) continue;
        const double tau = term(made, "nrtl", "tau_12", j, i, T_K);
        const double G = std::exp(-tau * term(made, "nrtl", "alpha", j, i, T_K));
        above += n[j] * tau * G;
        below += n[j] * G;
      }
      result += n[i] * above / below;
    }
    return result;
  };
  return made;
}

Case uniquac_case(std::mt19937_64& generator, std::size_t size) {
  Case made;
  made.substances =
      random_substances(generator, size, [](const Substance& s) { return s.vapour_pressure && s.uniquac_r; });
  add_random_pairs(made, generator, "uniquac", -0.3, 0.8);
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    Amounts r, q;
    double surface = 0;
    for (std::size_t i = 0; i < size; ++i) {
      r.push_back(*made.substances[i].uniquac_r);
      q.push_back(*made.substances[i].uniquac_q);
      surface += n[i] * q[i];
    }
    double result = size_part(n, r, q, 1);
    for (std::size_t i = 0; i < size; ++i) {
      double inner = 0;
      for (std::size_t j = 0; j < size; ++j) {
        inner += n[j] * q[j] / surface * (i == j ? 1 : std::exp(-term(made, "uniquac", "u_12", j, i, T_K)));
      }
      result -= q[i] * n[i] * std::log(inner);
    }
    return result;
  };
  return made;
}

// ln Gamma of group k among group amounts w, as printed, not as the sum it is the derivative of.
double ln_Gamma(UnifacTable table, const std::vector<UnifacGroup>& groups, const Amounts& w, std::size_t k,
                double T_K) {
  const auto psi = [&](std::size_t m, std::size_t n) {
    if (groups[m].main_number == groups[n].main_number) return 1.0;
    const GroupInteraction a = *group_interaction(table, groups[m].main_number, groups[n].main_number);
    return std::exp(-(a.a_K + a.b * T_K + a.c_per_K * T_K * T_K) / T_K);
  };
  double surface = 0;
  for (std::size_t m = 0; m < w.size(); ++m) surface += w[m] * groups[m].Q;
  const auto theta = [&](std::size_t m) { return w[m] * groups[m].Q / surface; };
  double inner = 0, last = 0;
  for (std::size_t m = 0; m < w.size(); ++m) {
    inner += theta(m) * psi(m, k);
    double below = 0;
    for (std::size_t n = 0; n < w.size(); ++n) below += theta(n) * psi(n, m);
    last += theta(m) * psi(k, m) / below;
  }
  return groups[k].Q * (1 - std::log(inner) - last);
}

Case unifac_case(UnifacTable table, std::mt19937_64& generator, std::size_t size) {
  Case made;
  const std::string key = name_of(table);
  for (int attempt = 0; attempt < 2000; ++attempt) {  // random substances may lack an interaction
    made.substances = random_substances(
        generator, size, [&](const Substance& s) { return s.vapour_pressure && s.groups.contains(key); });
    try {
      const Unifac tried(made.substances, table);
      break;
    } catch (const CalculationError&) {
      made.substances.clear();
    }
  }
  made.excess_gibbs = [=](double T_K, const Amounts& n) {
    std::vector<UnifacGroup> groups;
    std::vector<Amounts> counts;
    Amounts r, q;
    for (const Substance& substance : made.substances) {
      const auto make_up = UnifacGroups::of(table).parse(substance.groups.at(key));
      const MoleculeSize own = molecule_size(make_up, table);
      r.push_back(own.r);
      q.push_back(own.q);
      counts.emplace_back(groups.size());
      for (const GroupCount& entry : make_up) {
        std::size_t k = 0;
        while (k < groups.size() && groups[k].name != entry.group) ++k;
        if (k == groups.size()) groups.push_back(*UnifacGroups::of(table).find(entry.group));
        counts.back().resize(groups.size());
        counts.back()[k] = entry.count;
      }
    }
    Amounts w(groups.size());
    for (std::size_t i = 0; i < size; ++i) {
      counts[i].resize(groups.size());
      for (std::size_t k = 0; k < groups.size(); ++k) w[k] += n[i] * counts[i][k];
    }
    double result = size_part(n, r, q, table == UnifacTable::dortmund ? 0.75 : 1);
    for (std::size_t i = 0; i < size; ++i) {
      for (std::size_t k = 0; k < groups.size(); ++k) {
        if (counts[i][k] == 0) continue;
        result += n[i] * counts[i][k] *
                  (ln_Gamma(table, groups, w, k, T_K) - ln_Gamma(table, groups, counts[i], k, T_K));
      }
    }
    return result;
  };
  return made;
}

struct Kind {
  const char* model;
  std::function<Case(std::mt19937_64&, std::size_t)> make;
  friend std::ostream& operator<<(std::ostream& out, const Kind& kind) { return out << kind.model; }
};

const std::vector<Kind>& kinds() {
  static const std::vector<Kind> list{
      {"wilson", wilson_case},
      {"nrtl", nrtl_case},
      {"uniquac", uniquac_case},
      {"unifac", [](auto& g, auto n) { return unifac_case(UnifacTable::vle, g, n); }},
      {"unifac-lle", [](auto& g, auto n) { return unifac_case(UnifacTable::lle, g, n); }},
      {"unifac-dortmund", [](auto& g, auto n) { return unifac_case(UnifacTable::dortmund, g, n); }},
      {"margules", margules_case},
      {"redlich-kister", redlich_kister_case}};
  return list;
}

class AnyModel : public ::testing::TestWithParam<std::tuple<std::size_t, std::size_t>> {
 protected:
  void SetUp() override {
    const auto& [kind_number, components] = GetParam();
    kind = &kinds()[kind_number];
    n = components;
    generator.seed(17 * kind_number + components);
    made = kind->make(generator, n);
    ASSERT_EQ(made.substances.size(), n);
    model = make_activity_model(kind->model, made.substances, made.parameters);
    x = test::random_composition(generator, n);
    model->set_temperature(T_K);
  }
  double ln_gamma_at(std::size_t i, const Amounts& amounts, double T) {
    Amounts values(n);
    model->set_temperature(T);
    model->evaluate(amounts, values);
    return values[i];
  }

  const Kind* kind = nullptr;
  std::size_t n = 0;
  std::mt19937_64 generator;
  Case made;
  std::unique_ptr<ActivityModel> model;
  Amounts x;
  const double T_K = 331.7;
};

TEST_P(AnyModel, IsTheDerivativeOfTheExcessGibbsEnergy) {
  Amounts ln_gamma(n);
  for (int state = 0; state < 5; ++state) {
    x = test::random_composition(generator, n);
    model->evaluate(x, ln_gamma);
    for (std::size_t i = 0; i < n; ++i) {
      const auto g = [&](double amount) {
        Amounts amounts = x;
        amounts[i] = amount;
        return made.excess_gibbs(T_K, amounts);
      };
      EXPECT_NEAR(ln_gamma[i], derivative(g, x[i], 1e-3 * x[i]), 1e-8) << *kind;
    }
  }
}

TEST_P(AnyModel, DerivativesAreExact) {
  Amounts ln_gamma(n), dT(n), dn(n * n);
  model->evaluate(x, ln_gamma, dT, dn);
  for (std::size_t i = 0; i < n; ++i) {
    EXPECT_NEAR(dT[i], derivative([&](double T) { return ln_gamma_at(i, x, T); }, T_K, 0.05), 1e-10);
    for (std::size_t k = 0; k < n; ++k) {
      const auto along = [&](double amount) {
        Amounts amounts = x;
        amounts[k] = amount;
        return ln_gamma_at(i, amounts, T_K);
      };
      EXPECT_NEAR(dn[i * n + k], derivative(along, x[k], 1e-3 * x[k]), 1e-7 * (1 + std::abs(dn[i * n + k])));
    }
  }
}

TEST_P(AnyModel, ThirdDerivativesAlongALineAreExact) {
  for (int k = 0; k < 3; ++k) {
    Amounts u = test::random_composition(generator, n);
    for (std::size_t i = 0; i < n; ++i) u[i] = x[i] * (u[i] - 0.4);
    const auto curvature = [&](double s) {
      Amounts amounts = x, ln_gamma(n), dn(n * n);
      for (std::size_t i = 0; i < n; ++i) amounts[i] += s * u[i];
      model->evaluate(amounts, ln_gamma, {}, dn);
      double sum = 0;
      for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j) sum += u[i] * u[j] * dn[i * n + j];
      return sum;
    };
    const double exact = model->third_derivative(x, u);
    EXPECT_NEAR(exact, derivative(curvature, 0, 1e-3), 1e-7 * (1 + std::abs(exact)));
  }
}

TEST_P(AnyModel, TermDerivativesAreExact) {
  const std::size_t terms = model->terms().size();
  Amounts exact(n * terms);
  model->term_derivatives(x, exact);
  for (std::size_t t = 0; t < terms; ++t) {
    const double before = model->terms()[t].function.constant;
    for (std::size_t i = 0; i < n; ++i) {
      const auto along = [&](double value) {
        model->set_coefficient(t, Coefficient::constant, value);
        return ln_gamma_at(i, x, T_K);
      };
      EXPECT_NEAR(exact[i * terms + t], derivative(along, before, 1e-3), 1e-9);
    }
    model->set_coefficient(t, Coefficient::constant, before);
  }
}

TEST_P(AnyModel, SlopesOfTheExcessGibbsEnergyAndItsEnthalpyAreExact) {
  const std::size_t terms = model->terms().size();
  if (terms == 0) return;
  Amounts slope(terms), slope_dT(terms), after(terms), unused(terms), ln_gamma(n), dT(n);
  model->gibbs_term_derivatives(x, slope, slope_dT);
  // Along one term it is the derivative of gE/(RT); with T it is that of itself.
  for (std::size_t t = 0; t < terms; ++t) {
    const double before = model->terms()[t].function.constant;
    const auto gE = [&](double value) {
      model->set_coefficient(t, Coefficient::constant, value);
      double g = 0;
      for (std::size_t i = 0; i < n; ++i) g += x[i] * ln_gamma_at(i, x, T_K);
      return g;
    };
    EXPECT_NEAR(slope[t], derivative(gE, before, 1e-3), 1e-9) << *kind;
    model->set_coefficient(t, Coefficient::constant, before);
    const auto slope_at = [&](double T) {
      model->set_temperature(T);
      model->gibbs_term_derivatives(x, after, unused);
      return after[t];
    };
    EXPECT_NEAR(slope_dT[t], derivative(slope_at, T_K, 0.05), 1e-10) << *kind;
  }
  model->set_temperature(T_K);
  model->evaluate(x, ln_gamma, dT);
  double from_slopes = 0, from_gamma = 0;
  for (std::size_t t = 0; t < terms; ++t) from_slopes += slope[t] * model->terms()[t].function.dT(T_K);
  for (std::size_t i = 0; i < n; ++i) from_gamma += x[i] * dT[i];
  EXPECT_NEAR(from_slopes, from_gamma, 1e-12);
}

TEST_P(AnyModel, ObeysGibbsDuhemAndSymmetry) {
  Amounts ln_gamma(n), dn(n * n);
  for (int state = 0; state < 20; ++state) {
    x = test::random_composition(generator, n);
    model->set_temperature(280 + 6 * state);
    model->evaluate(x, ln_gamma, {}, dn);
    for (std::size_t k = 0; k < n; ++k) {
      double duhem = 0, homogeneity = 0;
      for (std::size_t i = 0; i < n; ++i) {
        duhem += x[i] * dn[i * n + k];
        homogeneity += x[i] * dn[k * n + i];
        EXPECT_NEAR(dn[i * n + k], dn[k * n + i], 1e-11 * (1 + std::abs(dn[i * n + k])));
      }
      EXPECT_NEAR(duhem, 0, 1e-11);
      EXPECT_NEAR(homogeneity, 0, 1e-11);
    }
  }
}

TEST_P(AnyModel, PureComponentsAreIdealAndTheApproachIsQuadratic) {
  for (std::size_t i = 0; i < n; ++i) {
    Amounts pure(n), ln_gamma(n);
    pure[i] = 1;
    model->evaluate(pure, ln_gamma);
    EXPECT_NEAR(ln_gamma[i], 0, 1e-13);
    for (std::size_t k = 0; k < n; ++k) EXPECT_TRUE(std::isfinite(ln_gamma[k]));
    for (std::size_t k = 0; k < n; ++k) pure[k] = k == i ? 1 - 1e-5 : 1e-5 / static_cast<double>(n - 1);
    model->evaluate(pure, ln_gamma);
    EXPECT_LT(std::abs(ln_gamma[i]), 1e-7);
  }
}

TEST_P(AnyModel, NumberingDoesNotMatter) {
  Amounts ln_gamma(n), turned_ln_gamma(n), turned_x(n);
  model->evaluate(x, ln_gamma);
  std::vector<std::size_t> order(n);
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::shuffle(order.begin(), order.end(), generator);
  std::vector<Substance> turned;
  for (std::size_t a = 0; a < n; ++a) {
    turned.push_back(made.substances[order[a]]);
    turned_x[a] = x[order[a]];
  }
  const auto other = make_activity_model(kind->model, turned, made.parameters);
  other->set_temperature(T_K);
  other->evaluate(turned_x, turned_ln_gamma);
  for (std::size_t a = 0; a < n; ++a) EXPECT_NEAR(turned_ln_gamma[a], ln_gamma[order[a]], 1e-12);
}

TEST_P(AnyModel, CopiesAreIndependent) {
  Amounts before(n), after(n);
  model->evaluate(x, before);
  const auto copy = model->clone();
  copy->set_temperature(400);
  copy->evaluate(x, after);
  model->evaluate(x, after);
  EXPECT_EQ(before, after);
}

INSTANTIATE_TEST_SUITE_P(Models, AnyModel,
                         ::testing::Combine(::testing::Range<std::size_t>(0, kinds().size()),
                                            ::testing::Values(2, 3, 5)));

TEST(Unifac, NamesWhatIsMissing) {
  const auto message = [](const std::vector<std::string>& names, const char* model) -> std::string {
    try {
      make_activity_model(model, substances_named(names), {});
    } catch (const CalculationError& error) {
      return error.what();
    }
    return "";
  };
  EXPECT_NE(message({"water", "sulfolane"}, "unifac").find("sulfolane has no groups"), std::string::npos);
  // The table of interactions has gaps; which pair is missing is said by the names of groups and substances.
  const std::string gap =
      message({"furfural", "acetonitrile", "nitromethane", "carbon disulfide", "aniline"}, "unifac");
  EXPECT_NE(gap.find("has no interaction of"), std::string::npos) << gap;
  EXPECT_NE(gap.find("(in "), std::string::npos);
  EXPECT_NE(message({"ethanol", "water"}, "nrtl").find("ethanol and water"), std::string::npos);
}

TEST(Models, WordsAreKnown) {
  EXPECT_EQ(liquid_model_names().size(), 9u);
  EXPECT_EQ(pair_model_names(),
            (std::vector<std::string>{"margules", "redlich-kister", "wilson", "nrtl", "uniquac"}));
  EXPECT_FALSE(can_split("wilson"));
  EXPECT_TRUE(can_split("unifac"));
  EXPECT_THROW(needs_pairs("unifacc"), RequestError);
  EXPECT_THROW(needs_pairs("mosced"), RequestError);
}

// The constants are the logarithms of the limiting activity coefficients, whichever way round the pair is.
TEST(MargulesModel, ConstantsAreTheLimits) {
  const auto substances = substances_named({"acetone", "chloroform"});
  PairParameters pair = neutral_pair("margules", substances[0], substances[1]);
  pair.terms["A_12"] = {-0.9, 0, 0, 0};
  pair.terms["A_21"] = {-0.6, 0, 0, 0};
  for (const bool swapped : {false, true}) {
    ParameterCollection collection;
    collection.add(swapped ? pair.swapped() : pair);
    const auto model = make_activity_model("margules", substances, collection);
    model->set_temperature(320);
    Amounts ln_gamma(2);
    model->evaluate(Amounts{0, 1}, ln_gamma);
    EXPECT_NEAR(ln_gamma[0], -0.9, 1e-15);
    model->evaluate(Amounts{1, 0}, ln_gamma);
    EXPECT_NEAR(ln_gamma[1], -0.6, 1e-15);
    model->evaluate(Amounts{0.3, 0.7}, ln_gamma);
    EXPECT_NEAR(ln_gamma[0], 0.49 * (-0.9 + 2 * 0.3 * 0.3), 1e-15);
  }
}

}  // namespace
}  // namespace jampot
