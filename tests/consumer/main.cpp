// A project of somebody else's that uses the installed library.
#include <cmath>
#include <cstdio>
#include <string>

#include "jampot/report/binary.hpp"

int main() {
  jampot::BinaryRequest request;
  request.mixture = jampot::mixture_of({"ethanol", "toluene"}, "ideal");
  request.held = jampot::at_pressures({101325.0});
  const jampot::BinaryStudy study = jampot::study(request);
  const jampot::Answer answer = jampot::answer(study);
  const double boiling_point_K = study.curves.front().points.back().T_K;
  std::printf("ethanol boils at %.2f K\n", boiling_point_K);
  const bool drawn = !jampot::gnuplot_script(*answer.figure, "out.svg").empty();
  const bool written = answer.json_text().find("\"curves\"") != std::string::npos;
  const bool warned = study.notices.has("not-ideal");  // as the tool does
  return std::abs(boiling_point_K - 351.44) < 0.2 && drawn && written && warned ? 0 : 1;
}
