// The seeds of the fuzz targets of figures and reports, and damaged copies of them (fuzz/README.md). What is
// wrong ends the program.
#include <gtest/gtest.h>

#include <filesystem>

#include "files/damage.hpp"
#include "jampot/files/text_file.hpp"
#include "pages.hpp"

namespace jampot {
namespace {

std::vector<std::string> seeds(const std::string& target) {
  std::vector<std::string> texts;
  for (const auto& entry : std::filesystem::directory_iterator(JAMPOT_SOURCE_DIR "/fuzz/seeds/" + target))
    texts.push_back(read_file(entry.path()));
  EXPECT_GT(texts.size(), 3u);
  return texts;
}

TEST(PageSeeds, TextsOfFiguresStandThereAsTheyAre) {
  std::mt19937_64 generator(5);
  for (const std::string& good : seeds("figure_texts")) {
    fuzz::figure_texts(good);
    for (int k = 0; k < 8; ++k) fuzz::figure_texts(test::damaged(good, generator));
  }
}

TEST(PageSeeds, TextsOfReportsMakeNoMarkup) {
  std::mt19937_64 generator(6);
  for (const std::string& good : seeds("report_texts")) {
    fuzz::report_texts(good);
    for (int k = 0; k < 100; ++k) fuzz::report_texts(test::damaged(good, generator));
  }
}

}  // namespace
}  // namespace jampot
