// jampot: reads words, calls the library, prints.
#include <algorithm>

#include "command_line.hpp"

int main(int argc, char** argv) {
  return jampot::tool::run({argv + std::min(argc, 1), argv + argc});
}
