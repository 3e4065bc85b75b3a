#pragma once
// A temporary file without a name: whatever happens to the program, nothing of it is left behind.
#include <filesystem>
#include <string>
#include <string_view>

namespace jampot {

/// The folder for temporary files: TMPDIR where the environment names one, else /tmp.
std::filesystem::path temporary_folder();

/// Opened for reading and writing; gone with the object, or with the program.
class UnnamedFile {
 public:
  /// In `temporary_folder()`. @throws CalculationError with the reason where the system gives none
  explicit UnnamedFile(std::string_view text = {});
  ~UnnamedFile();
  UnnamedFile(const UnnamedFile&) = delete;
  UnnamedFile& operator=(const UnnamedFile&) = delete;

  /// File descriptor, open as long as this lives.
  int descriptor() const { return descriptor_; }
  /// A name under which this program can open it (Linux).
  std::string path() const;
  /// All that was written into it. @throws CalculationError where it cannot be read
  std::string text() const;

 private:
  int descriptor_;
};

}  // namespace jampot
