#include "contenders.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "binary_tables.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot {

void add_sources(Figure& figure, const std::vector<Contender>& contenders) {
  const auto add = [&](const std::string& prefix, const std::string& source) {
    if (figure.footer.find(source) == std::string::npos) figure.footer += "; " + prefix + source;
  };
  for (const Contender& contender : contenders) {
    for (const PairParameters& pair : contender.mixture.parameters()) add(pair.model + ": ", pair.source);
    if (const Unifac* unifac = contender.mixture.unifac()) add("", unifac_source(unifac->table()));
  }
}

Json contenders_header(const std::string& command, const std::vector<Contender>& contenders) {
  Json json = answer_header(command, contenders.front().mixture);
  for (std::size_t k = 1; k < contenders.size(); ++k) {
    const Json other = answer_header(command, contenders[k].mixture);
    for (const Json& parameter : other["parameters"]) {
      if (std::find(json["parameters"].begin(), json["parameters"].end(), parameter) ==
          json["parameters"].end())
        json["parameters"].push_back(parameter);
    }
    json["models"]["compared"].push_back(contenders[k].label);
  }
  return json;
}

void add_deviations(const std::vector<MeasuredBeside>& beside, const std::vector<Contender>& contenders,
                    Answer& answer, std::vector<Table>& tables) {
  const bool compared = contenders.size() > 1;
  for (const MeasuredBeside& one : beside) {
    const std::string& label = contenders[one.contender].label;
    Json json = to_json(one.comparison);
    json["file"] = one.set;
    if (compared) json["liquid"] = label;
    (*answer.json)["measured"].push_back(std::move(json));
    tables.push_back(
        deviation_table(one.comparison, compared ? fmt::format("{}, {}", one.set, label) : one.set));
  }
}

void add_working(const std::vector<std::string>& lines, Answer& answer) {
  (*answer.json)["working"] = lines;
  answer.lines.insert(answer.lines.end(), lines.begin(), lines.end());
}

void add_models(Figure& figure, const std::vector<Contender>& contenders, const Notices& notices) {
  std::vector<std::string> labels;
  for (const Contender& contender : contenders) labels.push_back(contender.label);
  const std::string own = figure.footer;
  figure.footer = "liquid model: " + joined(labels, ", ");
  add_sources(figure, contenders);
  if (!own.empty()) figure.footer += "; " + own;
  for (const Notice& notice : notices) {
    if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end())
      figure.notices.push_back(notice.code);
  }
}

}  // namespace jampot
