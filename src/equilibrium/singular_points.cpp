#include "jampot/equilibrium/singular_points.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <optional>

#include "../basis/bracket.hpp"
#include "../basis/dense.hpp"
#include "../basis/eigen.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/boiling_liquids.hpp"
#include "jampot/equilibrium/incipient.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/equilibrium/stability.hpp"
#include "jampot/equilibrium/three_liquids.hpp"
#include "jampot/liquid/subsystem.hpp"

namespace jampot {
namespace {

class SingularSearch {
 public:
  SingularSearch(Mixture& mixture, double P_Pa, Progress* progress = nullptr)
      : mixture_(mixture),
        progress_(progress),
        n_(mixture.size()),
        P_Pa_(P_Pa),
        solver_(mixture.liquid(), mixture.vapour()),
        state_(n_) {}

  SingularPoints run() {
    result_.P_Pa = P_Pa_;
    result_.index_expected = n_ % 2 == 1 ? 2 : 0;
    if (progress_ != nullptr) progress_->expected += (1L << n_) - static_cast<long>(n_) - 1;
    for (std::size_t i = 0; i < n_; ++i) add_pure(i);
    for (std::size_t i = 0; i < n_; ++i) {
      for (std::size_t j = i + 1; j < n_; ++j) search_pair(i, j);
    }
    for (int fineness = 1; fineness <= 4; fineness *= 2) {
      if (fineness > 1 && progress_ != nullptr) progress_->expected += combinations_of_three_or_more();
      for (std::size_t members = 3; members <= n_; ++members) search_combinations(members, fineness);
      balance();
      if (result_.balanced()) break;
      if (out_of_budget_) break;  // a finer lattice is not to be had
    }
    std::stable_sort(result_.points.begin(), result_.points.end(),
                     [](const SingularPoint& a, const SingularPoint& b) {
                       if (a.members.size() != b.members.size()) return a.members.size() < b.members.size();
                       return a.members.size() > 1 && a.T_K < b.T_K;
                     });
    if (!result_.balanced()) {
      result_.notices.add("index-balance", fmt::format("the singular points found do not satisfy the index "
                                                       "balance ({} instead of {}): at least one azeotrope "
                                                       "is missing, or one of them is nearly tangent",
                                                       result_.index_sum, result_.index_expected));
    }
    if (!result_.balanced() && out_of_budget_) {
      result_.notices.add(
          "search-budget",
          "the search ended at its budget of starting points: combinations of four and more "
          "members were searched on coarse lattices only. Azeotropes of fewer substances, asked "
          "for by themselves, are searched for more finely");
    }
    if (three_liquids_) {
      result_.notices.add("three-liquids",
                          "some liquids of four or more members split into three here; azeotropes of three "
                          "liquids are only searched for among three members");
    }
    return std::move(result_);
  }

  std::optional<SingularPoint> follow(SingularPoint point) {
    if (point.liquids.size() == 3) return follow_three(std::move(point));
    if (point.heterogeneous) {
      BoilingLiquids start{point.liquids[0], point.liquids[1], point.x, point.T_K, 0, 0};
      std::size_t widest = 0;
      const auto apart = [&](std::size_t i) { return start.beta[i] - start.alpha[i]; };
      for (std::size_t i = 1; i < n_; ++i) widest = std::abs(apart(i)) > std::abs(apart(widest)) ? i : widest;
      start.share = (point.x[widest] - start.alpha[widest]) / apart(widest);
      const auto found =
          BoilingLiquidsSolver(mixture_.liquid(), mixture_.vapour(), P_Pa_).azeotrope(std::move(start));
      if (!found) return std::nullopt;
      point.x = found->y;
      point.liquids = {found->alpha, found->beta};
      point.T_K = found->T_K;
      point.residual = found->residual;
      return point;
    }
    if (point.members.size() > 1) {
      const auto x = newton(point.members, point.x);
      if (!x) return std::nullopt;
      point.x = *x;
    }
    if (!boil(point.x)) return std::nullopt;
    point.T_K = state_.T_K;
    return point;
  }

