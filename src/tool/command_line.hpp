#pragma once
// The whole tool as one call.
#include <string>
#include <vector>

namespace jampot::tool {

/// Does what the words after the tool's name ask for, and prints. @return the exit status
int run(const std::vector<std::string>& words);

}  // namespace jampot::tool
