#include "jampot/files/text_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <poll.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cctype>
#include <cerrno>
#include <functional>
#include <system_error>
#include <thread>

#include "jampot/basis/error.hpp"
#include "uninterrupted.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

// An open file, closed with the object.
class Descriptor {
 public:
  explicit Descriptor(int number) : number_(number) {}
  ~Descriptor() { close(); }
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;

  int number() const { return number_; }
  bool open() const { return number_ >= 0; }
  /// @returns 0, or the error number
  int close() {
    const int error = number_ >= 0 && ::close(number_) != 0 ? errno : 0;
    number_ = -1;
    return error;
  }

 private:
  int number_;
};

[[noreturn]] void cannot_be_read(const fs::path& path, const std::string& why) {
  throw RequestError({path.string(), 0, {}}, "the file cannot be read: " + why);
}

[[noreturn]] void cannot_be_written(const fs::path& path, int error) {
  const Place place{path.string(), 0, {}};
  if (error == ENOENT || error == ENOTDIR)
    throw RequestError(place, "the file cannot be written; does its folder exist?");
  if (error == ENAMETOOLONG || error == EISDIR || error == ELOOP)
    throw RequestError(place, "the file cannot be written: " + system_reason(error));
  throw CalculationError(
      fmt::format("{}: the file cannot be written: {}", path.string(), system_reason(error)));
}

// Waits for the other side of a pipe; false where it stays silent.
bool has_more(int file) {
  pollfd wanted{file, POLLIN, 0};
  int ready = 0;
  do {
    ready = poll(&wanted, 1, longest_silence_s * 1000);
  } while (ready < 0 && errno == EINTR);
  return ready != 0;
}

// @returns 0, or the error number
int write_all(int file, std::string_view text) {
  while (!text.empty()) {
    const ssize_t count = write(file, text.data(), text.size());
    if (count < 0 && errno == EINTR) continue;
    if (count <= 0) return count < 0 ? errno : ENOSPC;
    text.remove_prefix(static_cast<std::size_t>(count));
  }
  return 0;
}

// What the new file keeps of the old one; ownership only where the system lets it.
void keep_permissions(int file, const struct stat* before) {
  if (before == nullptr) return;
  [[maybe_unused]] const int owner = fchown(file, before->st_uid, before->st_gid);
  fchmod(file, before->st_mode & 07777);
}

// The text on the disk, with the permissions that stay. @returns 0, or the error number
int fill(const Descriptor& file, std::string_view text, const struct stat* before) {
  if (const int error = write_all(file.number(), text)) return error;
  keep_permissions(file.number(), before);
  return fsync(file.number()) != 0 && errno != EINVAL ? errno : 0;
}

int take_place(const fs::path& part, const fs::path& path) {
  return std::rename(part.c_str(), path.c_str()) == 0 ? 0 : errno;
}

// The text in a file without a name in the folder, which then takes its place: at once where that is free, by
// way of `part` where a file is replaced. @returns 0, an error number, or EOPNOTSUPP where the file system
// knows no such files.
int write_unnamed(const fs::path& path, const fs::path& part, std::string_view text,
                  const struct stat* before) {
  const fs::path folder = path.has_parent_path() ? path.parent_path() : ".";
  Descriptor file(open(folder.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0666));
  if (!file.open()) return errno == EISDIR || errno == EINVAL ? EOPNOTSUPP : errno;
  if (const int error = fill(file, text, before)) return error;
  const std::string open_file = fmt::format("/proc/self/fd/{}", file.number());
  const auto is_named = [&](const fs::path& name) {
    return linkat(AT_FDCWD, open_file.c_str(), AT_FDCWD, name.c_str(), AT_SYMLINK_FOLLOW) == 0;
  };
  if (before == nullptr && is_named(path)) return file.close();
  if (!is_named(part)) return EOPNOTSUPP;
  if (const int error = file.close()) return error;
  return take_place(part, path);
}

