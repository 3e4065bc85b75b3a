#include "jampot/job/file_use.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/job_toml.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

bool is_file(const fs::path& path) {
  std::error_code failed;
  return fs::is_regular_file(path, failed);
}

}  // namespace

bool writes_file(const std::string& option) {
  static const std::vector<std::string> options{"out", "figure", "csv", "xlsx", "table", "report"};
  return std::find(options.begin(), options.end(), option) != options.end();
}

std::vector<std::string> possible_files(const std::string& value) {
  std::vector<std::string> words{value};
  for (std::string& piece : split(value, ',')) {
    // A data set of a ThermoML file is named by its number behind the file: "data.xml#2".
    const std::size_t mark = piece.rfind(".xml#");
    if (mark != std::string::npos) piece.resize(mark + 4);
    if (piece != value && !piece.empty()) words.push_back(std::move(piece));
  }
  return words;
}

bool same_file(const fs::path& a, const fs::path& b) {
  std::error_code failed;
  if (fs::equivalent(a, b, failed) && !failed) return true;
  const fs::path whole_a = fs::weakly_canonical(fs::absolute(a, failed), failed);
  if (failed) return a == b;
  const fs::path whole_b = fs::weakly_canonical(fs::absolute(b, failed), failed);
  return failed ? a == b : whole_a == whole_b;
}

std::vector<std::string> named_in_mixture(const std::string& mixture_file, const fs::path& path) {
  std::vector<std::string> words;
  try {
    for (const JobSetting& setting : parse_mixture_file(read_file(path), mixture_file)) {
      for (const std::string& value : setting.values)
        words.push_back((fs::path(mixture_file).parent_path() / value).string());
    }
  } catch (const RequestError&) {
    words.clear();
  }
  return words;
}

std::vector<std::string> files_in(const std::string& value) {
  std::vector<std::string> files;
  for (std::string& word : possible_files(value)) {
    if (!is_file(word)) continue;
    if (word.ends_with(".mixture.toml")) {
      for (std::string& other : named_in_mixture(word, word)) {
        if (is_file(other)) files.push_back(std::move(other));
      }
    }
    files.push_back(std::move(word));
  }
  return files;
}

void demand_separate(const FileUse& use) {
  for (std::size_t k = 0; k < use.writes.size(); ++k) {
    const std::string& written = use.writes[k];
    std::error_code failed;
    const fs::file_status status = fs::status(written, failed);
    if (fs::exists(status) && !fs::is_regular_file(status))
      continue;  // a pipe or a terminal takes many texts
    for (const std::string& read : use.reads) {
      if (same_file(written, read))
        throw RequestError(fmt::format(
            "'{}' is an input of this request and would be overwritten; give the output another name",
            written));
    }
    for (std::size_t other = 0; other < k; ++other) {
      if (same_file(written, use.writes[other]))
        throw RequestError(fmt::format("'{}' and '{}' are one file; give each output its own name",
                                       use.writes[other], written));
    }
  }
}

}  // namespace jampot
