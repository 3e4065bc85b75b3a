#pragma once
// Follows regions of two liquids through the triangle.
#include <deque>

#include "jampot/diagram/ternary.hpp"
#include "triangle_plane.hpp"

namespace jampot {

class TernaryTracer {
 public:
  TernaryTracer(ActivityModel& model, double T_K);

  /// Finds all regions, plait points and three-liquid triangles.
  /// @param careful tests every step for a further liquid with all descents, not only with the samples
  void run(TernaryDiagram& diagram, bool careful);

  LiquidSplitter& splitter() { return splitter_; }
  /// The tie line through z near a known one.
  std::optional<TieLine> near(const Composition& z, const TieLine& guess, double* residual = nullptr);

 private:
  struct Start {
    TieLine line;
    RegionEnd end;          ///< what lies behind
    Composition direction;  ///< into the region
    bool used = false;
  };
  void find_edges();
  void queue_sides(std::size_t triangle, std::optional<std::size_t> but);
  TwoLiquidRegion follow(const Start& start);
  void follow_islands();
  bool covered(const Composition& z) const;

  /// One step of h from the last tie line; nothing where it does not succeed.
  std::optional<TieLine> step(const TieLine& last, const std::optional<TieLine>& before,
                              const Composition& direction, double h);
  bool third_liquid(const TieLine& line);
  std::optional<std::size_t> triangle_near(const TieLine& line);
  std::size_t add_triangle(const std::vector<std::vector<double>>& liquids);
  bool end_at_plait(TwoLiquidRegion& region, const Composition& direction);

  ActivityModel& model_;
  double T_K_;
  LiquidSplitter splitter_;
  bool careful_ = false;
  TernaryDiagram* diagram_ = nullptr;
  std::deque<Start> starts_;
};

}  // namespace jampot
