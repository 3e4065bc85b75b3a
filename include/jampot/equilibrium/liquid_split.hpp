#pragma once
// A liquid of any composition parted into as many liquids as it wants to be, without a guess.
#include <memory>
#include <optional>
#include <vector>

#include "jampot/equilibrium/liquid_surface.hpp"
#include "jampot/equilibrium/parting.hpp"
#include "jampot/equilibrium/stability.hpp"

namespace jampot {

/// Liquids in equilibrium; one where the feed is stable.
struct LiquidSplit {
  std::vector<std::vector<double>> x;  ///< mole fractions of each liquid
  std::vector<double> amount;          ///< moles of each per mole of feed
  double residual = 0;                 ///< largest difference of ln(x_i gamma_i) between two of them
  /// Lowest distance of any liquid from the common tangent plane that a search over all compositions found;
  /// negative only by rounding.
  double distance = 0;

  /// Number of liquids.
  std::size_t phases() const { return x.size(); }
};

/// Parts liquids of one model at one temperature.
///
/// Method: the tangent plane of the feed is held against samples of the whole Gibbs energy surface, and
/// descents start from the lowest of them, from every nearly pure liquid and from both sides of everything
/// inside the spinodal. What lies below the plane becomes a further liquid, the amounts move downhill to the
/// least Gibbs energy (PartingSolver), and the common plane is tested again, until nothing lies below it.
class LiquidSplitter {
 public:
  /// @param model stays with the caller and must outlive this
  LiquidSplitter(ActivityModel& model, double T_K);

  /// @param z mole fractions of the feed
  /// @throws CalculationError where the amounts do not converge
  LiquidSplit split(std::span<const double> z);

  /// The two liquids near a feed, downhill from two given ones; nothing where they are no longer two. Whether
  /// they are stable is not tested.
  std::optional<LiquidSplit> two_near(std::span<const double> z, std::span<const double> alpha,
                                      std::span<const double> beta);

  /// The liquid that lies furthest below the tangent plane of a liquid x, if one does; `distance` is the
  /// lowest found in any case.
  std::optional<std::vector<double>> more_stable(std::span<const double> x, double& distance);

  /// ln(x_i gamma_i) at a composition.
  std::vector<double> ln_activities(std::span<const double> x);

  /// Samples of the Gibbs energy, for further searches.
  LiquidSurface& surface() { return surface_; }

 private:
  bool descend(std::span<const double> ln_a, std::span<const double> from, TangentMinimum& lowest);

  LiquidSurface surface_;
  MixingLiquid liquid_;
  PartingSolver solver_;
  TangentPlane plane_;
  std::vector<double> ln_gamma_;
};

}  // namespace jampot
