#pragma once
// Which files a request reads and writes, known before anything is done.
#include <filesystem>
#include <string>
#include <vector>

namespace jampot {

/// Whether an option (without its dashes) names a file that is written.
bool writes_file(const std::string& option);

/// The words of an option's value that may name files: the value itself and the pieces of a list, "nrtl,
/// fit.pairs.toml".
std::vector<std::string> possible_files(const std::string& value);

/// Whether two names are one file, by whatever ways: "f" and "./f", links.
bool same_file(const std::filesystem::path& a, const std::filesystem::path& b);

/// The words of a mixture file that may name files, from where that file stands; `mixture_file` is what it is
/// called, `path` where it is read. Nothing where it cannot be read: whoever uses it says so.
std::vector<std::string> named_in_mixture(const std::string& mixture_file, const std::filesystem::path& path);

/// A file that a job reads or writes.
struct FileUse {
  std::vector<std::string> reads;   ///< files that exist, those named by a mixture file among them
  std::vector<std::string> writes;  ///< as named
};

/// The files there are that the value of an option names, those named by a mixture file among them.
std::vector<std::string> files_in(const std::string& value);

/// @throws RequestError where a file would be written over one that is read, or two outputs are one file
void demand_separate(const FileUse& use);

}  // namespace jampot
