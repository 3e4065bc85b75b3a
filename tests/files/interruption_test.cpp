#include <gtest/gtest.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <filesystem>
#include <string>
#include <thread>
#include <vector>

#include "jampot/files/text_file.hpp"

namespace fs = std::filesystem;
namespace {

// A folder of its own, gone with the object.
struct Folder {
  fs::path path = fs::temp_directory_path() / ("jampot_interruption_" + std::to_string(getpid()));
  Folder() { fs::create_directory(path); }
  ~Folder() { fs::remove_all(path); }
};

// Writes files over and over in three threads, until the process is ended.
[[noreturn]] void write_for_ever(const fs::path& folder, std::size_t size) {
  for (char name = 'a'; name < 'd'; ++name)
    std::thread([folder, name, size] {
      const std::string text(size, name);
      while (true) jampot::write_file(folder / std::string(1, name), text);
    }).detach();
  while (true) pause();
}

// The signal that ended a process which wrote files and got `signal` after a while.
int end_of_a_writer(const fs::path& folder, std::size_t size, int signal, std::chrono::microseconds after) {
  const pid_t writer = fork();
  if (writer == 0) write_for_ever(folder, size);
  while (!fs::exists(folder / "a")) std::this_thread::sleep_for(std::chrono::microseconds(200));
  std::this_thread::sleep_for(after);
  kill(writer, signal);
  int status = 0;
  waitpid(writer, &status, 0);
  return WIFSIGNALED(status) ? WTERMSIG(status) : 0;
}

// However often a process is interrupted in the course of replacing files, it ends as the signal says, every
// file is whole, and no part of one stays.
TEST(Interruption, EndsAfterTheFilesThatTakeTheirPlaces) {
  const Folder folder;
  constexpr std::size_t size = 20000;
  for (int k = 0; k < 150; ++k) {
    const int signal = std::vector{SIGINT, SIGTERM, SIGHUP}[static_cast<std::size_t>(k) % 3];
    ASSERT_EQ(end_of_a_writer(folder.path, size, signal, std::chrono::microseconds(137 * (k % 29))), signal);
    for (const fs::directory_entry& entry : fs::directory_iterator(folder.path)) {
      ASSERT_EQ(entry.path().filename().string().size(), 1U) << entry.path() << " after " << k;
      const std::string text = jampot::read_file(entry.path());
      EXPECT_EQ(text, std::string(size, entry.path().filename().string()[0]));
    }
  }
}

int counted = 0;

// A program that handles a signal itself gets it as ever, and keeps its handler.
TEST(Interruption, IsLeftToAProgramThatHandlesIt) {
  const Folder folder;
  struct sigaction own = {}, before = {}, after = {};
  own.sa_handler = [](int) { ++counted; };
  sigaction(SIGTERM, &own, &before);
  jampot::write_file(folder.path / "a", "text");
  raise(SIGTERM);
  jampot::write_file(folder.path / "a", "text again");
  sigaction(SIGTERM, &before, &after);
  EXPECT_EQ(counted, 1);
  EXPECT_EQ(after.sa_handler, own.sa_handler);
  // One that is ignored (nohup) stays ignored.
  ::signal(SIGHUP, SIG_IGN);
  jampot::write_file(folder.path / "a", "text");
  EXPECT_EQ(::signal(SIGHUP, SIG_DFL), SIG_IGN);
}

}  // namespace
