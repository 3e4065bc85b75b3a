#pragma once
// Residue curves, integrated.
#include <boost/numeric/odeint/stepper/controlled_runge_kutta.hpp>
#include <boost/numeric/odeint/stepper/generation.hpp>
#include <boost/numeric/odeint/stepper/runge_kutta_dopri5.hpp>

#include "jampot/diagram/residue_map.hpp"
#include "triangle_plane.hpp"

namespace jampot {

class ResidueCurves {
 public:
  ResidueCurves(Mixture& mixture, double P_Pa, const std::vector<SingularPoint>& singular,
                const BoilingRegions& regions, bool exact);

  /// The curve through a composition, both ways.
  ResidueCurve through(const Composition& x);

  /// All separatrices of a saddle across the triangle.
  std::vector<Separatrix> of_saddle(std::size_t number);

 private:
  /// Appends the curve from x towards rising (sense 1) or falling (-1) temperature, x itself left out.
  std::optional<std::size_t> follow(Composition x, int sense, ResidueCurve& curve);
  void add_point(const Composition& x, ResidueCurve& curve);
  void slope(const Composition& x, Composition& out, int sense);
  void boil(const Composition& x);
  void launch(std::size_t saddle, const Composition& direction, int sense, std::vector<Separatrix>& list);

  using Stepper = boost::numeric::odeint::runge_kutta_dopri5<Composition>;
  boost::numeric::odeint::result_of::make_controlled<Stepper>::type stepper_;
  const std::vector<SingularPoint>& singular_;
  std::vector<double> reach_;  ///< a curve that comes so near to a node ends there
  BoilingLiquid boiling_;
  bool exact_;
};

}  // namespace jampot