 private:
  std::optional<SingularPoint> follow_three(SingularPoint point) {
    if (n_ != 3) return std::nullopt;
    ThreeLiquids guess{};
    for (std::size_t p = 0; p < 3; ++p)
      std::copy(point.liquids[p].begin(), point.liquids[p].end(), guess[p].begin());
    const auto found = three_boiling_near(mixture_, P_Pa_, point.T_K, guess);
    if (!found || !found->contain(found->y)) return std::nullopt;
    point.x.assign(found->y.begin(), found->y.end());
    for (std::size_t p = 0; p < 3; ++p)
      point.liquids[p].assign(found->liquids[p].begin(), found->liquids[p].end());
    point.T_K = found->T_K;
    return point;
  }

  std::span<const double> pure_T() {
    if (pure_T_.empty()) {
      for (const Substance& s : mixture_.substances()) pure_T_.push_back(s.vapour_pressure->T_K(P_Pa_));
    }
    return pure_T_;
  }

  // The bubble point of x; ln K of every component, absent ones too.
  bool boil(std::span<const double> x) {
    double T = 0;
    for (std::size_t i = 0; i < n_; ++i) T += x[i] * pure_T()[i];
    state_.P_Pa = P_Pa_;
    if (!(state_.T_K > 0)) state_.T_K = T;
    state_.w.assign(x.begin(), x.end());
    if (solver_.solve(Sought::temperature, x, state_)) return true;
    state_.T_K = T;
    state_.w.assign(x.begin(), x.end());
    return solver_.solve(Sought::temperature, x, state_);
  }

  // Eigenvalues of d(x - y)/dx at the boiling x, one component that is there taken as the rest.
  std::vector<double> eigenvalues(const std::vector<double>& x) {
    const auto s = to_eigen(solver_.sensitivity(Sought::temperature, x, state_));
    const std::size_t rest = static_cast<std::size_t>(std::max_element(x.begin(), x.end()) - x.begin());
    const auto size = static_cast<Eigen::Index>(n_);
    Eigen::MatrixXd dy(size, size);  // of y_i with the amounts n_k of one mole
    for (Eigen::Index i = 0; i < size; ++i) {
      const double K = std::exp(state_.ln_K[static_cast<std::size_t>(i)]),
                   xi = x[static_cast<std::size_t>(i)];
      for (Eigen::Index k = 0; k < size; ++k) dy(i, k) = K * ((i == k ? 1 : 0) + xi * s(i, k));
    }
    Eigen::MatrixXd M(size - 1, size - 1);
    const auto r = static_cast<Eigen::Index>(rest);
    for (Eigen::Index i = 0, a = 0; i < size; ++i) {
      if (i == r) continue;
      for (Eigen::Index k = 0, b = 0; k < size; ++k) {
        if (k == r) continue;
        M(a, b) = (i == k ? 1 : 0) - (dy(i, k) - dy(i, r));
        ++b;
      }
      ++a;
    }
    return real_eigenvalues(M);
  }

  void add(SingularPoint point) {
    std::sort(point.eigenvalues.begin(), point.eigenvalues.end());
    const auto negative =
        std::count_if(point.eigenvalues.begin(), point.eigenvalues.end(), [](double v) { return v < 0; });
    point.stability = negative == 0                               ? Stability::unstable_node
                      : negative == std::ssize(point.eigenvalues) ? Stability::stable_node
                                                                  : Stability::saddle;
    result_.points.push_back(std::move(point));
  }

  void add_pure(std::size_t i) {
    SingularPoint point;
    point.members = {i};
    point.x.assign(n_, 0);
    point.x[i] = 1;
    state_.T_K = pure_T()[i];
    if (!boil(point.x))
      throw CalculationError(
          fmt::format("no boiling point was found for pure {}", mixture_.substances()[i].name));
    point.T_K = state_.T_K;
    // About a vertex each other component goes its own way: 1 - K.
    for (std::size_t k = 0; k < n_; ++k) {
      if (k != i) point.eigenvalues.push_back(1 - std::exp(state_.ln_K[k]));
    }
    add(std::move(point));
  }

  // A homogeneous azeotrope of these members, unless it is known or its liquid is none.
  void add_homogeneous(const std::vector<std::size_t>& members, const std::vector<double>& x) {
    state_.T_K = 0;
    if (!boil(x)) return;
    SingularPoint point;
    for (const std::size_t i : members) point.residual = std::max(point.residual, std::abs(state_.ln_K[i]));
    if (point.residual > 1e-8) return;
    point.members = members;
    point.x = x;
    if (is_known(point)) return;
    point.T_K = state_.T_K;
    point.eigenvalues = eigenvalues(x);
    if (liquid_splits(mixture_.liquid(), point.T_K, x)) return;
    add(std::move(point));
  }

