#pragma once
// The tool described for man and for bash, from the same source as --help.
#include <string>

#include "command.hpp"

namespace jampot::tool {

/// A manual page in the man macros of troff, section 1.
std::string manual_page(const Commands& commands, const std::string& version);

/// Completion for bash: commands, options, and files where an option wants one.
std::string bash_completion(const Commands& commands);

/// Every notice with its meaning, as a page of Markdown (docs/notices.md).
std::string list_of_notices();

}  // namespace jampot::tool
