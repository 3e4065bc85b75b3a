#include "gnuplot.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/program.hpp"

namespace jampot {

std::string run_gnuplot(const std::string& script) {
  ProgramOutput drawn = run_program({"gnuplot"}, script);
  if (!drawn.found)
    throw CalculationError("gnuplot is not installed; figures need it (Debian package gnuplot-nox)");
  if (drawn.interrupted) throw CalculationError("drawing was interrupted");
  if (drawn.status != 0 || drawn.out.empty())
    throw CalculationError(fmt::format("gnuplot could not draw the figure: {}", trimmed(drawn.said)));
  return std::move(drawn.out);
}

}  // namespace jampot
