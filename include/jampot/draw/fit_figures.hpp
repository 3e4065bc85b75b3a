#pragma once
// Pictures of a fit: residuals, parity, parameters.
#include <string>

#include "jampot/draw/figure.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

/// What is drawn of a fit.
enum class FitPicture {
  composition,  ///< standardised residuals against the liquid composition: boiling point above, vapour below
  temperature,  ///< against the temperature
  pressure,
  order,      ///< in the order of the files: drifts of an apparatus
  normal,     ///< sorted, against a normal distribution
  parity,     ///< model against measurement
  parameters  ///< the first two fitted parameters: their 95 % region and the minima found
};

/// "composition", "temperature", ... @throws RequestError naming them
FitPicture parse_fit_picture(const std::string& text);

/// @throws RequestError where there is nothing to draw
Figure fit_figure(const Fit& fit, FitPicture picture = FitPicture::composition,
                  const DisplayUnits& units = {});

}  // namespace jampot
