#pragma once
// Progress of long work on standard error, where that is a terminal.
#include <condition_variable>
#include <mutex>
#include <string>
#include <thread>

#include "jampot/basis/progress.hpp"

namespace jampot::tool {

/// Shows "fitting: 12 of 96" while it lives, from the first second on, and takes the line away when it goes.
class ProgressLine {
 public:
  /// @param wanted false: stays silent, a terminal or not
  ProgressLine(std::string what, const Progress& progress, bool wanted = true);
  ~ProgressLine();
  ProgressLine(const ProgressLine&) = delete;
  ProgressLine& operator=(const ProgressLine&) = delete;

 private:
  void show();

  std::string what_;
  const Progress& progress_;
  std::mutex mutex_;
  std::condition_variable finished_;
  bool over_ = false;
  std::thread thread_;
};

}  // namespace jampot::tool