  long combinations_of_three_or_more() const {
    const auto n = static_cast<long>(n_);
    return (1L << n_) - 1 - n - n * (n - 1) / 2;
  }

  void count_progress() {
    if (progress_ != nullptr) ++progress_->done;
  }

  // Two components that no boiling tells apart: every mixture of them would be a singular point.
  void demand_different(std::size_t i, std::size_t j,
                        const std::vector<std::pair<double, double>>& samples) const {
    if (std::any_of(samples.begin(), samples.end(),
                    [](const auto& sample) { return !(std::abs(sample.second) < 1e-9); }))
      return;
    throw CalculationError(
        fmt::format("{} and {} behave identically in this mixture: distillation cannot separate them, so "
                    "every mixture of them is an azeotrope; remove one of them",
                    mixture_.substances()[i].name, mixture_.substances()[j].name));
  }

  void search_pair(std::size_t i, std::size_t j) {
    count_progress();
    std::vector<double> x(n_);
    state_.T_K = 0;
    const auto ln_alpha = [&](double xi) {
      x[i] = xi;
      x[j] = 1 - xi;
      return boil(x) ? state_.ln_K[i] - state_.ln_K[j] : std::nan("");
    };
    std::vector<std::pair<double, double>> samples;
    constexpr int points = 160;
    for (int k = 0; k <= points; ++k) {
      // Dense at both ends, where azeotropes with a trace of one component hide.
      const double xi = 0.5 - 0.5 * std::cos(3.14159265358979 * k / points);
      samples.emplace_back(xi, ln_alpha(xi));
    }
    demand_different(i, j, samples);
    for (std::size_t k = 1; k + 1 < samples.size(); ++k) {
      const auto [xa, a] = samples[k - 1];
      const auto [xb, b] = samples[k];
      const auto [xc, c] = samples[k + 1];
      const double ab = (b - a) / (xb - xa), bc = (c - b) / (xc - xb);
      if (!(a * b > 0 && b * c > 0 && ab * bc < 0)) continue;
      const double extremum = (xa + xb) / 2 - ab * (xc - xa) / (2 * (bc - ab));
      if (extremum <= xa || extremum >= xc || extremum == xb) continue;
      const double value = ln_alpha(extremum);
      if (value * b < 0)
        samples.insert(samples.begin() + static_cast<std::ptrdiff_t>(k + (extremum > xb ? 1 : 0)),
                       {extremum, value});
    }
    for (std::size_t k = 0; k + 1 < samples.size(); ++k) {
      const auto [low, at_low] = samples[k];
      const auto [high, at_high] = samples[k + 1];
      if (!(at_low * at_high < 0)) continue;
      const auto bracket = bracketed_root(ln_alpha, low, high, at_low, at_high, 50, 80);
      if (!bracket) continue;
      std::vector<double> found(n_);
      found[i] = (bracket->first + bracket->second) / 2;
      found[j] = 1 - found[i];
      add_homogeneous({i, j}, found);
    }
    add_heterogeneous(i, j);
  }

  // Whether a pair parts a little below its boiling points.
  bool splits_cold(std::size_t i, std::size_t j) {
    Subsystem pair(mixture_.activity(), {i, j});
    return !binary_splits(pair, std::min(pure_T()[i], pure_T()[j]) - 5).empty();
  }

  void add_heterogeneous(std::size_t i, std::size_t j) {
    const std::vector<std::size_t> members{i, j};
    const std::vector<ThreePhase> lines = three_phases_of_pair(mixture_, i, j, P_Pa_);
    may_split_ = may_split_ || !lines.empty() || splits_cold(i, j);
    for (const ThreePhase& line : lines) {
      if (!line.azeotropic()) continue;
      SingularPoint point;
      point.members = members;
      point.heterogeneous = true;
      point.T_K = line.T_K;
      point.x.assign(n_, 0);
      point.x[i] = line.y1;
      point.x[j] = 1 - line.y1;
      point.residual = line.residual;
      for (const double first : {line.x1_alpha, line.x1_beta}) {
        std::vector<double> liquid(n_);
        liquid[i] = first;
        liquid[j] = 1 - first;
        point.liquids.push_back(std::move(liquid));
      }
      // Along the edge the vapour stays the same; of an absent component both liquids hold their share.
      point.eigenvalues.push_back(1);
      const double share = (line.y1 - line.x1_alpha) / (line.x1_beta - line.x1_alpha);
      add_absent(point, {1 - share, share});
      add(std::move(point));
    }
  }

