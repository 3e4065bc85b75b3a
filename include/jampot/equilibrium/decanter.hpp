#pragma once
// A liquid feed parted into its liquids, with amounts, densities and the heat it takes.
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/liquid/activity_model.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {

/// One of the liquids that leave.
struct DecantedLiquid {
  std::size_t rich_in =
      0;  ///< the substance of which it holds more than any other liquid, by the largest difference
  std::vector<double> x,  ///< mole fractions
      w;                  ///< mass fractions
  double n = 0;           ///< mol, or mol/s where the feed flows
  double m_kg = 0;        ///< kg, or kg/s
  /// Density at the temperature of the liquids, volumes of the pure liquids added (no excess volume), kg/m3.
  Property density_kg_m3;
};

/// The heat to bring a feed to the temperature of its liquids; J, or W where the feed flows.
struct Duty {
  Property total;       ///< heat to be added, in J of the whole feed (W of a flow)
  double sensible = 0;  ///< of the pure liquids, from their heat capacities
  double mixing = 0;    ///< change of the excess enthalpy, from the temperature dependence of the model
};

/// A feed parted into liquids: what there is of each, and what it took.
struct Decanted {
  double T_K = 0;                       ///< temperature, K
  std::vector<DecantedLiquid> liquids;  ///< the lighter first where densities are known, else as found
  double residual = 0;                  ///< largest difference of ln(x_i gamma_i)
  double balance = 0;                   ///< largest error of the mass balance, as a share of the feed
  double distance = 0;                  ///< lowest distance from the tangent plane; negative only by rounding
  std::optional<double>
      bubble_pressure_Pa;    ///< of the liquids; nothing where no substance has a vapour pressure
  std::optional<Duty> duty;  ///< where a feed temperature was given
  Notices notices;           ///< what the reader must know
};

/// What a feed meets in a decanter.
struct DecanterConditions {
  double T_K = 298.15;                 ///< temperature, K
  std::optional<double> feed_T_K;      ///< for the duty
  std::optional<double> P_Pa;          ///< to see whether a vapour would form
  std::optional<std::size_t> rich_in;  ///< the liquid richest in this substance comes first
};

/// Parts a feed at a temperature.
Decanted decant(const std::vector<Substance>& substances, ActivityModel& model, const Feed& feed,
                const DecanterConditions& conditions);

/// The same with the temperature sought at which the feed has taken up a duty (J, or W where it flows;
/// negative: cooled). `conditions.T_K` is not used, `conditions.feed_T_K` must be given.
/// @throws CalculationError where heat capacities are missing, or no temperature between 150 and 600 K fits
Decanted decant_with_duty(const std::vector<Substance>& substances, ActivityModel& model, const Feed& feed,
                          double duty, const DecanterConditions& conditions);

}  // namespace jampot
