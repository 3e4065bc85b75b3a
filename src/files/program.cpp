#include "jampot/files/program.hpp"

#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>

#include "jampot/files/unnamed_file.hpp"

namespace jampot {
namespace {

struct Streams {
  explicit Streams(std::string_view text) : in(text) {
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_adddup2(&actions, in.descriptor(), STDIN_FILENO);
    posix_spawn_file_actions_adddup2(&actions, out.descriptor(), STDOUT_FILENO);
    posix_spawn_file_actions_adddup2(&actions, said.descriptor(), STDERR_FILENO);
  }
  ~Streams() { posix_spawn_file_actions_destroy(&actions); }
  Streams(const Streams&) = delete;
  Streams& operator=(const Streams&) = delete;

  UnnamedFile in, out, said;
  posix_spawn_file_actions_t actions{};
};

}  // namespace

ProgramOutput run_program(const std::vector<std::string>& words, std::string_view in) {
  Streams streams(in);
  std::vector<std::string> own = words;
  std::vector<char*> arguments;
  for (std::string& word : own) arguments.push_back(word.data());
  arguments.push_back(nullptr);
  ProgramOutput output;
  pid_t process = 0;
  if (posix_spawnp(&process, arguments[0], &streams.actions, nullptr, arguments.data(), environ) != 0) {
    output.found = false;
    return output;
  }
  int status = 0;
  while (waitpid(process, &status, 0) < 0 && errno == EINTR) {
  }
  output.interrupted = WIFSIGNALED(status);
  output.status = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
  output.out = streams.out.text();
  output.said = streams.said.text();
  return output;
}

}  // namespace jampot
