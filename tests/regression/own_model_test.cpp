// A liquid model is a class that describes itself: the one-constant Margules equation, added here, goes
// through fits, files, diagrams and triangles by its name.
#include <gtest/gtest.h>

#include <cmath>
#include <numeric>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/check_model.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/pair_model.hpp"
#include "jampot/liquid/pair_terms.hpp"
#include "jampot/study/binary.hpp"
#include "jampot/study/regress.hpp"

namespace jampot {
namespace {

// gE/(RT) = sum over pairs of A x_i x_j.
class OneConstant final : public PairModel {
 public:
  OneConstant(std::size_t size, const std::vector<PairParameters>& pairs)
      : PairModel(pair_terms("one-constant", size, pairs, {"A"})), n_(size), A_(terms_.size()) {}

  static ModelDescription description() {
    ModelDescription description{"one-constant"};
    description.terms = {{"A", 0.1, false, true, -1, 3, -8, 12}};
    description.make = [](const std::vector<Substance>& substances,
                          const std::vector<PairParameters>& pairs) {
      return std::make_unique<OneConstant>(substances.size(), pairs);
    };
    return description;
  }

  std::string_view name() const override { return "one-constant"; }
  std::size_t size() const override { return n_; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<OneConstant>(*this); }
  void set_temperature(double T_K) override {
    moves_to(T_K);
    for (std::size_t t = 0; t < A_.size(); ++t) A_[t] = terms_[t].function.value(T_K);
  }
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    std::fill(ln_gamma.begin(), ln_gamma.end(), 0.0);
    std::fill(dT.begin(), dT.end(), 0.0);
    std::fill(dn.begin(), dn.end(), 0.0);
    const double N = std::accumulate(x.begin(), x.end(), 0.0);
    for (std::size_t t = 0; t < A_.size(); ++t) {
      const std::size_t i = terms_[t].i, j = terms_[t].j;
      const auto slope = [&](std::size_t k) { return k == i ? x[j] : k == j ? x[i] : 0.0; };
      for (std::size_t k = 0; k < n_; ++k) {
        const double first = slope(k) / N - x[i] * x[j] / (N * N);
        ln_gamma[k] += A_[t] * first;
        if (!dT.empty()) dT[k] += terms_[t].function.dT(T_K()) * first;
        for (std::size_t l = 0; !dn.empty() && l < n_; ++l) {
          const double twice = (k == i && l == j) || (k == j && l == i) ? 1 : 0;
          dn[k * n_ + l] +=
              A_[t] * (twice / N - (slope(k) + slope(l)) / (N * N) + 2 * x[i] * x[j] / (N * N * N));
        }
      }
    }
  }

 private:
  std::size_t n_;
  std::vector<double> A_;
};

// Once for all tests of this file.
void add() {
  static const bool once = [] {
    add_liquid_model(OneConstant::description());
    return true;
  }();
  ASSERT_TRUE(once);
}

ParameterCollection collection_of(const std::vector<Substance>& substances, double A) {
  ParameterCollection collection;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      PairParameters pair = neutral_pair("one-constant", substances[i], substances[j]);
      pair.terms["A"].constant = A;
      pair.source = "made up";
      collection.add(std::move(pair));
    }
  }
  return collection;
}

TEST(OwnModel, IsFittedAndDrawnByItsName) {
  add();
  const auto substances = substances_named({"methanol", "water"});
  Mixture truth(substances, "one-constant", collection_of(substances, 0.8));
  DataSet set;
  set.name = "made up";
  set.kind = DataKind::txy;
  set.substances = substances;
  for (double x1 = 0.1; x1 < 0.95; x1 += 0.1) {
    const VlePoint point = bubble_temperature(truth, 101325, std::vector{x1, 1 - x1});
    set.points.push_back({point.T_K, point.P_Pa, point.x, point.y, 0.05, 20, 0.001, 0.003});
  }
  FitOptions options;
  options.form = {Coefficient::constant};
  const RegressStudy found = study(RegressRequest{{set}, options, {"one-constant"}});
  EXPECT_NEAR(found.best().parameters.front().value, 0.8, 1e-6);
  BinaryRequest request{mixture_of(found.best()), {}, at_pressures({101325})};
  const BinaryStudy drawn = study(request);
  EXPECT_EQ(drawn.mixture().liquid_model(), "one-constant");
  const BinaryCurve again = txy(truth, 101325);
  EXPECT_NEAR(drawn.curves.front().points[50].T_K, again.points[50].T_K, 1e-4);
}

TEST(OwnModel, GoesThroughAFileOfParameters) {
  add();
  const auto substances = substances_named({"methanol", "water"});
  const auto pairs = collection_of(substances, 0.8).all();
  ParameterCollection back;
  parse_pairs(pairs_text(pairs), "own.pairs.toml", back, Bank::built_in());
  EXPECT_TRUE(back.find("one-constant", "methanol", "water")->same_values(pairs.front()));
}

