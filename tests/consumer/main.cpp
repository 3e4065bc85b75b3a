// A project of somebody else's that uses the installed library.
#include <cmath>
#include <cstdio>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/json_results.hpp"

int main() {
  jampot::Mixture mixture(jampot::substances_named({"ethanol", "toluene"}), "ideal", {});
  const jampot::BinaryCurve curve = jampot::txy(mixture, 101325.0);
  const double boiling_point_K = curve.points.back().T_K;
  std::printf("ethanol boils at %.2f K\n", boiling_point_K);
  const bool drawn = !jampot::gnuplot_script(jampot::boiling_figure({curve}, mixture, {}), "out.svg").empty();
  const bool written = !jampot::to_json(curve, mixture.substances()).dump().empty();
  return std::abs(boiling_point_K - 351.44) < 0.2 && drawn && written ? 0 : 1;
}
