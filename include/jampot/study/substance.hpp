#pragma once
// One substance: what a half-remembered name may mean, what is known, properties at states, where it boils.
#include <optional>
#include <string>
#include <vector>

#include "jampot/fluid/pure_saturation.hpp"
#include "jampot/study/held.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/saturation.hpp"

namespace jampot {

/// A name, an alias, a formula or a CAS number, or a part of one of them.
struct FindRequest {
  std::string text{};          ///< part of a name, formula or number
  const Bank* bank = nullptr;  ///< nullptr: the built-in one
};

/// What it may mean, the best match first.
struct FindStudy {
  std::vector<Substance> matches{};  ///< best first
  Notices notices{};                 ///< what the reader must know
};

/// @throws CalculationError where nothing is like it
FindStudy study(const FindRequest& request);

/// Properties of a substance: without temperatures and pressures its constants; with one of them at
/// saturation; with both at every state of them.
struct SubstanceRequest {
  Substance substance{};      ///< the pure substance
  std::vector<double> T_K{},  ///< temperatures, K
      P_Pa{};                 ///< pressures, Pa
  bool together = false;      ///< the two lists in step, else all combinations
  Reference reference{};      ///< where enthalpy and entropy are zero
};

/// The substance, with its states where any were asked for.
struct SubstanceStudy {
  Substance substance{};                  ///< the pure substance
  Reference reference{};                  ///< where enthalpy and entropy are zero
  std::vector<StateProperties> states{};  ///< one for each condition asked for
  Notices notices{};                      ///< what the reader must know
};

/// @throws RequestError for too many states, or lists in step of different length; CalculationError where no
/// state exists. In a range a state that does not exist is left out, and a notice says so.
SubstanceStudy study(const SubstanceRequest& request);

/// Where a substance boils.
struct SaturationRequest {
  Substance substance{};                 ///< the pure substance
  Held held{};                           ///< whether temperature or pressure is held, and its values
  std::vector<std::string> equations{};  ///< equations of state to hold against the correlation
};

/// One equation of state beside the correlation.
struct SaturationByEquation {
  std::string equation{};                               ///< name of the equation of state
  PureCritical critical{};                              ///< critical point of the equation
  std::vector<std::optional<PureSaturation>> points{};  ///< as many as of the correlation
};

/// The points of the boiling curve.
struct SaturationStudy {
  Substance substance{};                          ///< the pure substance
  Held held{};                                    ///< as asked
  std::vector<SaturationPoint> points{};          ///< of the vapour pressure equation
  std::vector<SaturationByEquation> equations{};  ///< of equations of state
  Notices notices{};                              ///< what the reader must know

  /// Lowest temperature of all points, K.
  double coldest_K() const;
};

/// @throws RequestError for an unknown equation; CalculationError where no point exists. In a range a point
/// that does not exist is left out, and a notice says so.
SaturationStudy study(const SaturationRequest& request);

}  // namespace jampot