TEST(OwnModel, PartsLiquidsWhereItsConstantIsAboveTwo) {
  add();
  const auto substances = substances_named({"n-hexane", "methanol", "water"});
  const auto model = make_activity_model("one-constant", substances, collection_of(substances, 2.6));
  const TernaryDiagram diagram = ternary_diagram(*model, 298.15);
  EXPECT_FALSE(diagram.regions.empty());
}

TEST(OwnModel, IsFreeOfFaultsAsAllBuiltInOnesAre) {
  add();
  const auto substances = substances_named({"methanol", "water", "1-butanol"});
  for (const std::string& name : pair_model_names()) {
    const auto model = make_activity_model_to_fit(name, substances);
    EXPECT_EQ(check_model(*model), std::vector<std::string>{}) << name;
  }
  for (const char* name : {"unifac", "unifac-lle", "ideal"})
    EXPECT_EQ(check_model(*make_activity_model(name, substances, {})), std::vector<std::string>{}) << name;
}

// A sign that is wrong in one derivative and in nothing else.
class WrongSign final : public ActivityModel {
 public:
  explicit WrongSign(std::unique_ptr<ActivityModel> right, int fault)
      : right_(std::move(right)), fault_(fault) {}
  std::string_view name() const override { return "wrong"; }
  std::size_t size() const override { return right_->size(); }
  std::unique_ptr<ActivityModel> clone() const override {
    return std::make_unique<WrongSign>(right_->clone(), fault_);
  }
  void set_temperature(double T_K) override { right_->set_temperature(T_K); }
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    right_->evaluate(x, ln_gamma, dT, dn);
    if (fault_ == 0) ln_gamma[0] *= -1;
    if (fault_ == 1 && !dT.empty()) dT[1] *= -1;
    if (fault_ == 2 && !dn.empty()) dn[1] *= -1;
  }

 private:
  std::unique_ptr<ActivityModel> right_;
  int fault_;
};

// What is done to a copy does not reach the model it was made from.
TEST(EveryModel, HasIndependentClones) {
  add();
  const auto substances = substances_named({"methanol", "water", "1-butanol"});
  const std::vector<double> x{0.2, 0.5, 0.3};
  for (const std::string& name : pair_model_names()) {
    const auto model = make_activity_model_to_fit(name, substances);
    std::vector<double> before(3), after(3), other(3);
    model->set_temperature(320);
    model->evaluate(x, before);
    const auto copy = model->clone();
    copy->set_coefficient(0, Coefficient::constant, 1.7);
    copy->set_temperature(380);
    copy->evaluate(x, other);
    model->evaluate(x, after);
    EXPECT_EQ(before, after) << name;
    EXPECT_NE(before, other) << name;
    model->set_temperature(380);
    model->evaluate(x, after);
    EXPECT_NE(after, other) << name;  // the coefficient was set in the copy alone
  }
}

TEST(CheckModel, FindsAWrongSign) {
  const auto substances = substances_named({"methanol", "water", "1-butanol"});
  for (int fault = 0; fault < 3; ++fault) {
    const WrongSign model(make_activity_model("unifac", substances, {}), fault);
    EXPECT_FALSE(check_model(model).empty()) << fault;
  }
}

TEST(RedlichKister, WithTwoConstantsIsMargules) {
  const auto substances = substances_named({"methanol", "water", "1-butanol"});
  ParameterCollection expansion, margules;
  for (std::size_t i = 0; i < 3; ++i) {
    for (std::size_t j = i + 1; j < 3; ++j) {
      const double a = 0.4 + 0.3 * static_cast<double>(i), b = 1.1 - 0.2 * static_cast<double>(j);
      PairParameters own = neutral_pair("margules", substances[i], substances[j]);
      own.terms["A_12"].inverse_T = 300 * a;
      own.terms["A_12"].constant = own.terms["A_21"].constant = 0;
      own.terms["A_21"].inverse_T = 300 * b;
      margules.add(own);
      PairParameters other = neutral_pair("redlich-kister", substances[j], substances[i]);  // the other way
      other.terms["B_0"] = {0, 150 * (a + b)};
      other.terms["B_1"] = {0, -150 * (b - a)};
      expansion.add(other);
    }
  }
  const auto one = make_activity_model("redlich-kister", substances, expansion);
  const auto other = make_activity_model("margules", substances, margules);
  const std::vector<double> x{0.2, 0.5, 0.3}, u{0.4, -0.1, -0.3};
  std::vector<double> a(3), b(3), aT(3), bT(3), an(9), bn(9);
  one->set_temperature(330);
  other->set_temperature(330);
  one->evaluate(x, a, aT, an);
  other->evaluate(x, b, bT, bn);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_NEAR(a[i], b[i], 1e-14);
    EXPECT_NEAR(aT[i], bT[i], 1e-16);
  }
  for (std::size_t i = 0; i < 9; ++i) EXPECT_NEAR(an[i], bn[i], 1e-13);
  EXPECT_NEAR(one->third_derivative(x, u), other->third_derivative(x, u), 1e-13);
}

TEST(OwnModel, ANameIsTakenOnce) {
  add();
  EXPECT_THROW(add_liquid_model(OneConstant::description()), RequestError);
}

}  // namespace
}  // namespace jampot
