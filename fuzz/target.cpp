// One reader under libFuzzer: JAMPOT_READER is its name among the readers, or JAMPOT_FUNCTION a function of
// its own (CMakeLists.txt).
#include <cstddef>
#include <cstdint>

#include "readers.hpp"
#ifdef JAMPOT_HEADER
#include JAMPOT_HEADER
#endif

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
#ifdef JAMPOT_FUNCTION
  jampot::fuzz::read_or_refuse(jampot::fuzz::JAMPOT_FUNCTION, {reinterpret_cast<const char*>(data), size});
#else
  static const jampot::fuzz::Reader reader = jampot::fuzz::readers().at(JAMPOT_READER);
  jampot::fuzz::read_or_refuse(reader, {reinterpret_cast<const char*>(data), size});
#endif
  return 0;
}
