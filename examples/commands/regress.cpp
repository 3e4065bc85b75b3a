// Pair parameters from measured data. As `jampot regress`.
#include "jampot/report/regress.hpp"

#include <iostream>

#include "jampot/files/measured.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(study(RegressRequest{read_measured_file("data.csv")})).json_text();
}
