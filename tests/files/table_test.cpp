#include "jampot/files/table.hpp"

#include <gtest/gtest.h>

#include <filesystem>

#include "jampot/basis/csv.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

Table sample() {
  return {"Sample",
          {{"T", Dimension::temperature, 2}, {"dT", Dimension::temperature, 2, true}, {"kind, or not"}},
          {{300.0, 0.5, std::string("a \"b\"")}, {400.0, std::monostate(), std::string("c")}}};
}

TEST(Table, AlignsAndConverts) {
  const std::string text = as_text(sample(), DisplayUnits{});
  EXPECT_EQ(text,
            "Sample\n"
            "T [degC]  dT [K]  kind, or not\n"
            "   26.85    0.50  a \"b\"\n"
            "  126.85          c\n");
}

TEST(Table, CsvReadsBack) {
  const CsvText csv = parse_csv(as_csv({sample()}, parse_display_units("K")), "t");
  EXPECT_EQ(csv.comments.at(0).text, "Sample");
  EXPECT_EQ(csv.rows.at(0).copied(), (std::vector<std::string>{"T [K]", "dT [K]", "kind, or not"}));
  EXPECT_EQ(csv.rows.at(1).copied(), (std::vector<std::string>{"300", "0.5", "a \"b\""}));
  EXPECT_EQ(csv.rows.at(2).fields[1], "");
}

TEST(TextFile, WritesWholeOrNotAtAll) {
  const std::filesystem::path folder = std::filesystem::temp_directory_path() / "jampot-text-file-test";
  std::filesystem::remove_all(folder);
  EXPECT_THROW(write_file(folder / "a.txt", "x"), RequestError);
  EXPECT_THROW(read_file(folder / "a.txt"), RequestError);
  std::filesystem::create_directories(folder);
  EXPECT_THROW(read_file(folder), RequestError);
  write_file(folder / "a.txt", "first");
  write_file(folder / "a.txt", "");
  EXPECT_EQ(read_file(folder / "a.txt"), "");
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder), {}), 1);  // no scratch file stays
  std::filesystem::remove_all(folder);
}

}  // namespace
}  // namespace jampot
