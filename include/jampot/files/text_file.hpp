#pragma once
#include <filesystem>
#include <string>
#include <string_view>

namespace jampot {

/// The whole file. @throws RequestError where it cannot be read.
std::string read_file(const std::filesystem::path& path);

/// Writes the whole file or nothing, whenever the program is stopped: the text goes into a file without a
/// name in the same folder, which takes its place in one step.
/// @throws RequestError where it cannot be written.
void write_file(const std::filesystem::path& path, std::string_view text);

}  // namespace jampot
