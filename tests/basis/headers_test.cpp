// The public headers bring no heavy ones along.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

namespace jampot {
namespace {

TEST(PublicHeaders, BringNoHeavyOnesAlong) {
  int headers = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(JAMPOT_SOURCE_DIR "/include")) {
    if (entry.path().extension() != ".hpp") continue;
    ++headers;
    std::ifstream file(entry.path());
    for (std::string line; std::getline(file, line);) {
      if (!line.starts_with("#include <")) continue;
      for (const char* heavy :
           {"Eigen", "nlohmann/json.hpp", "CLI", "toml++", "boost", "ceres", "oneapi", "fmt"})
        EXPECT_EQ(line.find(std::string("<") + heavy), std::string::npos) << entry.path() << ": " << line;
    }
  }
  EXPECT_GT(headers, 100);
}

// The library for command lines is read by one file; its code would cost every command seconds.
TEST(ToolHeaders, OneFileKnowsTheLibraryForCommandLines) {
  std::vector<std::string> readers;
  for (const auto& entry : std::filesystem::directory_iterator(JAMPOT_SOURCE_DIR "/src/tool")) {
    std::ifstream file(entry.path());
    for (std::string line; std::getline(file, line);) {
      if (line.starts_with("#include <CLI/")) readers.push_back(entry.path().filename().string());
      if (entry.path().extension() == ".hpp") {
        EXPECT_FALSE(line.starts_with("#include <nlohmann/")) << entry.path();
      }
    }
  }
  EXPECT_EQ(readers, std::vector<std::string>{"parser.cpp"});
}

}  // namespace
}  // namespace jampot
