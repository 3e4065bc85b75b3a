#include "uninterrupted.hpp"

#include <unistd.h>

#include <array>
#include <atomic>
#include <condition_variable>
#include <csignal>
#include <mutex>

namespace jampot {
namespace {

constexpr std::array<int, 3> endings{SIGINT, SIGTERM, SIGHUP};

// Both are used in a signal handler, where only atomics without a lock may be.
std::atomic<int> waiting = 0;  // the signal; 0 for none
std::atomic<int> inside = 0;
static_assert(std::atomic<int>::is_always_lock_free);

std::mutex door;
std::condition_variable emptied;

void end_where_one_waits() {
  if (const int signal = waiting.exchange(0); signal != 0) kill(getpid(), signal);
}

// Where the last one left while this began to run, nobody else would send the signal again.
void keep_ending(int signal) {
  waiting = signal;
  if (inside == 0) end_where_one_waits();
}

void handle_endings(void (*from)(int), void (*to)(int)) {
  for (const int signal : endings) {
    struct sigaction found {};
    if (sigaction(signal, nullptr, &found) != 0 || (found.sa_flags & SA_SIGINFO) != 0 ||
        found.sa_handler != from)
      continue;
    struct sigaction wanted {};
    wanted.sa_handler = to;
    wanted.sa_flags = SA_RESTART;
    sigaction(signal, &wanted, nullptr);
  }
}

}  // namespace

Uninterrupted::Uninterrupted() {
  std::unique_lock lock(door);
  // Where threads come and go without a pause, a signal must not wait for ever: nobody enters any more.
  emptied.wait(lock, [] { return waiting == 0 || inside == 0; });
  if (inside++ == 0) handle_endings(SIG_DFL, keep_ending);
}

Uninterrupted::~Uninterrupted() {
  const std::lock_guard lock(door);
  if (--inside > 0) return;
  handle_endings(keep_ending, SIG_DFL);
  end_where_one_waits();
  emptied.notify_all();
}

}  // namespace jampot
