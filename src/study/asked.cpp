#include "jampot/study/asked.hpp"

#include <fmt/format.h>

namespace jampot {

std::string AskedComposition::name() const {
  return text.empty() ? fmt::format("{:.4g}, {:.4g}, {:.4g}", x[0], x[1], x[2]) : text;
}

}  // namespace jampot
