#pragma once
// Regions of two liquids of a ternary at one temperature.
#include "jampot/diagram/ternary.hpp"
#include "region_tracer.hpp"

namespace jampot {

class TernaryTracer : private RegionTracer<TwoLiquidRegion> {
 public:
  /// Fills the diagram with all regions, plait points and triangles of three liquids.
  /// @param careful tests every step for a further liquid with all descents, not only with the samples
  TernaryTracer(ActivityModel& model, double T_K, TernaryDiagram& diagram, bool careful);

  LiquidSplitter& splitter() { return splitter_; }
  /// The tie line through z near a known one.
  std::optional<TieLine> near(const Composition& z, const TieLine& guess, double* residual = nullptr);

 private:
  std::vector<TieLine> lines_of_pair(std::size_t i, std::size_t j) override;
  std::optional<TieLine> through(const Composition& z, const TieLine& guess) override {
    return near(z, guess);
  }
  TieLine between(const TieLine& a, const TieLine& b, double share) const override;
  bool keeps(const TieLine& guess, const TieLine& last) const override;
  void let_in(TieLine& guess, const TieLine& last, const Composition& z) override;
  bool third_liquid(const TieLine& line) override;
  std::optional<std::size_t> triangle_near(const TieLine& line) override;
  TieLine side(std::size_t triangle, std::size_t opposite) const override;
  Composition corner(std::size_t triangle, std::size_t number) const override;
  bool end_at_plait(TwoLiquidRegion& region, const Composition& direction) override;
  std::vector<Composition> unstable_liquids() override;
  std::optional<TieLine> line_at(const Composition& z) override;
  bool covered(const Composition& z) const override { return diagram_.liquids_at(z) > 1; }

  std::size_t add_triangle(const ThreeLiquids& triangle);

  ActivityModel& model_;
  double T_K_;
  LiquidSplitter splitter_;
  bool careful_;
  TernaryDiagram& diagram_;
};

}  // namespace jampot
