#include "jampot/files/program.hpp"

#include <fcntl.h>
#include <sys/prctl.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <thread>

#include "jampot/basis/error.hpp"
#include "jampot/files/unnamed_file.hpp"

namespace jampot {
namespace {

struct Streams {
  explicit Streams(std::string_view text) : in(text) {}
  UnnamedFile in, out, said;
};

std::vector<char*> pointers(std::vector<std::string>& words) {
  std::vector<char*> list;
  for (std::string& word : words) list.push_back(word.data());
  list.push_back(nullptr);
  return list;
}

// In the new process, where only calls that are safe after a fork of many threads may be made: streams,
// an end together with the parent, and the program. Says through `failure` why the program did not start.
[[noreturn]] void become(const Streams& streams, char* const* words, char* const* environment, pid_t parent,
                         int failure) {
  // prctl is bound to the thread that forked, which waits for this process.
  prctl(PR_SET_PDEATHSIG, SIGKILL);
  if (getppid() != parent) _exit(127);
  if (dup2(streams.in.descriptor(), STDIN_FILENO) >= 0 &&
      dup2(streams.out.descriptor(), STDOUT_FILENO) >= 0 &&
      dup2(streams.said.descriptor(), STDERR_FILENO) >= 0)
    execvpe(words[0], words, environment);
  const int error = errno;
  [[maybe_unused]] const ssize_t told = write(failure, &error, sizeof error);
  _exit(127);
}

// Waits for its end, but not longer than it may take. @returns the status of waitpid
int wait_for(pid_t process, double seconds, bool& out_of_time) {
  using Clock = std::chrono::steady_clock;
  const auto end = Clock::now() + std::chrono::duration<double>(seconds);
  auto pause = std::chrono::microseconds(200);
  int status = 0;
  while (true) {
    const pid_t ended = waitpid(process, &status, seconds > 0 ? WNOHANG : 0);
    if (ended == process) return status;
    if (ended < 0 && errno != EINTR) return -1;
    if (seconds <= 0) continue;
    if (!out_of_time && Clock::now() >= end) {
      out_of_time = true;
      kill(process, SIGKILL);
    }
    std::this_thread::sleep_for(pause);
    pause = std::min<std::chrono::microseconds>(2 * pause, std::chrono::milliseconds(5));
  }
}

}  // namespace

ProgramOutput run_program(const std::vector<std::string>& words, std::string_view in,
                          const ProgramSetting& setting) {
  const Streams streams(in);
  std::vector<std::string> own_words = words;
  std::vector<std::string> own_environment = setting.environment.value_or(std::vector<std::string>{});
  const std::vector<char*> arguments = pointers(own_words), named = pointers(own_environment);
  char* const* const environment = setting.environment ? named.data() : environ;
  int failure[2];
  if (pipe2(failure, O_CLOEXEC) != 0) throw CalculationError("cannot create a pipe to another program");
  const pid_t parent = getpid();
  const pid_t process = fork();
  if (process == 0) become(streams, arguments.data(), environment, parent, failure[1]);
  close(failure[1]);
  ProgramOutput output;
  int error = process < 0 ? errno : 0;
  if (process > 0) {
    while (read(failure[0], &error, sizeof error) < 0 && errno == EINTR) {
    }
  }
  close(failure[0]);
  if (process < 0) throw CalculationError("another program cannot be started: the system allows no more");
  const int status = wait_for(process, setting.seconds, output.out_of_time);
  if (error != 0) {
    output.found = false;
    return output;
  }
  output.interrupted = WIFSIGNALED(status);
  output.status = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
  output.out = streams.out.text();
  output.said = streams.said.text();
  return output;
}

}  // namespace jampot
