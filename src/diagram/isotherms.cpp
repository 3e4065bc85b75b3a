#include "jampot/diagram/isotherms.hpp"

#include <map>
#include <optional>
#include <utility>

#include "triangle_plane.hpp"

namespace jampot {
namespace {

constexpr int cells_a_side = 80;

struct Corner {
  Composition x;
  double T_K;
};

class Lattice {
 public:
  Lattice(Mixture& mixture, double P_Pa, const BoilingRegions& two_liquids)
      : boiling_(mixture, P_Pa, two_liquids) {
    for (int i = 0; i <= cells_a_side; ++i) {
      std::vector<Corner> row(static_cast<std::size_t>(cells_a_side - i) + 1);
      for (int j = 0; j <= cells_a_side - i; ++j) {
        // To and fro, so that each point has a neighbour before it.
        const int k = i % 2 == 0 ? j : cells_a_side - i - j;
        Corner& corner = row[static_cast<std::size_t>(k)];
        corner.x = {1.0 * i / cells_a_side, 1.0 * k / cells_a_side,
                    1.0 * (cells_a_side - i - k) / cells_a_side};
        corner.T_K = boil(corner.x);
      }
      rows_.push_back(std::move(row));
    }
  }

  // Cells with a line of T cut two of their sides. A side is known by the numbers of its ends.
  void add(double T_K, std::vector<Isotherm>& list) {
    std::map<Side, std::vector<Side>> joined;
    std::map<Side, Composition> places;
    const auto cell = [&](Node a, Node b, Node c) {
      std::vector<Side> cut;
      for (const auto& [one, two] : {std::pair(a, b), std::pair(b, c), std::pair(c, a)}) {
        const Corner &p = at(one), &q = at(two);
        if ((p.T_K < T_K) == (q.T_K < T_K)) continue;
        const Side side = std::minmax(one, two);
        cut.push_back(side);
        if (!places.contains(side)) places[side] = between(p, q, T_K);
      }
      if (cut.size() != 2) return;
      joined[cut[0]].push_back(cut[1]);
      joined[cut[1]].push_back(cut[0]);
    };
    for (int i = 0; i < cells_a_side; ++i) {
      for (int j = 0; i + j < cells_a_side; ++j) {
        cell({i, j}, {i + 1, j}, {i, j + 1});
        if (i + j + 1 < cells_a_side) cell({i + 1, j}, {i + 1, j + 1}, {i, j + 1});
      }
    }
    // Open lines begin where only one cell has the side; what is left then is closed.
    for (const bool open : {true, false}) {
      for (auto& [side, next] : joined) {
        if (next.empty() || (open && next.size() != 1)) continue;
        Isotherm line{T_K, {}};
        std::optional<Side> here = side;
        while (here) {
          line.x.push_back(places[*here]);
          std::vector<Side>& onward = joined[*here];
          if (onward.empty()) break;
          const Side to = onward.back();
          onward.pop_back();
          std::erase(joined[to], *here);
          here = to;
        }
        if (line.x.size() > 1) list.push_back(std::move(line));
      }
    }
  }

 private:
  using Node = std::pair<int, int>;
  using Side = std::pair<Node, Node>;
  const Corner& at(const Node& node) const {
    return rows_[static_cast<std::size_t>(node.first)][static_cast<std::size_t>(node.second)];
  }
  double boil(const Composition& x) {
    boiling_.at(x);
    return boiling_.T_K();
  }
  // Where it boils at T: twice the straight line between the nearest two.
  Composition between(Corner p, Corner q, double T_K) {
    const auto cut = [&] { return combined(p.x, (T_K - p.T_K) / (q.T_K - p.T_K), difference(q.x, p.x)); };
    for (int step = 0; step < 2; ++step) {
      const Composition x = cut();
      const double T = boil(x);
      if (T == T_K) return x;
      ((T < T_K) == (p.T_K < T_K) ? p : q) = {x, T};
    }
    return cut();
  }

  BoilingLiquid boiling_;
  std::vector<std::vector<Corner>> rows_;
};

}  // namespace

std::vector<Isotherm> isotherms(Mixture& mixture, double P_Pa, const BoilingRegions& two_liquids,
                                const std::vector<double>& T_K) {
  Lattice lattice(mixture, P_Pa, two_liquids);
  std::vector<Isotherm> list;
  for (const double T : T_K) lattice.add(T, list);
  return list;
}

}  // namespace jampot
