#pragma once
// The commands of a page as a reader pastes them.
#include <sstream>

#include "run_tool.hpp"

namespace jampot::test {

/// Files written with cat, and commands, long ones continued after a backslash. `find . | xargs jampot` and
/// the like are not among them.
struct Pasted {
  std::vector<std::pair<std::string, std::string>> files;  ///< name and text
  std::vector<std::string> commands;                       ///< without "jampot"
};

inline Pasted pasted(const std::string& page) {
  Pasted all;
  std::istringstream lines(read_file(std::string(JAMPOT_SOURCE_DIR "/") + page));
  bool fenced = false, code = false, continued = false;  // code of another language is not pasted
  const std::string cat = "cat > ", end = " <<'END'";
  for (std::string line; std::getline(lines, line);) {
    if (line.starts_with("```")) {
      fenced = !fenced;
      code = fenced && line == "```";
    }
    if (!code) continue;
    if (line.starts_with(cat) && line.ends_with(end)) {
      all.files.emplace_back(line.substr(cat.size(), line.size() - cat.size() - end.size()), "");
      while (std::getline(lines, line) && line != "END") all.files.back().second += line + "\n";
      continue;
    }
    line.erase(0, line.find_first_not_of(' '));
    if (!continued && !line.starts_with("jampot ")) continue;
    const bool more = line.ends_with('\\');
    if (more) line.pop_back();
    if (const std::size_t remark = line.find("  # "); remark != std::string::npos) line.resize(remark);
    if (continued) {
      all.commands.back() += line;
    } else {
      all.commands.push_back(line.substr(7));
    }
    continued = more;
  }
  return all;
}

/// A folder in which `jampot demo` ran and with the files that the pages make by other means.
inline void prepare_for_pages(const Workplace& workplace) {
  ASSERT_EQ(workplace.run("demo").status, 0);
  workplace.write("liquids.csv",
                  "x1,x2\n0.1,0.1\n0.1,0.5\n0.5,0.1\n0.33,0.33\n0.7,0.2\n");  // by printf in the tour
}

}  // namespace jampot::test
