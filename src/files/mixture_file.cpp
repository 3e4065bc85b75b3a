// Mixture files among the names of a command.
#include <fmt/format.h>

#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/files/job_toml.hpp"
#include "jampot/files/mixture_words.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

class Expansion {
 public:
  Expansion(MixtureWords& options, const std::string& file) : options_(options), file_(file) {}

  void run() {
    const MixtureWords defaults;
    options_.names.clear();
    for (const JobSetting& setting : parse_mixture_file(read_file(file_), file_)) {
      const std::string& key = setting.key;
      if (key == "substances") {
        options_.names = list(setting);
      } else if (key == "parameters") {
        if (options_.parameter_files.empty()) options_.parameter_files = beside(list(setting));
      } else if (key == "substance") {
        for (std::string& file : beside(list(setting))) options_.substance_files.push_back(std::move(file));
      } else if (key == "label") {
        for (const std::string& label : list(setting)) options_.labels.push_back(label);
      } else if (key == "henry") {
        for (const std::string& constant : list(setting)) options_.henry.push_back(constant);
      } else if (key == "non-volatile") {
        for (const std::string& name : list(setting)) options_.non_volatile.push_back(name);
      } else if (key == "translate") {
        if (!setting.flag) fail(setting, "'translate' is either true or false");
        options_.vapour.translated = options_.vapour.translated || setting.given;
      } else if (key == "interactions") {
        if (options_.vapour.interactions.empty())
          options_.vapour.interactions = beside(list(setting)).front();
      } else {
        for (const auto& [name, value, standard] :
             {std::tuple("liquid", &options_.liquid, &defaults.liquid),
              std::tuple("vapour", &options_.vapour.model, &defaults.vapour.model),
              std::tuple("missing-pairs", &options_.missing_pairs, &defaults.missing_pairs),
              std::tuple("doubtful-groups", &options_.doubtful_groups, &defaults.doubtful_groups),
              std::tuple("estimate-from", &options_.estimate_from, &defaults.estimate_from),
              std::tuple("estimate-range", &options_.estimate_range, &defaults.estimate_range),
              std::tuple("saturation-fugacity", &options_.vapour.saturation_fugacity,
                         &defaults.vapour.saturation_fugacity),
              std::tuple("poynting", &options_.vapour.poynting, &defaults.vapour.poynting)}) {
          if (key == name && *value == *standard) *value = one(setting);
        }
      }
    }
  }

 private:
  [[noreturn]] void fail(const JobSetting& setting, const std::string& what) const {
    throw RequestError(Place{file_, setting.line, {}}, what);
  }
  std::vector<std::string> list(const JobSetting& setting) const {
    if (setting.flag) fail(setting, fmt::format("'{}' needs a text or a list of texts", setting.key));
    return setting.values;
  }
  std::string one(const JobSetting& setting) const {
    if (list(setting).size() != 1) fail(setting, fmt::format("'{}' has one value", setting.key));
    return setting.values.front();
  }
  // Files are named from where the mixture file stands.
  std::vector<std::string> beside(std::vector<std::string> files) const {
    for (std::string& file : files) file = (fs::path(file_).parent_path() / file).string();
    return files;
  }

  MixtureWords& options_;
  std::string file_;
};

}  // namespace

void MixtureWords::expand() {
  if (names.size() != 1 || !names.front().ends_with(".mixture.toml")) return;
  const std::string file = names.front();
  Expansion(*this, file).run();
}

MixtureSpec read_mixture_file(const std::string& file) {
  MixtureWords words;
  words.names = {file};
  words.expand();
  return words.spec();
}

}  // namespace jampot
