// What are measured data worth? As `jampot consistency`.
#include <iostream>

#include "jampot/files/measured.hpp"
#include "jampot/report/data.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(study(ConsistencyRequest{read_measured_file("data.csv")})).json_text();
}
