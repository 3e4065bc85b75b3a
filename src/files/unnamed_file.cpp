#include "jampot/files/unnamed_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <unistd.h>

#include <cerrno>
#include <cstdlib>

#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

[[noreturn]] void failed(const char* what) {
  throw CalculationError(
      fmt::format("a temporary file in {} {}: {}", temporary_folder().string(), what, system_reason(errno)));
}

int opened() {
  const std::filesystem::path folder = temporary_folder();
  const int file = open(folder.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, 0600);
  if (file >= 0 || (errno != EISDIR && errno != EOPNOTSUPP && errno != EINVAL)) return file;
  std::string name = (folder / "jampot-XXXXXX").string();  // a file system without unnamed files
  const int named = mkostemp(name.data(), O_CLOEXEC);
  if (named >= 0) unlink(name.c_str());
  return named;
}

}  // namespace

std::filesystem::path temporary_folder() {
  const char* const named = std::getenv("TMPDIR");
  return named != nullptr && *named != '\0' ? named : "/tmp";
}

UnnamedFile::UnnamedFile(std::string_view text) : descriptor_(opened()) {
  if (descriptor_ < 0) failed("cannot be made");
  while (!text.empty()) {
    const ssize_t count = write(descriptor_, text.data(), text.size());
    if (count < 0 && errno == EINTR) continue;
    if (count <= 0) {
      const int error = errno;
      close(descriptor_);
      errno = error;
      failed("cannot be written");
    }
    text.remove_prefix(static_cast<std::size_t>(count));
  }
  lseek(descriptor_, 0, SEEK_SET);
}

UnnamedFile::~UnnamedFile() {
  close(descriptor_);
}

std::string UnnamedFile::path() const {
  return "/proc/self/fd/" + std::to_string(descriptor_);
}

std::string UnnamedFile::text() const {
  std::string all;
  char part[65536];
  for (off_t at = 0;;) {
    const ssize_t count = pread(descriptor_, part, sizeof part, at);
    if (count < 0 && errno == EINTR) continue;
    if (count < 0) failed("cannot be read");
    if (count == 0) return all;
    all.append(part, static_cast<std::size_t>(count));
    at += count;
  }
}

}  // namespace jampot
