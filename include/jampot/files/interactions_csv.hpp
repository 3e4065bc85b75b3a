#pragma once
// k_ij of equations of state from a table of the user's own.
#include <string>

#include "jampot/fluid/cubic.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// Reads the columns first, second, k_ij; nothing for an empty name of a file.
/// @throws RequestError naming the place of what is wrong
InteractionTable read_interactions(const std::string& file, const Bank& bank);

}  // namespace jampot