  // Three or more members: from the splits of all points of a lattice at a temperature near boiling.
  void search_heterogeneous(const std::vector<std::size_t>& members, int fineness) {
    double coldest = HUGE_VAL;
    for (const SingularPoint& point : result_.points) coldest = std::min(coldest, point.T_K);
    Subsystem some(mixture_.activity(), members);
    LiquidSplitter splitter(some, coldest);
    BoilingLiquidsSolver solver(mixture_.liquid(), mixture_.vapour(), P_Pa_);
    for_lattice(
        members.size(), affordable(members.size(), 10 * fineness, split_budget_),
        [&](const std::vector<double>& z) { from_split(members, splitter.split(z), coldest, solver); });
  }

  // An azeotrope of the liquids of a split at a temperature near boiling.
  void from_split(const std::vector<std::size_t>& members, const LiquidSplit& split, double T_K,
                  BoilingLiquidsSolver& solver) {
    if (split.phases() < 2) return;
    if (split.phases() > 2) {
      if (members.size() == 3) {
        add_three_liquids(members, split, T_K);
      } else {
        three_liquids_ = true;
      }
      return;
    }
    Subsystem some(mixture_.activity(), members);
    BoilingLiquids start;
    start.alpha = some.in_whole(split.x[0]);
    start.beta = some.in_whole(split.x[1]);
    start.T_K = T_K;
    start.share = split.amount[1] / (split.amount[0] + split.amount[1]);
    start.y = start.alpha;
    PhaseValues liquid(n_);
    mixture_.liquid().evaluate(T_K, P_Pa_, start.alpha, {}, liquid);
    double sum = 0;
    for (std::size_t i = 0; i < n_; ++i) sum += start.y[i] *= std::exp(liquid.ln_phi[i]);
    for (double& value : start.y) value /= sum;
    if (auto found = solver.azeotrope(std::move(start))) add_heterogeneous(members, *found, solver);
  }

  // Two liquids that are none because a third lies below them: the three are another start. Where two of the
  // three are nearly equal their region is too small for a lattice.
  void from_a_further_liquid(const std::vector<std::size_t>& members, const BoilingLiquids& state) {
    if (members.size() != 3) return;
    Subsystem some(mixture_.activity(), members);
    LiquidSplitter splitter(some, state.T_K);
    std::vector<double> z(members.size());
    for (std::size_t m = 0; m < members.size(); ++m)
      z[m] = (1 - state.share) * state.alpha[members[m]] + state.share * state.beta[members[m]];
    const LiquidSplit split = splitter.split(z);
    if (split.phases() == 3) add_three_liquids(members, split, state.T_K);
  }

  void add_heterogeneous(const std::vector<std::size_t>& members, const BoilingLiquids& state,
                         BoilingLiquidsSolver& solver) {
    SingularPoint point;
    point.members = members;
    point.heterogeneous = true;
    point.x = state.y;
    if (is_known(point)) return;
    if (liquid_splits(mixture_.liquid(), state.T_K, state.alpha)) {  // a further liquid lies below both
      from_a_further_liquid(members, state);
      return;
    }
    point.T_K = state.T_K;
    point.liquids = {state.alpha, state.beta};
    point.residual = state.residual;
    point.eigenvalues = solver.eigenvalues(state);
    add_absent(point, {1 - state.share, state.share});
    add(std::move(point));
  }

  // Three liquids that boil at one temperature, whatever their amounts: an azeotrope if their vapour lies
  // among them.
  void add_three_liquids(const std::vector<std::size_t>& members, const LiquidSplit& split, double T_K) {
    std::vector<Substance> substances;
    for (const std::size_t i : members) substances.push_back(mixture_.substances()[i]);
    Mixture three(substances, std::make_unique<Subsystem>(mixture_.activity(), members), {},
                  mixture_.vapour_choice());
    ThreeLiquids guess{};
    for (std::size_t p = 0; p < 3; ++p) std::copy(split.x[p].begin(), split.x[p].end(), guess[p].begin());
    const auto found = three_boiling_near(three, P_Pa_, T_K, guess);
    if (!found || !found->contain(found->y)) return;
    Subsystem some(mixture_.activity(), members);
    SingularPoint point;
    point.members = members;
    point.heterogeneous = true;
    point.x = some.in_whole(found->y);
    point.T_K = found->T_K;
    for (const auto& liquid : found->liquids) point.liquids.push_back(some.in_whole(liquid));
    if (is_known(point) || liquid_splits(mixture_.liquid(), point.T_K, point.liquids[0])) return;
    // Whatever lies in their triangle has the same vapour.
    point.eigenvalues = {1, 1};
    const auto shares = found->shares(found->y);
    add_absent(point, {shares.begin(), shares.end()});
    add(std::move(point));
  }

