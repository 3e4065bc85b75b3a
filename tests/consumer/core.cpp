// A project of somebody else's that needs the core alone.
#include <cmath>
#include <cstdio>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/version.hpp"

int main() {
  const jampot::Mixture mixture(jampot::substances_named({"ethanol", "toluene"}), "ideal", {});
  const double boiling_point_K = jampot::txy(mixture, 101325.0).points.back().T_K;
  std::printf("Jam Pot %s: ethanol boils at %.2f K\n", jampot::version, boiling_point_K);
  return std::abs(boiling_point_K - 351.44) < 0.2 ? 0 : 1;
}
