// The public headers bring no heavy ones along.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <string>

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

}  // namespace
}  // namespace jampot
