#include "jampot/files/text_file.hpp"

#include <fmt/format.h>

#include <fstream>
#include <sstream>

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

void write_file(const std::filesystem::path& path, std::string_view text) {
  const std::filesystem::path part = path.string() + ".part";
  {
    std::ofstream out(part, std::ios::binary);
    out.write(text.data(), static_cast<std::streamsize>(text.size()));
    out.flush();
    if (!out) {
      std::error_code ignored;
      std::filesystem::remove(part, ignored);
      throw RequestError({path.string(), 0, {}}, "the file cannot be written; does its folder exist?");
    }
  }
  std::filesystem::rename(part, path);
}

}  // namespace jampot
