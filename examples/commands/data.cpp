// What does a file of measured data hold? As `jampot data`.
#include "jampot/report/data.hpp"

#include <iostream>

#include "jampot/files/measured.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(read_measured_file("data.csv")).json_text();
}
