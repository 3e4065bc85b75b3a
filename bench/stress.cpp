// Thousands of random systems through the whole work: fit, T-x-y, azeotropes, ternary diagram, residue curve
// map. Every result is checked; what cannot be done must say why. Counts by kind; ends with status 1 where a
// result was wrong.
#include <fmt/format.h>
#include <oneapi/tbb/global_control.h>
#include <oneapi/tbb/info.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <fstream>
#include <map>
#include <nlohmann/json.hpp>
#include <random>

#include "arguments.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/regression/fit.hpp"

namespace {

using namespace jampot;

constexpr double P_Pa = 101325;
constexpr std::array<const char*, 5> steps{"fit", "txy", "azeotropes", "ternary", "residue"};

// What became of a step.
struct Verdict {
  enum class Kind { right, doubted, refused, wrong } kind = Kind::right;
  std::string reason;
  double seconds = 0;
};

// Thrown by the checks below: a result that is not what it says to be.
struct Wrong {
  std::string reason;
};

void demand(bool condition, const char* reason) {
  if (!condition) throw Wrong{reason};
}

// The first words of a message, without names and numbers: what kind it is of.
std::string kind_of(std::string message) {
  for (const Substance& substance : Bank::built_in().all()) {
    const std::size_t at = message.find(substance.name);
    // a name by itself, not a part of another
    if (at != std::string::npos && (at == 0 || message[at - 1] == ' '))
      message.replace(at, substance.name.size(), "NAME");
  }
  std::string kind;
  for (const char c : message) {
    if (c == ':' || c == ';' || c == '(') break;
    kind += c >= '0' && c <= '9' ? '#' : c;
  }
  constexpr std::size_t longest = 70;
  return kind.substr(0, longest);
}

std::string random_model(std::mt19937_64& generator) {
  constexpr std::array<const char*, 3> models{"nrtl", "wilson", "uniquac"};
  return models[generator() % 3];
}

// Three substances with made-up NRTL parameters, or three of the bank by UNIFAC.
Mixture random_mixture(std::mt19937_64& generator, bool predicted) {
  std::vector<std::string> names;
  if (predicted) {
    while (names.size() < 3) {
      const Substance& substance = Bank::built_in().all()[generator() % Bank::built_in().all().size()];
      if (std::find(names.begin(), names.end(), substance.name) == names.end())
        names.push_back(substance.name);
    }
    return {substances_named(names), "unifac", {}};
  }
  names = {"acetone", "methanol", "water",      "ethyl acetate",
           "toluene", "n-hexane", "2-propanol", "chloroform"};
  std::shuffle(names.begin(), names.end(), generator);
  names.resize(3);
  std::uniform_real_distribution<double> b(-150, 700), alpha(0.2, 0.45);
  ParameterCollection parameters;
  for (std::size_t i = 0; i < 3; ++i) {
    for (std::size_t j = i + 1; j < 3; ++j) {
      PairParameters pair;
      pair.model = "nrtl";
      pair.between = {names[i], names[j]};
      pair.terms["tau_12"].inverse_T = b(generator);
      pair.terms["tau_21"].inverse_T = b(generator);
      pair.terms["alpha"].constant = alpha(generator);
      parameters.add(pair);
    }
  }
  return {substances_named(names), "nrtl", parameters};
}

// Noisy boiling points of the first two substances.
DataSet measured(const Mixture& truth, std::mt19937_64& generator) {
  Mixture pair({truth.substances()[0], truth.substances()[1]}, truth.liquid_model(), [&] {
    ParameterCollection parameters;
    for (const PairParameters& one : truth.parameters()) parameters.add(one);
    return parameters;
  }());
  const BinaryCurve curve = txy(pair, P_Pa);
  std::normal_distribution<double> normal;
  DataSet data;
  data.name = "made up";
  data.substances = pair.substances();
  for (std::size_t k = 4; k + 4 < curve.points.size(); k += 6) {
    const BinaryPoint& exact = curve.points[k];
    DataPoint point{exact.T_K, P_Pa, {}, {}, 0.05, 50, 0.002, 0.004};
    point.T_K += 0.05 * normal(generator);
    const double x1 = std::clamp(exact.x[0] + 0.002 * normal(generator), 1e-4, 1 - 1e-4);
    const double y1 = std::clamp(exact.y[0] + 0.004 * normal(generator), 1e-4, 1 - 1e-4);
    point.x = {x1, 1 - x1};
    point.y = {y1, 1 - y1};
    data.points.push_back(std::move(point));
  }
  return data;
}

void check(const BinaryCurve& curve) {
  demand(!curve.points.empty(), "a curve without points");
  for (const BinaryPoint& point : curve.points) {
    demand(std::isfinite(point.T_K) && point.T_K > 0, "a temperature that is no number");
    demand(point.y[0] >= 0 && point.y[0] <= 1, "a vapour outside 0..1");
    demand(point.residual < 1e-8, "a bubble point that is none");
  }
  for (const Azeotrope& azeotrope : curve.azeotropes)
    demand(azeotrope.residual < 1e-7, "an azeotrope that is none");
  for (const ThreePhase& three : curve.three_phases)
    demand(three.residual < 1e-7, "three phases that are none");
}

// Each returns the doubt that it carries, or nothing.
std::string check(const Fit& fit) {
  demand(std::isfinite(fit.objective) && fit.objective >= 0, "an objective that is no number");
  for (const FittedParameter& parameter : fit.parameters)
    demand(std::isfinite(parameter.value), "a parameter that is no number");
  return fit.notices.has("misfit")               ? "misfit"
         : fit.notices.has("parameter-at-bound") ? "parameter-at-bound"
                                                 : "";
}

std::string check(const SingularPoints& singular) {
  for (const SingularPoint& point : singular.points) {
    double sum = 0;
    for (const double x : point.x) sum += x;
    demand(std::abs(sum - 1) < 1e-9 && point.residual < 1e-7, "an azeotrope that is none");
  }
  demand(singular.balanced() || singular.notices.has("index-balance"),
         "a set out of balance without a notice");
  return singular.balanced() ? "" : "index-balance";
}

std::string check(const TernaryDiagram& diagram) {
  for (const ShownTieLine& shown : diagram.tie_lines) {
    demand(shown.residual < 1e-7, "a tie line that is none");
    demand(shown.distance > -1e-7 || diagram.notices.has("unstable-tie-lines"),
           "two liquids that part further, without a notice");
  }
  return diagram.notices.empty() ? "" : diagram.notices.begin()->code;
}

std::string check(const ResidueMap& map) {
  for (const ResidueCurve& curve : map.curves) {
    for (const auto& x : curve.x) {
      for (const double value : x)
        demand(value > -1e-9 && value < 1 + 1e-9, "a curve that leaves the triangle");
    }
    const bool ends = curve.begin && curve.end;
    demand(ends || !map.notices.empty(), "a curve without an end and without a notice");
  }
  for (const char* code : {"index-balance", "regions-unclear", "curves-lost"}) {
    if (map.notices.has(code) || map.singular.notices.has(code)) return code;
  }
  return "";
}

using Verdicts = std::array<Verdict, steps.size()>;

template <class Step>
Verdict judged(Step&& step) {
  Verdict verdict;
  const auto begin = std::chrono::steady_clock::now();
  try {
    verdict.reason = step();
    if (!verdict.reason.empty()) verdict.kind = Verdict::Kind::doubted;
  } catch (const Wrong& wrong) {
    verdict = {Verdict::Kind::wrong, wrong.reason};
  } catch (const CalculationError& error) {
    verdict = {Verdict::Kind::refused, kind_of(error.what())};
  } catch (const RequestError& error) {
    verdict = {Verdict::Kind::refused, kind_of(error.what())};
  } catch (const std::exception& error) {
    verdict = {Verdict::Kind::wrong, std::string("unexpected: ") + error.what()};
  }
  verdict.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
  return verdict;
}

// Nothing where the substances drawn cannot be a mixture of this model (no groups, no vapour pressure).
std::optional<Verdicts> through_all(unsigned seed, bool predicted) {
  std::mt19937_64 generator(seed);
  std::optional<Mixture> truth;
  try {
    truth.emplace(random_mixture(generator, predicted));
  } catch (const CalculationError&) {
    return std::nullopt;
  }
  Verdicts verdicts;
  std::optional<Mixture> fitted;
  verdicts[0] = judged([&] {
    FitOptions options;
    options.model = random_model(generator);
    const Fit result = fit({measured(*truth, generator)}, options);
    const std::string doubt = check(result);
    fitted.emplace(result.mixture());
    return doubt;
  });
  verdicts[1] = judged([&] {
    if (!fitted) throw CalculationError("nothing was fitted");
    const BinaryCurve curve = txy(*fitted, P_Pa);
    check(curve);
    return std::string();
  });
  verdicts[2] = judged([&] { return check(singular_points(*truth, P_Pa)); });
  const double T_K = std::uniform_real_distribution<double>(283, 333)(generator);
  verdicts[3] = judged([&] { return check(ternary_diagram(truth->activity(), T_K)); });
  verdicts[4] = judged([&] { return check(residue_map(*truth, P_Pa)); });
  return verdicts;
}

struct Count {
  int right = 0, doubted = 0, refused = 0, wrong = 0;
  double seconds = 0, longest = 0;
  std::map<std::string, int> reasons;
};

nlohmann::ordered_json report(const std::vector<std::optional<Verdicts>>& all, unsigned first,
                              bool predicted) {
  std::array<Count, steps.size()> counts;
  int systems = 0;
  for (std::size_t k = 0; k < all.size(); ++k) {
    if (!all[k]) continue;
    ++systems;
    for (std::size_t s = 0; s < steps.size(); ++s) {
      const Verdict& verdict = (*all[k])[s];
      Count& count = counts[s];
      ++(verdict.kind == Verdict::Kind::right     ? count.right
         : verdict.kind == Verdict::Kind::doubted ? count.doubted
         : verdict.kind == Verdict::Kind::refused ? count.refused
                                                  : count.wrong);
      count.seconds += verdict.seconds;
      count.longest = std::max(count.longest, verdict.seconds);
      if (!verdict.reason.empty()) ++count.reasons[verdict.reason];
      if (verdict.kind == Verdict::Kind::wrong)
        fmt::print(stderr, "WRONG: seed {}, {}: {}\n", first + k, steps[s], verdict.reason);
    }
  }
  nlohmann::ordered_json json{{"liquids", predicted ? "unifac" : "nrtl"}, {"systems", systems}};
  fmt::print("{} systems of three, {}\n", systems,
             predicted ? "substances of the bank by UNIFAC" : "made-up NRTL parameters");
  fmt::print("{:11} {:>7} {:>12} {:>8} {:>6} {:>10} {:>10}\n", "step", "right", "with a doubt", "refused",
             "wrong", "mean / ms", "longest");
  for (std::size_t s = 0; s < steps.size(); ++s) {
    const Count& count = counts[s];
    const double mean = 1e3 * count.seconds / std::max(1, systems);
    fmt::print("{:11} {:7} {:12} {:8} {:6} {:10.1f} {:10.1f}\n", steps[s], count.right, count.doubted,
               count.refused, count.wrong, mean, 1e3 * count.longest);
    json["steps"].push_back({{"step", steps[s]},
                             {"right", count.right},
                             {"doubted", count.doubted},
                             {"refused", count.refused},
                             {"wrong", count.wrong},
                             {"mean_ms", mean},
                             {"longest_ms", 1e3 * count.longest},
                             {"reasons", count.reasons}});
  }
  for (std::size_t s = 0; s < steps.size(); ++s) {
    for (const auto& [reason, number] : counts[s].reasons)
      fmt::print("  {:11} {:5}  {}\n", steps[s], number, reason);
  }
  return json;
}

}  // namespace

