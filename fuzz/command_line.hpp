#pragma once
#include <string_view>

namespace jampot::fuzz {

/// Runs the command line that these bytes choose, without writing its files: it must end with an answer of
/// numbers, or with a fault in words of ours.
void command_line(std::string_view bytes);

}  // namespace jampot::fuzz
