#include "jampot/design/route.hpp"

#include <algorithm>
#include <cmath>

#include "../diagram/triangle_plane.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "sharp_split.hpp"

namespace jampot {
namespace {

constexpr double nothing = 1e-9;  // moles per mole of feed

double sum(const Composition& n) {
  return n[0] + n[1] + n[2];
}

// What a unit does, whatever flows into it.
struct Step {
  SplitKind kind = SplitKind::on_a_side;
  std::size_t region = 0;
};

struct Node {
  Step step;
  std::array<StreamEnd, 2> to{};
};

class Router {
 public:
  Router(Mixture& mixture, const ResidueMap& map, const RouteTask& task)
      : splits_(mixture, map, task.decanter_T_K), map_(map), task_(task) {
    for (std::size_t i = 0; i < 3; ++i) {
      if (task.z[i] <= nothing) entrainer_ = i;
    }
  }

  std::vector<Route> found() {
    std::vector<double> amounts{0};
    if (entrainer_) {
      amounts.clear();
      constexpr double least = 0.02, most = 6, step = 1.15;
      for (double amount = least; amount < most; amount *= step) amounts.push_back(amount);
    }
    const auto sure = [](const Route& route) { return !route.relies_on_curvature(); };
    for (units_ = 1; units_ <= task_.most_units && std::none_of(routes_.begin(), routes_.end(), sure);
         ++units_) {
      tried_ = 0;
      for (const double amount : amounts) {
        Composition feed = task_.z;
        if (entrainer_) feed[*entrainer_] = amount;
        entrainer_amount_ = amount;
        nodes_.clear();
        extend({{feed, 0, 0, true}});
      }
    }
    std::stable_sort(routes_.begin(), routes_.end(), [](const Route& a, const Route& b) {
      if (a.relies_on_curvature() != b.relies_on_curvature()) return b.relies_on_curvature();
      return a.recycled < b.recycled;
    });
    keep_different();
    return std::move(routes_);
  }

 private:
  // A stream whose end is not settled yet: the output of a node, or the feed.
  struct Open {
    Composition n;
    std::size_t node, output;
    bool feed;
  };

  static Composition fractions(const Composition& n) {
    const double total = sum(n);
    return {n[0] / total, n[1] / total, n[2] / total};
  }

  void extend(std::vector<Open> open) {
    constexpr int most_tried = 4000;  // closures of recycles
    if (tried_ > most_tried) return;
    if (open.empty()) {
      close();
      return;
    }
    const Open stream = open.back();
    open.pop_back();
    const Composition x = fractions(stream.n);
    const auto ends = [&](StreamEnd end) {
      nodes_[stream.node].to[stream.output] = end;
      extend(open);
    };
    if (sum(stream.n) < nothing) return;
    if (const auto pure = pure_component(x)) {
      if (!stream.feed && entrainer_ != pure) ends({StreamEnd::Kind::product, *pure});
      if (!stream.feed && entrainer_ == pure) ends({StreamEnd::Kind::back, 0});
      return;
    }
    if (nodes_.size() < units_) {
      for (const Step& step : steps(x)) {
        const auto split = splits_.of(step.kind, step.region, x);
        if (!split) continue;
        if (!stream.feed) nodes_[stream.node].to[stream.output] = {StreamEnd::Kind::unit, nodes_.size()};
        const std::size_t number = nodes_.size();
        nodes_.push_back({step, {}});
        std::vector<Open> next = open;
        const double total = sum(stream.n);
        next.push_back({combined({}, total * (1 - split->share_of_first), split->second), number, 1, false});
        next.push_back({combined({}, total * split->share_of_first, split->first), number, 0, false});
        extend(std::move(next));
        nodes_.resize(number);
      }
    }
    if (stream.feed || recycles() >= 2) return;
    for (std::size_t k = 0; k < stream.node; ++k) ends({StreamEnd::Kind::back, k});
  }

  // Of the nodes that are settled: a stream is settled before later ones are looked at.
  int recycles() const {
    int count = 0;
    for (const Node& node : nodes_)
      for (const StreamEnd& end : node.to) count += end.kind == StreamEnd::Kind::back;
    return count;
  }

  std::vector<Step> steps(const Composition& x) const {
    if (absent_component(x)) return {{SplitKind::on_a_side, 0}, {SplitKind::decanter, 0}};
    std::vector<Step> list{{SplitKind::decanter, 0}};
    for (std::size_t r = 0; r < map_.regions.size(); ++r) {
      list.push_back({SplitKind::lightest_first, r});
      list.push_back({SplitKind::heaviest_first, r});
    }
    return list;
  }

