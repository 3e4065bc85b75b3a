#include "progress_line.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <cstdio>

#include "screen.hpp"

namespace jampot::tool {

ProgressLine::ProgressLine(std::string what, const Progress& progress, bool wanted)
    : what_(std::move(what)), progress_(progress) {
  if (wanted && isatty(STDERR_FILENO) == 1) thread_ = std::thread([this] { show(); });
}

ProgressLine::~ProgressLine() {
  if (!thread_.joinable()) return;
  {
    const std::lock_guard lock(mutex_);
    over_ = true;
  }
  finished_.notify_one();
  thread_.join();
}

void ProgressLine::show() {
  using namespace std::chrono_literals;
  std::unique_lock lock(mutex_);
  const auto over = [this] { return over_; };
  if (finished_.wait_for(lock, 1s, over)) return;  // nobody needs to know of short work
  do {
    print_error(fmt::format("\r{}: {} of {} ", what_, progress_.done.load(), progress_.expected.load()));
    std::fflush(stderr);
  } while (!finished_.wait_for(lock, 200ms, over));
  std::fputs("\r\033[K", stderr);  // clears the line
  std::fflush(stderr);
}

}  // namespace jampot::tool