int main(int argc, char** argv) {
  bench::Arguments arguments(
      "Random systems through fit, T-x-y, azeotropes, ternary diagram and residue curve map");
  int systems = 1000, first = 1, threads = oneapi::tbb::info::default_concurrency();
  std::string file;
  arguments.count("systems", systems, "How many of each kind");
  arguments.count("seed", first, "Of the first");
  arguments.count("threads", threads, "How many cores");
  arguments.text("out", file, "Write the counts as JSON");
  if (const auto status = arguments.read(argc, argv)) return *status;
  const auto seed = static_cast<unsigned>(first);
  const oneapi::tbb::global_control limit(oneapi::tbb::global_control::max_allowed_parallelism,
                                          static_cast<std::size_t>(threads));

  bool wrong = false;
  auto json = nlohmann::ordered_json::array();
  for (const bool predicted : {false, true}) {
    std::vector<std::optional<Verdicts>> all(static_cast<std::size_t>(systems));
    oneapi::tbb::parallel_for(std::size_t{0}, all.size(), [&](std::size_t k) {
      all[k] = through_all(seed + static_cast<unsigned>(k), predicted);
    });
    json.push_back(report(all, seed, predicted));
    for (const auto& step : json.back()["steps"]) wrong = wrong || step["wrong"] > 0;
  }
  if (!file.empty()) std::ofstream(file) << json.dump(2) << "\n";
  return wrong ? 1 : 0;
}
