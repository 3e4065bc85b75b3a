#pragma once
// Another program, run to its end.
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// What a program left behind.
struct ProgramOutput {
  bool found = true;         ///< whether there is such a program
  bool interrupted = false;  ///< ended by a signal
  bool out_of_time = false;  ///< ended because it took longer than it may
  int status = 0;            ///< its exit status, where it ended by itself
  std::string out,           ///< standard output
      said;                  ///< standard error
};

/// What a program is given beside its words.
struct ProgramSetting {
  double seconds = 0;  ///< after which it is ended; 0: as long as it takes
  /// "NAME=VALUE" of each; without it, the environment of this program.
  std::optional<std::vector<std::string>> environment;
};

/// Runs `words[0]` (looked for in PATH where it has no slash) with the rest as its arguments and `in` as its
/// standard input. Nothing passes through a shell; the streams are files without names, so that neither side
/// waits for the other and an interruption leaves nothing behind. The program ends with the one that runs it.
ProgramOutput run_program(const std::vector<std::string>& words, std::string_view in = {},
                          const ProgramSetting& setting = {});

}  // namespace jampot
