#include "jampot/files/job_toml.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/text.hpp"
#include "toml_reader.hpp"

namespace jampot {
namespace {

const std::vector<std::string>& mixture_keys() {
  static const std::vector<std::string> keys{
      "name",         "substances",     "liquid",        "vapour",         "parameters",
      "substance",    "missing-pairs",  "estimate-from", "interactions",   "saturation-fugacity",
      "poynting",     "translate",      "henry",         "estimate-range", "label",
      "non-volatile", "doubtful-groups"};
  return keys;
}

class JobReader {
 public:
  explicit JobReader(const std::string& file) : reader_(file) {}

  Job job(std::string_view text) {
    const toml::table root = reader_.parse(text);
    reader_.allow(root, {"title", "note", "report", "units", "mixture", "step"});
    Job job;
    job.file = reader_.file();
    job.title = optional_text(root, "title");
    job.note = optional_text(root, "note");
    job.units = optional_text(root, "units");
    if (const toml::node* node = root.get("report")) {
      job.reports = texts(*node, "report");
      job.report_line = line(*node);
    }
    if (const toml::node* node = root.get("mixture")) {
      if (node->is_string()) {
        job.mixture.push_back({"substances", {reader_.line_of(*node, "mixture")}, false, false, line(*node)});
      } else if (const toml::table* table = node->as_table()) {
        job.mixture = mixture(*table);
      } else {
        reader_.fail(*node, "'mixture' must be the name of a file or a table [mixture]");
      }
    }
    const toml::node& steps = reader_.require(root, "step");
    const toml::array* list = steps.as_array();
    if (list == nullptr || !list->is_array_of_tables())
      reader_.fail(steps, "steps are written as [[step]], one for each");
    for (const toml::node& node : *list) job.steps.push_back(step(*node.as_table(), job.steps));
    return job;
  }

  std::vector<JobSetting> mixture(const toml::table& table) {
    reader_.allow(table, mixture_keys());
    reader_.require(table, "substances");
    std::vector<JobSetting> list;
    for (const auto& [key, node] : table) {
      if (key.str() != "name") list.push_back(setting(std::string(key.str()), node));
    }
    return list;
  }

  std::vector<JobSetting> mixture_file(std::string_view text) { return mixture(reader_.parse(text)); }

 private:
  static int line(const toml::node& node) { return static_cast<int>(node.source().begin.line); }

  std::string optional_text(const toml::table& table, const std::string& key) const {
    const toml::node* node = table.get(key);
    if (node == nullptr) return "";
    return key == "note" ? reader_.text_of(*node, key) : reader_.line_of(*node, key);
  }

  // A number as it stands on a command line.
  std::string scalar(const toml::node& node, const std::string& key) const {
    if (const auto whole = node.as_integer()) return fmt::format("{}", whole->get());
    if (node.is_floating_point()) return fmt::format("{}", reader_.number_of(node, key));
    return reader_.line_of(node, key);
  }

  std::vector<std::string> texts(const toml::node& node, const std::string& key) const {
    std::vector<std::string> list;
    if (const toml::array* array = node.as_array()) {
      for (const toml::node& entry : *array) list.push_back(scalar(entry, key));
      if (list.empty()) reader_.fail(node, fmt::format("'{}' is an empty list", key));
    } else {
      list.push_back(scalar(node, key));
    }
    return list;
  }

  JobSetting setting(const std::string& key, const toml::node& node) const {
    JobSetting setting;
    setting.key = key;
    setting.line = line(node);
    if (const auto flag = node.as_boolean()) {
      setting.flag = true;
      setting.given = flag->get();
    } else {
      setting.values = texts(node, key);
    }
    return setting;
  }

  JobStep step(const toml::table& table, const std::vector<JobStep>& before) const {
    JobStep step;
    step.line = line(table);
    for (const auto& [key, node] : table) {  // what it misses may be there, misspelt
      if (table.get("command") == nullptr && edit_distance(lower_case(key.str()), "command") <= 2)
        reader_.fail(node, fmt::format("'{}' is not a key here. Did you mean 'command'?", key.str()));
    }
    step.command = reader_.line_of(reader_.require(table, "command"), "command");
    step.name = table.get("name") != nullptr ? optional_text(table, "name") : step.command;
    step.heading = optional_text(table, "heading");
    step.note = optional_text(table, "note");
    if (const toml::node* node = table.get("after")) step.after = texts(*node, "after");
    for (const JobStep& other : before) {
      if (other.name == step.name)
        reader_.fail(table, fmt::format("there is a step '{}' already (line {}); choose another name",
                                        step.name, other.line));
    }
    for (const auto& [key, node] : table) {
      const std::string name(key.str());
      if (name != "command" && name != "name" && name != "heading" && name != "note" && name != "after")
        step.settings.push_back(setting(name, node));
    }
    // In the order of the file, not of the alphabet.
    std::stable_sort(step.settings.begin(), step.settings.end(),
                     [](const JobSetting& a, const JobSetting& b) { return a.line < b.line; });
    return step;
  }

  TomlReader reader_;
};

}  // namespace

Job parse_job(std::string_view text, const std::string& file) {
  return JobReader(file).job(text);
}

std::vector<JobSetting> parse_mixture_file(std::string_view text, const std::string& file) {
  return JobReader(file).mixture_file(text);
}

}  // namespace jampot
