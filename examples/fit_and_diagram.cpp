// From measured points to parameters, a diagram and a picture. Give it demo/measured/mtbe-methanol.csv
// (made-up data).
#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/regression/fit.hpp"

int main(int argc, char** argv) try {
  using namespace jampot;
  if (argc != 2) throw RequestError("usage: example_fit_and_diagram FILE.csv");

  // 1. Measured data, in SI from here on, every number with its uncertainty.
  const DataSet data = read_measured(argv[1]);

  // 2. Fit. Errors in every measured quantity are the default; alpha is held at 0.3 unless released.
  FitOptions options;
  options.model = "nrtl";
  const Fit result = fit({data}, options);
  for (const FittedParameter* parameter : result.free()) {
    fmt::print("{} = {:.2f} +- {:.2f}\n", parameter->name, parameter->value, parameter->std_error);
  }
  fmt::print("chi-square {:.1f} for {:.0f} degrees of freedom\n", result.objective,
             result.degrees_of_freedom);

  // 3. A diagram, its azeotrope, and how well the data fix it.
  Mixture mixture = result.mixture();
  const BinaryCurve curve = txy(mixture, 101325.0);
  for (const Azeotrope& azeotrope : curve.azeotropes) {
    const AzeotropeUncertainty u = azeotrope_uncertainty(result, Sought::temperature, azeotrope);
    fmt::print("{} azeotrope at x1 = {:.4f} +- {:.4f}, {:.2f} +- {:.2f} K\n", name_of(azeotrope.extremum),
               azeotrope.x1, u.u_x1, azeotrope.T_K, u.u_T_K);
  }

  // 4. Keep the parameters, draw the picture with the measured points laid over.
  write_file("fitted.pairs.toml", pairs_text(result));
  FigureOptions figure;
  figure.measured = {data};
  draw(boiling_figure({curve}, mixture, figure), "fitted.svg");

  // 5. What has to be said about all this.
  for (const Notice& notice : result.notices) fmt::print("notice: {}\n", notice.text);
  return 0;
} catch (const std::exception& error) {
  fmt::print(stderr, "{}\n", error.what());
  return 1;
}
