#include "screen.hpp"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <csignal>
#include <cstdio>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot::tool {

void prepare_streams() {
  for (const int stream : {STDIN_FILENO, STDOUT_FILENO, STDERR_FILENO}) {
    if (fcntl(stream, F_GETFD) != -1 || errno != EBADF) continue;
    // Opened the wrong way round, so that whoever writes there hears that nobody listens.
    [[maybe_unused]] const int opened = open("/dev/null", stream == STDIN_FILENO ? O_WRONLY : O_RDONLY);
  }
  std::signal(SIGXFSZ, SIG_IGN);
}

void print_out(std::string_view text) {
  const bool whole = std::fwrite(text.data(), 1, text.size(), stdout) == text.size();
  if (whole && std::fflush(stdout) == 0) return;
  throw CalculationError("standard output cannot be written: " + system_reason(errno));
}

void print_error(std::string_view text) {
  constexpr std::size_t longest = 3000;
  std::string shown = readable(with_keys_as("--", text));
  if (shown.size() > longest) shown = shortened(shown, longest) + "\n";
  std::fputs(shown.c_str(), stderr);
}

}  // namespace jampot::tool
