#include "residue_regions.hpp"

#include <algorithm>
#include <numeric>

#include "triangle_plane.hpp"

namespace jampot {
namespace {

struct Point {
  double x, y;
};

Point in_plane(const Composition& x) {
  constexpr double half_root_3 = 0.8660254037844386;
  return {x[1] + x[2] / 2, half_root_3 * x[2]};
}

double area(const std::vector<Composition>& outline) {
  double sum = 0;
  for (std::size_t k = 0; k < outline.size(); ++k) {
    const Point a = in_plane(outline[k]), b = in_plane(outline[(k + 1) % outline.size()]);
    sum += a.x * b.y - a.y * b.x;
  }
  return sum / 2;
}

bool contains(const std::vector<Composition>& outline, const Composition& x) {
  const Point p = in_plane(x);
  bool inside = false;
  for (std::size_t k = 0; k < outline.size(); ++k) {
    const Point a = in_plane(outline[k]), b = in_plane(outline[(k + 1) % outline.size()]);
    if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

// One way along a line between two singular points. The way back is its neighbour in the list.
struct Way {
  std::size_t from = 0, to = 0;
  std::vector<Composition> path;
  std::optional<std::size_t> separatrix;
  double angle = 0;  ///< in which it leaves `from`
};

struct Face {
  std::vector<std::size_t> ways;
  std::vector<Composition> outline;
  std::optional<std::size_t> from, to, region;
};

class Faces {
 public:
  explicit Faces(ResidueMap& map) : map_(map), singular_(map.singular.points) {}

  void run() {
    add_sides();
    for (std::size_t k = 0; k < map_.separatrices.size(); ++k) {
      const Separatrix& line = map_.separatrices[k];
      if (line.begin && line.end) add({*line.begin, *line.end, line.x, k});
    }
    set_angles();
    walk();
    for (Face& face : faces_) name(face);
    gather();
  }

 private:
  void add(Way way) {
    Way back{way.to, way.from, {way.path.rbegin(), way.path.rend()}, way.separatrix};
    ways_.push_back(std::move(way));
    ways_.push_back(std::move(back));
  }

  // Lines leave a node in the order in which they first cut a circle about it. Many begin side by side, so it
  // is as wide as the shortest of them allows.
  void set_angles() {
    for (Way& way : ways_) {
      double radius = HUGE_VAL;
      for (const Way& other : ways_) {
        if (other.from != way.from) continue;
        double furthest = 0;
        for (const Composition& x : other.path) furthest = std::max(furthest, distance(x, other.path[0]));
        radius = std::min(radius, 0.95 * furthest);
      }
      way.angle = angle(way, radius);
    }
  }

  double angle(const Way& way, double radius) const {
    const Composition centre = way.path.front();
    std::size_t k = 1;
    while (k + 1 < way.path.size() && distance(way.path[k], centre) < radius) ++k;
    const Composition &in = way.path[k - 1], &out = way.path[k];
    const double near = distance(in, centre), far = distance(out, centre);
    const double share = far > near ? std::clamp((radius - near) / (far - near), 0.0, 1.0) : 1;
    Composition off = combined(in, share, difference(out, in));
    // What comes in along a side lies inside it all the same, by less than is told apart.
    constexpr double inside = 1e-7;
    if (way.separatrix) {
      for (double& value : off) value = (value + inside) / (1 + 3 * inside);
    }
    const Point a = in_plane(centre), b = in_plane(off);
    return std::atan2(b.y - a.y, b.x - a.x);
  }

  void add_sides() {
    for (std::size_t absent = 0; absent < 3; ++absent) {
      const std::size_t along = (absent + 1) % 3;
      std::vector<std::size_t> on;
      for (std::size_t k = 0; k < singular_.size(); ++k) {
        if (singular_[k].x[absent] == 0) on.push_back(k);
      }
      std::sort(on.begin(), on.end(),
                [&](std::size_t a, std::size_t b) { return singular_[a].x[along] < singular_[b].x[along]; });
      for (std::size_t k = 0; k + 1 < on.size(); ++k)
        add({on[k], on[k + 1], {array_of(singular_[on[k]].x), array_of(singular_[on[k + 1]].x)}, {}});
    }
  }

  // At the end of a way the next one of the same face is the first clockwise from the way back.
  std::size_t next(std::size_t way) const {
    const std::size_t back = way ^ 1U;
    std::size_t best = back;
    double least = HUGE_VAL;
    constexpr double round = 2 * 3.14159265358979323846;
    for (std::size_t k = 0; k < ways_.size(); ++k) {
      if (ways_[k].from != ways_[back].from || k == back) continue;
      double turned = ways_[back].angle - ways_[k].angle;
      while (turned <= 0) turned += round;
      if (turned < least) {
        least = turned;
        best = k;
      }
    }
    return best;
  }

  void walk() {
    std::vector<bool> done(ways_.size());
    for (std::size_t first = 0; first < ways_.size(); ++first) {
      if (done[first]) continue;
      Face face;
      for (std::size_t k = first; !done[k]; k = next(k)) {
        done[k] = true;
        face.ways.push_back(k);
        face.outline.insert(face.outline.end(), ways_[k].path.begin(), ways_[k].path.end() - 1);
      }
      if (area(face.outline) > 0) faces_.push_back(std::move(face));  // the outside runs the other way
    }
  }

  void name(Face& face) {
    std::vector<std::size_t> from, to;
    for (std::size_t k = 0; k < singular_.size(); ++k) {
      bool touches = contains(face.outline, array_of(singular_[k].x));
      for (const std::size_t way : face.ways) touches = touches || ways_[way].from == k;
      if (!touches) continue;
      if (singular_[k].stability == Stability::unstable_node) from.push_back(k);
      if (singular_[k].stability == Stability::stable_node) to.push_back(k);
    }
    if (from.size() == 1 && to.size() == 1) {
      face.from = from[0];
      face.to = to[0];
      return;
    }
    map_.notices.add("regions-unclear",
                     "part of the map has no single beginning or end: a singular point or a boundary is "
                     "missing, so the regions are incomplete");
  }

  void gather() {
    for (Face& face : faces_) {
      if (!face.from) continue;
      const auto same = [&](const DistillationRegion& region) {
        return region.from == *face.from && region.to == *face.to;
      };
      auto region = std::find_if(map_.regions.begin(), map_.regions.end(), same);
      if (region == map_.regions.end()) {
        map_.regions.push_back({*face.from, *face.to, {}});
        region = map_.regions.end() - 1;
      }
      face.region = static_cast<std::size_t>(region - map_.regions.begin());
      region->outlines.push_back(face.outline);
    }
    for (std::size_t k = 0; k < map_.separatrices.size(); ++k) {
      std::vector<std::optional<std::size_t>> beside;
      for (const Face& face : faces_) {
        for (const std::size_t way : face.ways) {
          if (ways_[way].separatrix == k) beside.push_back(face.region);
        }
      }
      map_.separatrices[k].boundary =
          beside.size() != 2 || !beside[0] || !beside[1] || *beside[0] != *beside[1];
    }
  }

  ResidueMap& map_;
  const std::vector<SingularPoint>& singular_;
  std::vector<Way> ways_;
  std::vector<Face> faces_;
};

}  // namespace

void find_regions(ResidueMap& map) {
  Faces(map).run();
}

std::optional<std::size_t> ResidueMap::region_of(const Composition& x) const {
  constexpr double inside = 1e-7;
  Composition z{};
  for (std::size_t i = 0; i < 3; ++i) z[i] = (1 - 3 * inside) * x[i] + inside;
  for (std::size_t k = 0; k < regions.size(); ++k) {
    for (const auto& outline : regions[k].outlines) {
      if (contains(outline, z)) return k;
    }
  }
  return std::nullopt;
}

}  // namespace jampot
