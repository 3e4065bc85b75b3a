// Texts of a user stay texts, wherever they are shown: nothing runs, nothing is markup, nothing is a formula.
#include <fmt/format.h>

#include <pugixml.hpp>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

// What a shell, gnuplot, a browser or a spreadsheet might take for more than text. Each would leave a file.
const std::vector<std::string>& hostile() {
  static const std::vector<std::string> texts{"`touch PWN`",
                                              "\"; system('touch PWN'); \"",
                                              "'.system(\"touch PWN\").'",
                                              "$(touch PWN)",
                                              "!touch PWN",
                                              "{/Symbol a}_x^2 %g @PWN",
                                              "it''s \\'quoted\\' \\\\n",
                                              "</text><script>alert(1)</script>",
                                              "<!--<script>",
                                              "a&b <b>bold</b>",
                                              "] | set label 'x'",
                                              "EOD"};
  return texts;
}

std::string shell_quoted(const std::string& text) {
  std::string out = "'";
  for (const char c : text) out += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return out + "'";
}

// All text of an SVG, which must be well-formed.
std::string text_of_svg(const std::string& svg) {
  pugi::xml_document document;
  EXPECT_TRUE(document.load_buffer(svg.data(), svg.size())) << svg.substr(0, 200);
  std::string all;
  struct Walker : pugi::xml_tree_walker {
    std::string* text = nullptr;
    bool for_each(pugi::xml_node& node) override {
      if (node.type() == pugi::node_pcdata) *text += node.value();
      return true;
    }
  } walker;
  walker.text = &all;
  document.traverse(walker);
  return all;
}

std::string without_blanks(std::string text) {  // a figure may show a non-breaking space
  std::erase_if(text,
                [](char c) { return static_cast<unsigned char>(c) <= ' ' || c == '\xC2' || c == '\xA0'; });
  return text;
}

void expect_shown(const Workplace& workplace, const std::string& figure, const std::string& text) {
  EXPECT_NE(without_blanks(text_of_svg(workplace.read(figure))).find(without_blanks(text)), std::string::npos)
      << text << " in " << figure;
}

void expect_nothing_ran(const Workplace& workplace) {
  for (const auto& entry : std::filesystem::recursive_directory_iterator(workplace.folder()))
    EXPECT_EQ(entry.path().filename().string().find("PWN"), std::string::npos) << entry.path();
}

TEST(SafeText, MarksAndLabelsOfFigures) {
  const Workplace workplace;
  for (const std::string& text : hostile()) {
    const Ran triangle = workplace.run(
        "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --tie-lines 4 --figure t.svg --mark " +
        shell_quoted(text + ": water=0.3, ethanol=0.2"));
    EXPECT_EQ(triangle.status, 0) << text << triangle.err;
    expect_shown(workplace, "t.svg", text);
    const Ran corner = workplace.run(
        "residue ethanol acetone water --liquid unifac --pressure '1 atm' --curves 2 --figure r.svg "
        "--label " +
        shell_quoted("ethanol=" + text));
    EXPECT_EQ(corner.status, 0) << text << corner.err;
    const Ran curve = workplace.run(
        "txy ethanol water --liquid unifac --pressure '1 atm' --points 11 --figure c.svg --label " +
        shell_quoted("ethanol=" + text));
    EXPECT_EQ(curve.status, 0) << text << curve.err;
    text_of_svg(workplace.read("c.svg"));
    text_of_svg(workplace.read("r.svg"));
    expect_nothing_ran(workplace);
  }
}

TEST(SafeText, SourcesOfParametersThatAreDrawn) {
  const Workplace workplace;
  for (const std::string& text : hostile()) {
    if (text.find('\'') != std::string::npos) continue;  // TOML's literal strings hold none
    workplace.write("p.pairs.toml",
                    fmt::format("model = 'nrtl'\nsource = '{}'\n[[pair]]\nbetween = ['ethanol', 'water']\n"
                                "tau_12 = -0.1\ntau_21 = 1.6\nalpha = 0.3\n",
                                text));
    for (const char* command :
         {"txy ethanol water --pressure '1 atm'", "pxy ethanol water --temperature '50 degC'",
          "xy ethanol water --pressure '1 atm'", "gamma ethanol water --temperature '50 degC'",
          "flash ethanol water --pressure '1 atm' --temperature '80 to 90 by 5 degC' --feed "
          "'ethanol=0.3, water=0.7'"}) {
      const Ran ran = workplace.run(std::string(command) + " --parameters p.pairs.toml --figure f.svg");
      EXPECT_EQ(ran.status, 0) << command << ran.err;
      expect_shown(workplace, "f.svg", text);
      expect_nothing_ran(workplace);
    }
  }
}

