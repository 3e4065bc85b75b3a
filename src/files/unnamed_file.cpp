#include "jampot/files/unnamed_file.hpp"

#include <unistd.h>

#include "jampot/basis/error.hpp"

namespace jampot {

UnnamedFile::UnnamedFile(std::string_view text) : file_(std::tmpfile()) {
  if (!file_) throw CalculationError("no temporary file could be made; is the disk full?");
  if (std::fwrite(text.data(), 1, text.size(), file_.get()) != text.size() || std::fflush(file_.get()) != 0)
    throw CalculationError("a temporary file could not be written; is the disk full?");
  lseek(descriptor(), 0, SEEK_SET);
}

int UnnamedFile::descriptor() const {
  return fileno(file_.get());
}

std::string UnnamedFile::path() const {
  return "/proc/self/fd/" + std::to_string(descriptor());
}

std::string UnnamedFile::text() const {
  std::string all;
  char part[65536];
  for (off_t at = 0;;) {
    const ssize_t count = pread(descriptor(), part, sizeof part, at);
    if (count <= 0) return all;
    all.append(part, static_cast<std::size_t>(count));
    at += count;
  }
}

}  // namespace jampot
