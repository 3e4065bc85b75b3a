#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "jampot/substance/define.hpp"

namespace jampot {

/// A user-defined component as it is kept: what is known of it, and for information what was estimated.
/// Reading a file makes the estimates anew from what is known.
///
///   name = "my solvent"
///   [groups]
///   CH3 = 2
///   "ring =CH" = 4
///   [known]
///   Tb_K = 400.0
///
/// @throws RequestError naming file, line and key, what was expected and the nearest right thing.
DefinedSubstance read_substance(const std::filesystem::path& path);
DefinedSubstance parse_substance(std::string_view text, const std::string& file);

std::string substance_text(const DefinedSubstance& defined, const KnownConstants& known);

}  // namespace jampot