TEST(SafeText, NamesOfFilesAndOwnSubstances) {
  const Workplace workplace;
  for (const std::string& text :
       {std::string("`touch PWN` own"), std::string("own '; system \"touch PWN\"")}) {
    const std::string name = shell_quoted(text);
    ASSERT_EQ(workplace
                  .run("define " + name + " --groups 'CH3=2, CH2=3, OH=1' --boiling-point '120 degC' --out " +
                       shell_quoted(text + ".substance.toml"))
                  .status,
              0);
    const Ran ran =
        workplace.run("saturation " + name + " --substance " + shell_quoted(text + ".substance.toml") +
                      " --temperature '50 to 100 by 10 degC' --figure " + shell_quoted(text + ".svg"));
    EXPECT_EQ(ran.status, 0) << ran.err;
    expect_shown(workplace, text + ".svg", text);
    for (const auto& entry : std::filesystem::directory_iterator(workplace.folder()))
      EXPECT_NE(entry.path().filename(), "PWN");
  }
}

TEST(SafeText, TablesOfMarksAndLabelsOfFiles) {
  const Workplace workplace;
  workplace.write("marks.csv", "text,x1,x2\n`touch PWN`,0.3,0.2\n\"\"\"; !touch PWN\",0.2,0.2\n");
  workplace.write("m.mixture.toml",
                  "substances = ['water', 'ethanol', 'ethyl acetate']\nlabel = ['water=`touch PWN`']\n");
  const Ran ran = workplace.run(
      "ternary m.mixture.toml --temperature '25 degC' --tie-lines 4 --mark-file marks.csv --figure t.svg");
  EXPECT_EQ(ran.status, 0) << ran.err;
  expect_shown(workplace, "t.svg", "`touch PWN`");
  workplace.write(
      "j.job.toml",
      "title = '`touch PWN`'\nreport = 'r.html'\n[mixture]\nsubstances = ['ethanol', 'water']\n"
      "liquid = 'unifac'\nlabel = ['ethanol=`touch PWN`']\n[[step]]\ncommand = 'txy'\npressure = '1 "
      "atm'\nfigure = 'j.svg'\n");
  EXPECT_EQ(workplace.run("job j.job.toml").status, 0);
  text_of_svg(workplace.read("j.svg"));
  expect_nothing_ran(workplace);
}

TEST(SafeText, StartFilesAndVariablesOfGnuplotChangeNothing) {
  const Workplace workplace;
  const std::string request = "txy ethanol water --liquid unifac --pressure '1 atm' --points 11 --figure ";
  ASSERT_EQ(workplace.run(request + "plain.svg").status, 0);
  workplace.write(".gnuplot", "!touch PWN\nset title 'not ours'\nset xrange [0:2]\n");
  ASSERT_EQ(workplace.run(request + "home.svg", "HOME=$PWD GNUTERM=dumb GNUPLOT_LIB=$PWD").status, 0);
  EXPECT_EQ(workplace.read("plain.svg"), workplace.read("home.svg"));
  expect_nothing_ran(workplace);
}

TEST(SafeText, APdfIsTheSameInEveryTimeZone) {
  const Workplace workplace;
  const std::string request = "txy ethanol water --liquid unifac --pressure '1 atm' --points 11 --figure ";
  ASSERT_EQ(workplace.run(request + "a.pdf", "TZ=UTC").status, 0);
  ASSERT_EQ(workplace.run(request + "b.pdf", "TZ=Asia/Tokyo").status, 0);
  EXPECT_TRUE(workplace.read("a.pdf") == workplace.read("b.pdf"));
}

// A program in the place of gnuplot that says it went well and drew nothing.
TEST(SafeText, APictureThatIsNoneIsNotKept) {
  const Workplace workplace;
  std::filesystem::create_directory(workplace / "bin");
  for (const char* drawn : {"", "<svg><text>half", "Warning: something"}) {
    workplace.write("bin/gnuplot", fmt::format("#!/bin/sh\nprintf '%s' '{}'\n", drawn));
    std::filesystem::permissions(workplace / "bin/gnuplot", std::filesystem::perms::owner_all);
    const Ran ran = workplace.run("txy ethanol water --liquid unifac --pressure '1 atm' --figure f.svg",
                                  "PATH=$PWD/bin:$PATH");
    EXPECT_EQ(ran.status, 1) << drawn;
    EXPECT_NE(ran.err.find("could not draw"), std::string::npos) << ran.err;
    EXPECT_FALSE(workplace.has("f.svg"));
  }
}