  bool is_known(const SingularPoint& point) const {
    return std::any_of(result_.points.begin(), result_.points.end(), [&](const SingularPoint& known) {
      double most = 0;
      for (std::size_t i = 0; i < n_; ++i) most = std::max(most, std::abs(known.x[i] - point.x[i]));
      constexpr double same = 1e-6;
      return known.members == point.members && most < same;
    });
  }

  // A component that is not there goes its own way: 1 - K, K over all of the liquids with their shares.
  void add_absent(SingularPoint& point, const std::vector<double>& shares) {
    PhaseValues liquid(n_), vapour(n_);
    mixture_.vapour().evaluate(point.T_K, P_Pa_, point.x, {}, vapour);
    std::vector<double> by_K(n_);  // the whole over the vapour
    for (std::size_t l = 0; l < shares.size(); ++l) {
      mixture_.liquid().evaluate(point.T_K, P_Pa_, point.liquids[l], {}, liquid);
      for (std::size_t k = 0; k < n_; ++k)
        by_K[k] += shares[l] * std::exp(vapour.ln_phi[k] - liquid.ln_phi[k]);
    }
    for (std::size_t k = 0; k < n_; ++k) {
      if (std::find(point.members.begin(), point.members.end(), k) == point.members.end())
        point.eigenvalues.push_back(1 - 1 / by_K[k]);
    }
  }

  void search_combinations(std::size_t count, int fineness) {
    std::vector<bool> chosen(n_);
    std::fill(chosen.begin(), chosen.begin() + static_cast<std::ptrdiff_t>(count), true);
    do {
      std::vector<std::size_t> members;
      for (std::size_t i = 0; i < n_; ++i) {
        if (chosen[i]) members.push_back(i);
      }
      count_progress();
      search_inside(members, fineness);
      if (may_split_) search_heterogeneous(members, fineness);
    } while (std::prev_permutation(chosen.begin(), chosen.end()));
  }

  // Newton's method from every point of a lattice.
  void search_inside(const std::vector<std::size_t>& members, int fineness) {
    std::vector<double> x(n_);
    const int steps = affordable(members.size(), (members.size() == 3 ? 12 : 8) * fineness, newton_budget_);
    for_lattice(members.size(), steps, [&](const std::vector<double>& z) {
      std::fill(x.begin(), x.end(), 0.0);
      for (std::size_t m = 0; m < members.size(); ++m) x[members[m]] = z[m];
      if (const auto found = newton(members, x)) add_homogeneous(members, *found);
    });
  }

  // How many steps of a lattice the budget pays for, at most `wanted`; what they cost is taken off it.
  int affordable(std::size_t count, int wanted, long& budget) {
    const auto inner =
        [&](int steps) {  // compositions of `steps` into `count` parts: C(steps - 1, count - 1)
          double number = 1;
          for (int k = 1; k < static_cast<int>(count); ++k) number = number * (steps - k) / k;
          return std::lround(std::max(0.0, number));
        };
    int steps = wanted;
    // One combination does not use up what others need.
    while (steps > static_cast<int>(count) && inner(steps) > std::max(20L, budget / 4)) --steps;
    out_of_budget_ = out_of_budget_ || steps < wanted;
    budget = std::max(0L, budget - inner(steps));
    return steps;
  }

  // Calls with every inner point of a lattice of compositions.
  static void for_lattice(std::size_t count, int steps,
                          const std::function<void(const std::vector<double>&)>& call) {
    std::vector<double> z(count);
    const std::function<void(std::size_t, int)> place = [&](std::size_t k, int left) {
      if (k + 1 == count) {
        if (left < 1) return;
        z[k] = static_cast<double>(left) / steps;
        call(z);
        return;
      }
      for (int part = 1; part < left; ++part) {
        z[k] = static_cast<double>(part) / steps;
        place(k + 1, left - part);
      }
    };
    place(0, steps);
  }