  // Flows of all units, the recycles found by repeated substitution.
  void close() {
    ++tried_;
    const std::size_t count = nodes_.size();
    std::vector<Composition> back(count);  // what is sent back to each
    if (entrainer_) back[0][*entrainer_] = entrainer_amount_;
    Route route;
    constexpr int most = 3000;
    constexpr double same = 1e-10, far_too_much = 30;
    for (int iteration = 0; iteration < most; ++iteration) {
      std::vector<Composition> sent(count);
      if (!pass(back, sent, route)) return;
      double change = 0, total = 0;
      for (std::size_t k = 0; k < count; ++k) {
        change = std::max(change, distance(sent[k], back[k]));
        total += sum(sent[k]);
      }
      back = std::move(sent);
      if (total > far_too_much) return;
      if (change < same * (1 + total)) {
        route.recycled = total;
        route.entrainer = entrainer_ ? entrainer_amount_ : 0;
        if (makes_products(route)) routes_.push_back(std::move(route));
        return;
      }
    }
  }

  bool pass(const std::vector<Composition>& back, std::vector<Composition>& sent, Route& route) {
    route.units.assign(nodes_.size(), {});
    std::vector<Composition> in = back;
    in[0] = combined(in[0], 1, task_.z);
    std::vector<std::optional<std::size_t>> from(nodes_.size());  // region at whose boundary a feed lies
    for (std::size_t k = 0; k < nodes_.size(); ++k) {
      const double total = sum(in[k]);
      if (total < nothing) return false;
      const Composition x = fractions(in[k]);
      const Step& step = nodes_[k].step;
      const auto split = splits_.of(step.kind, step.region, x);
      if (!split) return false;
      RouteUnit& unit = route.units[k];
      unit.decanter = step.kind == SplitKind::decanter;
      unit.in = in[k];
      unit.along_boundary = split->boundary;
      if (step.kind == SplitKind::lightest_first || step.kind == SplitKind::heaviest_first) {
        unit.region = step.region;
        // A feed on a boundary comes from the column that ended there.
        const bool from_boundary = from[k] && sum(back[k]) < nothing;
        unit.feed_region = from_boundary ? from[k] : split->across ? map_.region_of(x) : unit.region;
      }
      const std::array share{split->share_of_first, 1 - split->share_of_first};
      const std::array x_out{split->first, split->second};
      for (std::size_t o = 0; o < 2; ++o) {
        RouteStream& stream = unit.out[o];
        stream.n = combined({}, total * share[o], x_out[o]);
        stream.to = nodes_[k].to[o];
        const auto pure = pure_component(x_out[o]);
        switch (stream.to.kind) {
          case StreamEnd::Kind::product:
            if (pure != stream.to.number) return false;
            break;
          case StreamEnd::Kind::unit:
            in[stream.to.number] = combined(in[stream.to.number], 1, stream.n);
            if (split->boundary && o == (step.kind == SplitKind::lightest_first ? 1 : 0))
              from[stream.to.number] = step.region;
            break;
          case StreamEnd::Kind::back:
            sent[stream.to.number] = combined(sent[stream.to.number], 1, stream.n);
            break;
        }
      }
    }
    return true;
  }

  // Every component of the feed leaves as a product, all of it.
  bool makes_products(Route& route) {
    Composition made{};
    for (RouteUnit& unit : route.units) {
      for (RouteStream& stream : unit.out) {
        if (stream.to.kind == StreamEnd::Kind::product) made[stream.to.number] += stream.total();
        stream.T_K = unit.decanter ? splits_.decanter_T_K(unit.in) : splits_.boiling_T_K(stream.x());
      }
    }
    constexpr double all = 1e-7;
    for (std::size_t i = 0; i < 3; ++i) {
      if (std::abs(made[i] - task_.z[i]) > all) return false;
    }
    return true;
  }

  void keep_different() {
    std::vector<Route> kept;
    // The same units in the same order, whatever the amount of an entrainer.
    const auto same = [](const Route& a, const Route& b) {
      if (a.units.size() != b.units.size()) return false;
      for (std::size_t k = 0; k < a.units.size(); ++k) {
        const RouteUnit &one = a.units[k], &other = b.units[k];
        if (one.decanter != other.decanter || one.region != other.region) return false;
        for (std::size_t o = 0; o < 2; ++o) {
          if (one.out[o].to.kind != other.out[o].to.kind || one.out[o].to.number != other.out[o].to.number)
            return false;
        }
      }
      return true;
    };
    for (Route& route : routes_) {
      if (kept.size() == task_.most_routes) break;
      if (std::none_of(kept.begin(), kept.end(), [&](const Route& one) { return same(one, route); }))
        kept.push_back(std::move(route));
    }
    routes_ = std::move(kept);
  }

  SharpSplits splits_;
  const ResidueMap& map_;
  const RouteTask& task_;
  std::optional<std::size_t> entrainer_;
  double entrainer_amount_ = 0;
  std::size_t units_ = 0;
  int tried_ = 0;
  std::vector<Node> nodes_;
  std::vector<Route> routes_;
};

}  // namespace

std::array<double, 3> RouteStream::x() const {
  const double all = total();
  return {n[0] / all, n[1] / all, n[2] / all};
}

bool Route::relies_on_curvature() const {
  return std::any_of(units.begin(), units.end(),
                     [](const RouteUnit& unit) { return unit.relies_on_curvature(); });
}

std::vector<Route> routes(Mixture& mixture, const ResidueMap& map, const RouteTask& task) {
  return Router(mixture, map, task).found();
}

}  // namespace jampot