// Whatever ends the tool ends the program that draws for it.
TEST(SafeText, DrawingEndsWithTheTool) {
  const Workplace workplace;
  std::filesystem::create_directory(workplace / "bin");
  workplace.write("bin/gnuplot", "#!/bin/sh\necho $$ > pid\nexec sleep 50\n");
  std::filesystem::permissions(workplace / "bin/gnuplot", std::filesystem::perms::owner_all);
  const std::string killed =
      "cd '" + workplace.folder().string() +
      "' && PATH=$PWD/bin:$PATH timeout -s KILL 2 '" JAMPOT_TOOL
      "' txy ethanol water --liquid unifac --pressure '1 atm' --figure f.svg > out 2>&1; sleep 0.3; "
      "[ ! -e /proc/$(cat pid) ] || grep -q 'State:.Z' /proc/$(cat pid)/status";  // ended, if not yet fetched
  EXPECT_EQ(std::system(killed.c_str()), 0);
  EXPECT_TRUE(workplace.has("pid"));
  EXPECT_FALSE(workplace.has("f.svg"));
}

TEST(SafeText, TheGateRefusesWhatIsNotReadable) {
  const Workplace workplace;
  workplace.put_data();
  const std::string data = workplace.read("data.csv");
  workplace.write("latin.csv", "# source: M\xFCller\n" + data);
  workplace.write("escape.csv", "# source: \x1B[31mred\n" + data);
  workplace.write("utf16.csv", std::string("\xFF\xFE#\0s\0", 6));
  workplace.write("latin.pairs.toml", "model = 'nrtl'\nsource = 'M\xFCller'\n");
  workplace.write("bell.pairs.toml", "model = \"nrtl\"\nsource = \"a\\u0007b\"\n");
  workplace.write("lines.pairs.toml", "model = \"nrtl\"\nsource = \"a\\nb\"\n");
  workplace.write("turned.job.toml", "title = '\xE2\x80\xAE'\n[[step]]\ncommand = 'find'\nabout = 'x'\n");
  workplace.write("latin.xml",
                  "<?xml version='1.0' encoding='ISO-8859-1'?>\n<DataReport>\xFC</DataReport>\n");
  const std::string txy = "txy MTBE methanol --pressure '1 atm' --parameters ";
  expect_refused(workplace,
                 {{"data latin.csv", "latin.csv, line 1: this is not UTF-8; a text in Latin-1"},
                  {"regress escape.csv", "escape.csv, line 1: the character U+001B"},
                  {"data utf16.csv", "UTF-16"},
                  {txy + "latin.pairs.toml", "line 2: this is not UTF-8"},
                  {txy + "bell.pairs.toml", "line 2, column source: the character U+0007"},
                  {txy + "lines.pairs.toml", "line 2: 'source' must be a text in one line"},
                  {"job turned.job.toml", "line 1: the character U+202E"},
                  {"data latin.xml", "latin.xml, line 2: this is not UTF-8"},
                  {"find $(printf 'a\\033[31mb')", "word 2 of the command line"},
                  {"find $(printf '\\374ber')", "not UTF-8"},
                  {"txy MTBE methanol --liquid unifac --pressure '1 atm' --label \"MTBE=$(printf 'a\\nb')\"",
                   "U+000A"}});
}

TEST(SafeText, CellsAreNoFormulas) {
  const Workplace workplace;
  ASSERT_EQ(workplace
                .run("txy ethanol water --liquid unifac --pressure '1 atm' --points 11 --csv t.csv --label "
                     "'ethanol==cmd|calc' --label 'water=@SUM(A1)'")
                .status,
            0);
  for (const std::string& line : [&] {
         std::vector<std::string> lines(1);
         for (const char c : workplace.read("t.csv"))
           c == '\n' ? lines.emplace_back() : lines.back() += c, void();
         return lines;
       }()) {
    std::string cell;
    for (const char c : line + ",") {
      if (c != ',') {
        cell += c;
        continue;
      }
      const bool number = !cell.empty() && cell.find_first_not_of("0123456789.+-e") == std::string::npos;
      EXPECT_TRUE(cell.empty() || number || std::string("=+-@").find(cell.front()) == std::string::npos)
          << line;
      cell.clear();
    }
  }
}

}  // namespace
}  // namespace jampot::test
