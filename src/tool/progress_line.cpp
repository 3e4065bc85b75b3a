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
  const auto begin = std::chrono::steady_clock::now();
  if (finished_.wait_for(lock, 1s, over)) return;  // nobody needs to know of short work
  do {
    const double done = static_cast<double>(progress_.done), all = static_cast<double>(progress_.expected);
    const std::chrono::duration<double> passed = std::chrono::steady_clock::now() - begin;
    const bool long_work = done > 0 && all > done && passed > 5s;  // then the rest can be guessed
    print_error(fmt::format(
        "\r{}: {} of {}{} ", what_, done, all,
        long_work ? fmt::format(", about {:.0f} s left", passed.count() * (all / done - 1)) : ""));
    std::fflush(stderr);
  } while (!finished_.wait_for(lock, 200ms, over));
  std::fputs("\r\033[K", stderr);  // clears the line
  std::fflush(stderr);
}

}  // namespace jampot::tool
