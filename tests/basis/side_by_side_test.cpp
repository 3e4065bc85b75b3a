#include "../../src/basis/side_by_side.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <mutex>
#include <set>
#include <stdexcept>
#include <string>
#include <thread>
#include <vector>

namespace jampot {
namespace {

TEST(SideBySide, EveryNumberIsMetOnce) {
  for (const std::size_t count : {0, 1, 2, 7, 1000}) {
    for (const std::size_t threads : {0, 1, 3, 64}) {
      std::vector<std::atomic<int>> met(count);
      for_each_number(
          count, [&](std::size_t k) { ++met[k]; }, threads);
      for (std::size_t k = 0; k < count; ++k) EXPECT_EQ(met[k], 1) << k << " of " << count;
    }
  }
}

TEST(SideBySide, NoMoreThreadsThanCores) {
  std::mutex door;
  std::set<std::thread::id> seen;
  const auto work = [&](std::size_t) {
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
    const std::scoped_lock lock(door);
    seen.insert(std::this_thread::get_id());
  };
  for_each_number(200, work, 100000);
  EXPECT_LE(seen.size(), cores());
}

TEST(SideBySide, AFailureEndsTheRestAndComesThrough) {
  std::atomic<int> begun{0};
  const auto work = [&](std::size_t k) {
    ++begun;
    if (k == 3) throw std::runtime_error("number 3");
  };
  EXPECT_THROW(for_each_number(1000, work, 1), std::runtime_error);
  EXPECT_EQ(begun, 4);
  EXPECT_THROW(for_each_number(1000, work, 4), std::runtime_error);
}

TEST(SideBySide, AllSharesAreDoneBeforeTheFirstFailureIsThrown) {
  std::atomic<int> done{0};
  const auto share = [&](std::size_t worker) {
    ++done;
    if (worker > 0) throw std::runtime_error(std::to_string(worker));
  };
  try {
    side_by_side(4, share);
    FAIL() << "nothing was thrown";
  } catch (const std::runtime_error& error) {
    EXPECT_STREQ(error.what(), "1");
  }
  EXPECT_EQ(done, 4);
}

TEST(SideBySide, OneThreadKeepsWorkInIt) {
  EXPECT_EQ(workers_for(100), std::min<std::size_t>(cores(), 4));
  EXPECT_EQ(workers_for(0), 1U);
  const OneThread alone;
  EXPECT_EQ(workers_for(100), 1U);
}

}  // namespace
}  // namespace jampot
