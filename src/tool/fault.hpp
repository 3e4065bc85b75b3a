#pragma once
// What went wrong, as a sentence and an exit status.
#include <exception>
#include <string>

namespace jampot::tool {

inline constexpr int cannot_be_done = 1, wrong_request = 2;

struct Fault {
  std::string message;
  int status = cannot_be_done;
};

/// Of anything that was thrown. The words of a library that we use are not repeated: they mean nothing to
/// whoever asked.
Fault fault_of(std::exception_ptr thrown);

}  // namespace jampot::tool
