#include "jampot/basis/error.hpp"

#include <fmt/format.h>

namespace jampot {
namespace {

std::string describe(const Place& place, const std::string& what) {
  std::string text = place.file;
  if (place.line > 0) text += fmt::format("{}line {}", text.empty() ? "" : ", ", place.line);
  if (!place.column.empty()) text += fmt::format("{}column {}", text.empty() ? "" : ", ", place.column);
  return text.empty() ? what : text + ": " + what;
}

}  // namespace

RequestError::RequestError(const Place& place, const std::string& what)
    : std::runtime_error(describe(place, what)), place_(place) {}
RequestError::~RequestError() = default;

}  // namespace jampot
