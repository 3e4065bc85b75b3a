#pragma once
// The Gibbs energy of mixing of a liquid over all compositions at one temperature.
#include <optional>
#include <span>
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

class CompositionSamples;

/// The smallest curvature of the Gibbs energy of mixing/(RT) against that of an ideal liquid: 1 for an ideal
/// one, negative where the liquid cannot exist even for a while (inside the spinodal).
struct Curvature {
  double value = 1;  ///< smallest eigenvalue, scaled: below 0 the liquid is unstable
  /// The change of amounts along which it is smallest, summing to zero, of length 1 in the measure
  /// sum u_i^2/x_i. Empty where it was not asked for.
  std::vector<double> direction;
};

/// The smallest eigenvalue of delta_ij + sqrt(x_i x_j) d ln gamma_i/dn_j, whose eigenvector sqrt(x) with the
/// eigenvalue 1 (Gibbs-Duhem) is left out, at the temperature the model stands at.
Curvature smallest_curvature(ActivityModel& model, std::span<const double> x, bool with_direction = false);
/// The same of two or three components from the derivatives d ln gamma_i/dn_j of any liquid, [i*n + j].
double smallest_curvature(std::span<const double> x, std::span<const double> dn);

/// Samples of the Gibbs energy over all compositions: a tangent plane that lies above one of them belongs to
/// a liquid that splits. Three components lie on a triangular lattice, two on a line, more are spread out by
/// a quasi-random sequence beside the pure ones and the middles of all pairs.
class LiquidSurface {
 public:
  /// Samples the model at one temperature; the model must outlive it.
  LiquidSurface(ActivityModel& model, double T_K);

  /// Temperature, K.
  double T_K() const { return T_K_; }
  /// The model it was made with.
  ActivityModel& model() const { return *model_; }
  /// Number of samples.
  std::size_t size() const { return g_.size(); }
  /// Composition of a sample.
  std::span<const double> x(std::size_t sample) const;
  double spacing() const;  ///< of neighbours, in mole fraction; 1 where there is no lattice

  /// Distance of a sample above the plane sum x_i ln_a_i (negative: below it).
  double distance(std::size_t sample, std::span<const double> ln_a) const;

  /// Samples from which a descent on the distance is worth while: the lowest neighbourhoods, lowest first.
  std::vector<std::size_t> lowest(std::span<const double> ln_a, std::size_t most) const;

  /// Where the curvature is smallest and negative: each pocket of the spinodal has one such point or more,
  /// narrow pockets between the samples too.
  std::vector<std::vector<double>> pockets();
  /// Those of samples less than `height` above the plane sum x_i ln_a_i.
  std::vector<std::vector<double>> pockets_near(std::span<const double> ln_a, double height);
  /// Samples inside the spinodal.
  std::vector<std::size_t> unstable();

 private:
  ActivityModel* model_;
  double T_K_;
  const CompositionSamples* samples_;
  std::vector<double> g_;
  double curvature(std::size_t sample);
  std::optional<std::vector<double>> pocket_at(std::size_t sample);
  std::vector<double> curvature_;  ///< of the samples, as far as anybody has asked
};

}  // namespace jampot
