// What to measure next. As `jampot next`.
#include "jampot/report/next.hpp"

#include <iostream>

#include "jampot/files/measured.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(study(NextRequest{read_measured_file("data.csv")})).json_text();
}
