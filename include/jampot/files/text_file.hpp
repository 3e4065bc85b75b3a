#pragma once
// Files as texts: read within limits, written whole or not at all.
#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

namespace jampot {

/// The most bytes that are read from a file.
inline constexpr std::size_t largest_file_bytes = std::size_t{64} << 20;
/// How long a pipe may say nothing before it is given up.
inline constexpr int longest_silence_s = 10;

/// The whole file. A pipe is read to its end, as long as it does not pause longer than `longest_silence_s`.
/// @throws RequestError with the reason of the system where it cannot be read, or holds more than
/// `largest_file_bytes`
std::string read_file(const std::filesystem::path& path);

/// The file piece by piece, for readers that need not hold it: `take` gets some 64 kB at a time.
/// @throws RequestError as `read_file`, with `largest_bytes` as the limit; what `take` throws
void read_in_pieces(const std::filesystem::path& path, std::size_t largest_bytes,
                    const std::function<void(std::string_view)>& take);

/// Writes the whole file or nothing, whenever the program is stopped: the text goes into a file without a
/// name in the same folder, reaches the disk, and takes its place in one step. A SIGINT, SIGTERM or SIGHUP that
/// would end the program waits for that. Killed outright, a program may leave a file ending in `.part` beside
/// one that it was about to replace.
///
/// A file that is replaced keeps its permissions; one without permission to write is not replaced. A symbolic
/// link is followed. Of a file with several names (hard links) only the name given gets the new text. Pipes
/// and terminals take the text as it comes.
/// @throws RequestError where the path cannot be a file (no such folder); CalculationError with the reason of
/// the system where it cannot be written (no space, no permission)
void write_file(const std::filesystem::path& path, std::string_view text);

/// The reason of the system behind an error number: "no space left on device".
std::string system_reason(int error_number);

}  // namespace jampot
