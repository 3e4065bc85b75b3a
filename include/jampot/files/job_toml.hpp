#pragma once
// Jobs and mixtures as files: what stands in them, before anybody knows what it means.
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// "key = value" of a file; a number keeps the text it was written as. A list has several values, true is a
/// flag.
struct JobSetting {
  std::string key;                  ///< name of the option
  std::vector<std::string> values;  ///< as written
  bool flag = false;                ///< written as true or false
  bool given = false;               ///< of a flag: true
  int line = 0;                     ///< line in the file; 0: none
};

/// One command with its options.
struct JobStep {
  std::string name;                  ///< what others call it; the command where it has no name of its own
  std::string command;               ///< name of the command
  std::string heading;               ///< in the report; the name where there is none
  std::string note;                  ///< said in the report before the results
  std::vector<std::string> after;    ///< steps that must be done before, beside those whose files it reads
  std::vector<JobSetting> settings;  ///< in the order of the file
  int line = 0;                      ///< line in the file; 0: none
};

/// A whole piece of work as it stands in its file.
struct Job {
  std::string file,                  ///< name of the file
      title,                         ///< heading of the report
      note,                          ///< paragraph of the report
      units;                         ///< units of all steps
  std::vector<std::string> reports;  ///< files to write
  int report_line = 0;               ///< line of that setting
  std::vector<JobSetting> mixture;   ///< for steps that name no substances of their own
  std::vector<JobStep> steps;        ///< in the order of the file
};

/// Reads a *.job.toml (docs/files.md). Names of steps are unique.
/// @throws RequestError with line and key, and the nearest key that is allowed
Job parse_job(std::string_view text, const std::string& file);

/// Reads a *.mixture.toml. @throws RequestError as above
std::vector<JobSetting> parse_mixture_file(std::string_view text, const std::string& file);

}  // namespace jampot
