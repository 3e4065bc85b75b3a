#pragma once
#include <filesystem>
#include <string>
#include <string_view>

namespace jampot {

/// The whole file. @throws RequestError where it cannot be read.
std::string read_file(const std::filesystem::path& path);

/// Writes the whole file or nothing: the text goes to a neighbour first, which then takes the name.
/// @throws RequestError where it cannot be written.
void write_file(const std::filesystem::path& path, std::string_view text);

}  // namespace jampot