int write_named(const fs::path& path, const fs::path& part, std::string_view text,
                const struct stat* before) {
  Descriptor file(open(part.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666));
  if (!file.open()) return errno;
  if (const int error = fill(file, text, before)) return error;
  if (const int error = file.close()) return error;
  return take_place(part, path);
}

int write_as_it_comes(const fs::path& path, std::string_view text) {
  Descriptor file(open(path.c_str(), O_WRONLY | O_CLOEXEC | O_NOCTTY));
  if (!file.open()) return errno;
  if (const int error = write_all(file.number(), text)) return error;
  return file.close();
}

}  // namespace

std::string system_reason(int error_number) {
  std::string reason = std::generic_category().message(error_number);
  if (reason.size() > 1 && std::islower(static_cast<unsigned char>(reason[1])) != 0)
    reason[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(reason[0])));
  return reason;
}

std::string read_file(const fs::path& path) {
  std::string text;
  read_in_pieces(path, largest_file_bytes, [&](std::string_view piece) { text += piece; });
  return text;
}

void read_in_pieces(const fs::path& path, std::size_t largest_bytes,
                    const std::function<void(std::string_view)>& take) {
  // Without waiting for a writer: a pipe that nobody writes into must not stop the program for good.
  const Descriptor file(open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOCTTY));
  struct stat status {};
  if (!file.open() || fstat(file.number(), &status) != 0) cannot_be_read(path, system_reason(errno));
  if (S_ISDIR(status.st_mode)) cannot_be_read(path, "this is a folder");
  const auto too_large = [&] {
    cannot_be_read(path, fmt::format("it holds more than {} MB", largest_bytes >> 20));
  };
  if (S_ISREG(status.st_mode) && static_cast<std::size_t>(status.st_size) > largest_bytes) too_large();
  std::size_t taken = 0;
  char part[65536];
  while (true) {
    if (!S_ISREG(status.st_mode) && !has_more(file.number()))
      cannot_be_read(path, fmt::format("nothing came for {} seconds", longest_silence_s));
    const ssize_t count = read(file.number(), part, sizeof part);
    if (count < 0 && (errno == EINTR || errno == EAGAIN)) continue;
    if (count < 0) cannot_be_read(path, system_reason(errno));
    if (count == 0) return;
    taken += static_cast<std::size_t>(count);
    if (taken > largest_bytes) too_large();
    take({part, static_cast<std::size_t>(count)});
  }
}

void write_file(const fs::path& wanted, std::string_view text) {
  const Place place{wanted.string(), 0, {}};
  std::error_code failed;
  const fs::path path = fs::is_symlink(wanted, failed) ? fs::weakly_canonical(wanted, failed) : wanted;
  struct stat before {};
  const bool exists = stat(path.c_str(), &before) == 0;
  if (exists && S_ISDIR(before.st_mode))
    throw RequestError(place, "this is a folder; a file cannot take its name");
  if (exists && !S_ISREG(before.st_mode)) {
    if (const int error = write_as_it_comes(path, text)) cannot_be_written(wanted, error);
    return;
  }
  // Read-only is respected from everyone, also from those whom the system would let.
  if (exists && ((before.st_mode & 0222) == 0 || access(path.c_str(), W_OK) != 0))
    throw CalculationError(fmt::format(
        "{}: the file exists and is write-protected; choose another name or change its permissions",
        wanted.string()));
  // One name for each writer, even where several write the same file.
  const fs::path part = fmt::format("{}.{}-{}.part", path.string(), getpid(),
                                    std::hash<std::thread::id>{}(std::this_thread::get_id()));
  const struct stat* const kept = exists ? &before : nullptr;
  const Uninterrupted until_no_part_is_left;
  int error = write_unnamed(path, part, text, kept);
  if (error == EOPNOTSUPP) error = write_named(path, part, text, kept);
  if (error == 0) return;
  fs::remove(part, failed);
  cannot_be_written(wanted, error);
}

}  // namespace jampot
