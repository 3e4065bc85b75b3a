#pragma once
// Compositions spread over all mixtures of some components, and who stands beside whom.
#include <cstddef>
#include <span>
#include <vector>

namespace jampot {

/// Three components lie on a triangular lattice, two on a line; more are spread out by a quasi-random
/// sequence beside the pure ones and the middles of all pairs, and have no neighbours. Made once for each
/// number of components.
class CompositionSamples {
 public:
  CompositionSamples() = default;
  static const CompositionSamples& of(std::size_t components);

  std::size_t size() const { return ideal_.size(); }
  std::size_t components() const { return components_; }
  std::span<const double> x(std::size_t sample) const { return part(x_, sample); }
  /// The fractions component by component, as `ActivityModel::evaluate_states` wants them.
  const std::vector<double>& by_component() const { return by_component_; }
  /// The square roots of the mole fractions.
  std::span<const double> root(std::size_t sample) const { return part(root_, sample); }
  /// sum x_i ln x_i of each sample.
  const std::vector<double>& ideal() const { return ideal_; }
  std::span<const std::size_t> around(std::size_t sample) const {
    return std::span(neighbour_).subspan(first_[sample], first_[sample + 1] - first_[sample]);
  }
  double spacing() const;  ///< of neighbours, in mole fraction; 1 where there is no lattice

 private:
  CompositionSamples(std::size_t components, std::vector<double> fractions);
  std::span<const double> part(const std::vector<double>& values, std::size_t sample) const {
    return std::span(values).subspan(sample * components_, components_);
  }
  void on_line(std::size_t k);
  void on_triangle(std::size_t k);

  std::size_t components_ = 0;
  std::vector<double> x_, by_component_, root_, ideal_;
  std::vector<std::size_t> neighbour_;  ///< of all samples, one after the other
  std::vector<std::size_t> first_;      ///< where those of a sample begin; one more at the end
};

}  // namespace jampot
