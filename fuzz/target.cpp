// One reader under libFuzzer: JAMPOT_READER is its name (CMakeLists.txt).
#include <cstddef>
#include <cstdint>

#include "readers.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const jampot::fuzz::Reader reader = jampot::fuzz::readers().at(JAMPOT_READER);
  jampot::fuzz::read_or_refuse(reader, {reinterpret_cast<const char*>(data), size});
  return 0;
}
