#pragma once
// What the drawers of triangles share.
#include "jampot/draw/triangle_figure.hpp"

namespace jampot {

class TriangleDrawer {
 protected:
  TriangleDrawer(const std::vector<Substance>& substances, const TriangleFigureOptions& options)
      : substances_(substances), options_(options), corners_(options.triangle) {}

  /// The empty triangle with these names at the corners.
  void begin(const std::array<std::string, 3>& names);
  bool shows(const std::string& layer) const { return !options_.hidden.contains(layer); }
  /// Where mole fractions stand, in the basis of the figure.
  Spot spot(const std::array<double, 3>& x) const;
  Spot spot(const std::vector<double>& x) const { return spot(std::array{x[0], x[1], x[2]}); }
  std::vector<Spot> spots(const std::vector<std::array<double, 3>>& list) const;
  /// Marked compositions with their guide lines, and balance lines between them.
  void add_marks();
  /// "mole fractions; how the numbers at the sides run"
  std::string footer() const;

  const std::vector<Substance>& substances_;
  Panel panel_;

 private:
  const TriangleFigureOptions& options_;
  Triangle corners_;
};

}  // namespace jampot
