#pragma once
// The two streams of the tool.
#include <string>
#include <string_view>

namespace jampot::tool {

/// Before anything is opened: a standard stream that is closed gets a place of its own, so that no file of
/// ours takes its number; a limit on the size of files is told by an error instead of a signal.
void prepare_streams();

/// Writes all of it to standard output. @throws CalculationError with the reason of the system
void print_out(std::string_view text);

/// Writes it to standard error with its keys as options, --missing-pairs for `missing-pairs`, readable
/// (`basis/readable.hpp`) and not longer than a person reads. What cannot be written there is lost.
void print_error(std::string_view text);

}  // namespace jampot::tool
