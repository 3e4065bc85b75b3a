// The seeds of the fuzz targets and damaged copies of them, through every reader (fuzz/README.md).
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>

#include "damage.hpp"
#include "jampot/files/text_file.hpp"
#include "readers.hpp"

namespace jampot {
namespace {

class Seeds : public ::testing::TestWithParam<std::string> {};

TEST_P(Seeds, AndWhatIsLikeThemAreReadOrRefused) {
  const fuzz::Reader reader = fuzz::readers().at(GetParam());
  std::vector<std::filesystem::path> seeds;
  for (const auto& entry : std::filesystem::directory_iterator(
           std::filesystem::path(JAMPOT_SOURCE_DIR "/fuzz/seeds") / GetParam()))
    seeds.push_back(entry.path());
  ASSERT_FALSE(seeds.empty());
  std::sort(seeds.begin(), seeds.end());
  std::mt19937_64 generator(7);
  int accepted = 0, refused = 0;
  for (const auto& seed : seeds) {
    const std::string good = read_file(seed);
    accepted += fuzz::read_or_refuse(reader, good);
    for (int k = 0; k < 200; ++k) refused += !fuzz::read_or_refuse(reader, test::damaged(good, generator));
  }
  EXPECT_GT(accepted, 0);
  EXPECT_GT(refused, 0);
}

std::vector<std::string> names() {
  std::vector<std::string> all;
  for (const auto& [name, reader] : fuzz::readers()) all.push_back(name);
  return all;
}

INSTANTIATE_TEST_SUITE_P(Readers, Seeds, ::testing::ValuesIn(names()),
                         [](const auto& name) { return name.param; });

}  // namespace
}  // namespace jampot
