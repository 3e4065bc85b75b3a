#pragma once
// Runs the built tool as a user would.
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <cstdlib>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <utility>
#include <vector>

#include "jampot/files/text_file.hpp"

namespace jampot::test {

struct Ran {
  int status = -1;
  std::string out, err;
};

/// A fresh folder in which the tool runs; it goes away with the object.
class Workplace {
 public:
  Workplace() {
    std::string pattern = (std::filesystem::temp_directory_path() / "jampot-tool-test-XXXXXX").string();
    folder_ = mkdtemp(pattern.data());
  }
  ~Workplace() { std::filesystem::remove_all(folder_); }
  Workplace(const Workplace&) = delete;
  Workplace& operator=(const Workplace&) = delete;

  const std::filesystem::path& folder() const { return folder_; }
  std::filesystem::path operator/(const std::string& name) const { return folder_ / name; }
  void write(const std::string& name, const std::string& text) const { write_file(folder_ / name, text); }
  std::string read(const std::string& name) const { return read_file(folder_ / name); }
  bool has(const std::string& name) const { return std::filesystem::exists(folder_ / name); }

  /// Runs `jampot ARGUMENTS`, the arguments as a shell reads them.
  Ran run(const std::string& arguments, const std::string& environment = "") const {
    return run_program(JAMPOT_TOOL, arguments, environment);
  }

  /// Runs another program there.
  Ran run_program(const std::string& program, const std::string& arguments = "",
                  const std::string& environment = "") const {
    const auto out = folder_ / ".out", err = folder_ / ".err";
    const std::string command = "cd '" + folder_.string() + "' && " + environment + " '" + program + "' " +
                                arguments + " >'" + out.string() + "' 2>'" + err.string() + "'";
    const int status = std::system(command.c_str());
    Ran ran{WIFEXITED(status) ? WEXITSTATUS(status) : -1, read_file(out), read_file(err)};
    std::filesystem::remove(out);
    std::filesystem::remove(err);
    return ran;
  }

  /// The demo's made-up data under a short name.
  void put_data() const {
    write("data.csv", read_file(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv"));
  }

 private:
  std::filesystem::path folder_;
};

/// The JSON of `jampot ARGUMENTS --json`, which must succeed and have what every answer has.
inline nlohmann::json json_answer(const Workplace& workplace, const std::string& arguments) {
  const Ran ran = workplace.run(arguments + " --json");
  EXPECT_EQ(ran.status, 0) << ran.err;
  const nlohmann::json parsed = nlohmann::json::parse(ran.out);
  for (const char* key : {"command", "substances", "models", "parameters", "notices"}) {
    EXPECT_TRUE(parsed.contains(key)) << key << " in " << arguments;
  }
  return parsed;
}

/// Requests with what their refusal must say: status 2, nothing on standard output.
inline void expect_refused(const Workplace& workplace,
                           const std::vector<std::pair<std::string, std::string>>& requests) {
  for (const auto& [arguments, said] : requests) {
    const Ran ran = workplace.run(arguments);
    EXPECT_EQ(ran.status, 2) << arguments << ran.out;
    EXPECT_EQ(ran.out, "");
    EXPECT_NE(ran.err.find(said), std::string::npos) << arguments << "\n" << ran.err;
  }
}

}  // namespace jampot::test
