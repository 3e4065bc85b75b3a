#pragma once
// A temporary file without a name: whatever happens to the program, nothing of it is left behind.
#include <cstdio>
#include <memory>
#include <string>
#include <string_view>

namespace jampot {

/// Opened for reading and writing; gone with the object, or with the program.
class UnnamedFile {
 public:
  /// @throws CalculationError where the system gives none
  explicit UnnamedFile(std::string_view text = {});

  int descriptor() const;
  /// A name under which this program can open it (Linux).
  std::string path() const;
  /// All that was written into it.
  std::string text() const;

 private:
  struct Close {
    void operator()(std::FILE* file) const { std::fclose(file); }
  };
  std::unique_ptr<std::FILE, Close> file_;
};

}  // namespace jampot
