#include "jampot/files/text_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <unistd.h>

#include <cerrno>
#include <fstream>
#include <functional>
#include <sstream>
#include <thread>

#include "jampot/basis/error.hpp"

namespace jampot {

std::string read_file(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::ostringstream text;
  if (!in || std::filesystem::is_directory(path) || !(text << in.rdbuf() || in.peek() == EOF)) {
    throw RequestError({path.string(), 0, {}}, "the file cannot be read");
  }
  return text.str();
}

namespace {

// The text in a file without a name in the folder, which then takes `name`; false where the file system knows
// no such files.
bool write_unnamed(const std::filesystem::path& folder, const std::filesystem::path& name,
                   std::string_view text) {
  const int file = open(folder.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0666);
  if (file < 0) return false;
  bool whole = true;
  for (std::size_t at = 0; at < text.size() && whole;) {
    const ssize_t count = write(file, text.data() + at, text.size() - at);
    if (count > 0) at += static_cast<std::size_t>(count);
    whole = count > 0 || errno == EINTR;
  }
  whole = whole && linkat(AT_FDCWD, ("/proc/self/fd/" + std::to_string(file)).c_str(), AT_FDCWD, name.c_str(),
                          AT_SYMLINK_FOLLOW) == 0;
  close(file);
  return whole;
}

bool write_named(const std::filesystem::path& name, std::string_view text) {
  std::ofstream out(name, std::ios::binary);
  out.write(text.data(), static_cast<std::streamsize>(text.size()));
  out.close();
  return bool(out);
}

}  // namespace

void write_file(const std::filesystem::path& wanted, std::string_view text) {
  namespace fs = std::filesystem;
  const Place place{wanted.string(), 0, {}};
  std::error_code failed;
  const fs::path path = fs::is_symlink(wanted, failed) ? fs::weakly_canonical(wanted, failed) : wanted;
  const fs::file_status status = fs::status(path, failed);
  if (fs::is_directory(status)) throw RequestError(place, "this is a folder; a file cannot take its name");
  if (fs::exists(status) &&
      !fs::is_regular_file(status)) {  // a pipe or a terminal takes the text as it comes
    if (!write_named(path, text)) throw RequestError(place, "nothing can be written there");
    return;
  }
  const fs::path folder = path.has_parent_path() ? path.parent_path() : ".";
  // One name for each writer, even where several write the same file.
  const fs::path part = fmt::format("{}.{}-{}.part", path.string(), getpid(),
                                    std::hash<std::thread::id>{}(std::this_thread::get_id()));
  if (write_unnamed(folder, part, text) || write_named(part, text)) {
    fs::rename(part, path, failed);
    if (!failed) return;
  }
  fs::remove(part, failed);
  throw RequestError(place, "the file cannot be written; does its folder exist?");
}

}  // namespace jampot