  // ln K_i = 0 of all members at the boiling temperature, in mole numbers of which one is the rest.
  std::optional<std::vector<double>> newton(const std::vector<std::size_t>& members, std::vector<double> x) {
    const auto m = static_cast<Eigen::Index>(members.size());
    Eigen::MatrixXd J(m, m);
    Eigen::VectorXd f(m);
    state_.T_K = 0;
    constexpr int most_steps = 40;
    for (int step = 0; step < most_steps; ++step) {
      if (!boil(x)) return std::nullopt;
      const auto s = to_eigen(solver_.sensitivity(Sought::temperature, x, state_));
      double residual = 0;
      // The bubble point makes sum x K = 1, so one of the equations follows from the others; sum dx = 0
      // replaces it.
      for (Eigen::Index a = 0; a < m; ++a) {
        const auto i = static_cast<Eigen::Index>(members[static_cast<std::size_t>(a)]);
        f[a] = state_.ln_K[static_cast<std::size_t>(i)];
        residual = std::max(residual, std::abs(f[a]));
        for (Eigen::Index b = 0; b < m; ++b)
          J(a, b) = s(i, static_cast<Eigen::Index>(members[static_cast<std::size_t>(b)]));
      }
      if (residual < 1e-11) return x;
      J.row(m - 1).setOnes();
      f[m - 1] = 0;
      const Eigen::VectorXd change = solved_carefully(J, f);
      if (!change.allFinite()) return std::nullopt;
      double length = std::min(1.0, 0.25 / std::max(1e-300, change.cwiseAbs().maxCoeff()));
      for (Eigen::Index a = 0; a < m; ++a) {
        const double here = x[members[static_cast<std::size_t>(a)]];
        if (change[a] > 0) length = std::min(length, 0.8 * here / change[a]);
      }
      for (Eigen::Index a = 0; a < m; ++a) {
        double& value = x[members[static_cast<std::size_t>(a)]];
        value -= length * change[a];
        if (value < 1e-7) return std::nullopt;  // on its way to a side: found there
      }
    }
    return std::nullopt;
  }

  void balance() {
    result_.index_sum = 0;
    for (const SingularPoint& point : result_.points) {
      const auto negative =
          std::count_if(point.eigenvalues.begin(), point.eigenvalues.end(), [](double v) { return v < 0; });
      result_.index_sum += (1 << point.members.size()) * (negative % 2 == 0 ? 1 : -1);
    }
  }

  Mixture& mixture_;
  Progress* progress_;
  std::size_t n_;
  double P_Pa_;
  // Starting points of descents to splits, and of Newton's method, for the whole search.
  long split_budget_ = 8000, newton_budget_ = 20000;
  bool out_of_budget_ = false;
  IncipientSolver solver_;
  IncipientState state_;
  std::vector<double> pure_T_;
  bool may_split_ = false, three_liquids_ = false;
  SingularPoints result_;
};

}  // namespace

std::string_view name_of(Stability stability) {
  switch (stability) {
    case Stability::unstable_node:
      return "unstable node";
    case Stability::stable_node:
      return "stable node";
    case Stability::saddle:
      break;
  }
  return "saddle";
}

SingularPoints singular_points(Mixture& mixture, double P_Pa, Progress* progress) {
  demand_pressure(P_Pa);
  if (mixture.size() > 5)
    throw RequestError("azeotropes are searched for in mixtures of up to five components");
  mixture.demand_volatilities();
  mixture.activity();  // refuses an equation of state for the liquid
  for (const Substance& substance : mixture.substances()) {
    if (!substance.vapour_pressure)
      throw CalculationError(fmt::format(
          "{} is non-volatile and forms no azeotrope; remove it from this calculation", substance.name));
  }
  return SingularSearch(mixture, P_Pa, progress).run();
}

std::optional<SingularPoint> same_azeotrope(Mixture& mixture, double P_Pa, const SingularPoint& point) {
  demand_pressure(P_Pa);
  mixture.demand_volatilities();
  demand_fractions(point.x, mixture.size());
  return SingularSearch(mixture, P_Pa).follow(point);
}

}  // namespace jampot
