#include "jampot/report/screen.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>

#include "fields.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/screen_figure.hpp"

namespace jampot {
namespace {

using Solvent = ScreenedSolvent;

std::string heading_of_capacity(SolventRole role) {
  switch (role) {
    case SolventRole::extraction:
      return "distribution coefficient (mass)";
    case SolventRole::entrainer:
      return "capacity (1 over the smaller infinite-dilution activity coefficient)";
    case SolventRole::absorbent:
      break;
  }
  return "x at 1 kPa";
}

std::string heading_of_selectivity(SolventRole role) {
  return role == SolventRole::entrainer ? "relative volatility in it" : "selectivity";
}

double volatility_of(const Solvent& solvent) {
  return solvent.volatility ? solvent.volatility->with_solvent : 0;
}

// A share in the JSON, a percentage in tables.
template <class Getter>
Field<Solvent> loss_field(const char* heading, Getter get) {
  Field<Solvent> field = number_field<Solvent>("loss", {heading, Dimension::number, 3}, get);
  field.cells = [get](const Solvent& s) { return std::vector<Cell>(1, Cell(100 * get(s))); };
  return field;
}

class ScreenAnswer {
 public:
  ScreenAnswer(const ScreenStudy& study, const ScreenAnswerOptions& options)
      : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = plain_header("screen");
    Json& json = *answer_.json;
    json["pair"] = {study_.pair[0].name, study_.pair[1].name};
    json["role"] = std::string(name_of(study_.role));
    json["T_K"] = study_.T_K;
    json["P_Pa"] = study_.P_Pa;
    for (const auto& [name, weight] : study_.weights)
      json["weights"].push_back({{"part", name}, {"weight", weight}});
    candidates();
    parts();
    left_out();
    lines();
    answer_.notices = study_.notices;
    draw();
    return std::move(answer_);
  }

 private:
  bool extraction() const { return study_.role == SolventRole::extraction; }

  Fields<Solvent> fields() const {
    Fields<Solvent> list{
        text_field<Solvent>("name", "candidate", [](const Solvent& s) { return s.substance.name; }),
        number_field<Solvent>("score", {"score", Dimension::number, 3}, member_of(&Solvent::score))};
    if (extraction()) {
      list.push_back(number_field<Solvent>("distribution", {"distribution (mass)", Dimension::number, 3},
                                           [](const Solvent& s) { return s.extraction->distribution; }));
      list.push_back(number_field<Solvent>("selectivity", {"selectivity", Dimension::number, 1},
                                           [](const Solvent& s) { return s.extraction->selectivity; }));
      list.push_back(loss_field("loss [mass %]", [](const Solvent& s) { return s.extraction->loss; }));
      list.push_back(
          json_field<Solvent>("carrier_in_solvent", [](const Solvent& s) { return s.extraction->carrier; }));
      list.push_back(json_field<Solvent>("capacity", [](const Solvent& s) { return s.dilute.capacity; }));
      list.push_back(json_field<Solvent>("from_handbook", [](const Solvent& s) {
        Json names = Json::array();
        if (s.handbook_distribution) names.push_back("distribution");
        if (s.handbook_solubility) names.push_back("solubility");
        return names;
      }));
      list.push_back(json_field_where<Solvent>([](const Solvent& s) { return s.predicted.has_value(); },
                                               "predicted",
                                               [](const Solvent& s) {
                                                 return Json{{"distribution", s.predicted->distribution},
                                                             {"selectivity", s.predicted->selectivity},
                                                             {"loss", s.predicted->loss},
                                                             {"carrier_in_solvent", s.predicted->carrier}};
                                               }));
    } else if (study_.role == SolventRole::entrainer) {
      list.push_back(number_field<Solvent>(
          "relative_volatility", {"relative volatility in it", Dimension::number, 2}, volatility_of));
      list.push_back(json_field<Solvent>("relative_volatility_without",
                                         [](const Solvent& s) { return s.volatility->without_solvent; }));
      list.push_back(number_field<Solvent>("selectivity", {"gamma ratio", Dimension::number, 3},
                                           [](const Solvent& s) { return s.dilute.selectivity; }));
      list.push_back(number_field<Solvent>("capacity", {"capacity", Dimension::number, 3},
                                           [](const Solvent& s) { return s.dilute.capacity; }));
    } else {
      list.push_back(
          number_field<Solvent>("capacity", {"x at 1 kPa", Dimension::number, 4},
                                [](const Solvent& s) { return 1000 * s.absorption->solubility_per_Pa; }));
      list.push_back(number_field<Solvent>("selectivity", {"selectivity", Dimension::number, 2},
                                           [](const Solvent& s) { return s.absorption->selectivity; }));
      list.push_back(loss_field("loss [mole %]", [](const Solvent& s) { return s.absorption->loss; }));
    }
    list.push_back(json_field<Solvent>("gamma_inf", [](const Solvent& s) { return s.dilute.gamma; }));
    list.push_back(number_field<Solvent>("boiling_gap_K", {"boiling gap [K]", Dimension::number, 1},
                                         member_of(&Solvent::boiling_gap_K)));
    if (extraction())
      list.push_back(maybe_field<Solvent>("density_difference_kg_m3",
                                          {"density gap [kg/m3]", Dimension::number, 0},
                                          member_of(&Solvent::density_difference_kg_m3)));
    Field<Solvent> azeotropes{"azeotropes",
                              {{"azeotropes"}},
                              [](const Solvent& s) {
                                Json all = Json::array();
                                for (const NewAzeotrope& one : s.azeotropes)
                                  all.push_back({{"members", one.members},
                                                 {"T_K", one.T_K},
                                                 {"heterogeneous", one.heterogeneous},
                                                 {"from_handbook", one.from_handbook}});
                                return all;
                              },
                              [](const Solvent& s) {
                                return std::vector<Cell>(1, Cell(s.azeotropes_known || !s.azeotropes.empty()
                                                                     ? fmt::format("{}", s.azeotropes.size())
                                                                     : std::string("?")));
                              }};
    list.push_back(std::move(azeotropes));
    list.push_back(
        {"facts",
         {{"facts"}},
         [](const Solvent& s) {
           return Json{{"judged", s.facts}, {"agreeing", s.facts_agreeing}, {"taken", s.facts_taken}};
         },
         [](const Solvent& s) {
           return std::vector<Cell>(
               1, Cell(s.facts == 0 ? std::string("-")
                       : s.facts_taken == 0
                           ? fmt::format("{} of {}", s.facts_agreeing, s.facts)
                           : fmt::format("{} of {}, {} taken", s.facts_agreeing, s.facts, s.facts_taken)));
         }});
    list.push_back(json_field_where<Solvent>([](const Solvent& s) { return !s.miscible_kin.empty(); },
                                             "miscible_kin", member_of(&Solvent::miscible_kin)));
    list.push_back(text_field<Solvent>("model", "model", member_of(&Solvent::model)));
    list.push_back(text_field<Solvent>("verdict", "disadvantages", member_of(&Solvent::verdict)));
    list.push_back(json_field<Solvent>("map", member_of(&Solvent::map_class)));
    list.push_back(json_field<Solvent>("on_front", member_of(&Solvent::on_front)));
    list.push_back(json_field<Solvent>("parts", [](const Solvent& s) {
      Json parts = Json::array();
      for (const ScorePart& part : s.parts)
        parts.push_back({{"part", part.name},
                         {"value", part.value},
                         {"weight", part.weight},
                         {"shortfall", part.shortfall}});
      return parts;
    }));
    list.push_back(json_field<Solvent>("reactions", [](const Solvent& s) {
      Json all = Json::array();
      for (const Reaction& reaction : s.reactions)
        all.push_back({{"with", reaction.with},
                       {"products", reaction.products},
                       {"readiness", std::string(name_of(reaction.readiness))}});
      return all;
    }));
    list.push_back(json_field<Solvent>("notices", [](const Solvent& s) {
      Json all = Json::array();
      for (const Notice& notice : s.notices) all.push_back({{"code", notice.code}, {"text", notice.text}});
      return all;
    }));
    return list;
  }

  void candidates() {
    const Fields<Solvent> all = fields();
    std::string title;
    switch (study_.role) {
      case SolventRole::extraction:
        title = fmt::format("Solvents to extract {} from {}, at {:.1f} degC", study_.pair[0].name,
                            study_.pair[1].name, study_.T_K - celsius_zero);
        break;
      case SolventRole::entrainer:
        title = fmt::format("Entrainers for {} and {}, at {:.4g} kPa and {:.1f} degC", study_.pair[0].name,
                            study_.pair[1].name, study_.P_Pa / 1000, study_.T_K - celsius_zero);
        break;
      case SolventRole::absorbent:
        title = fmt::format("Absorbents of {} from {}, at {:.1f} degC", study_.pair[0].name,
                            study_.pair[1].name, study_.T_K - celsius_zero);
    }
    Table whole = table_of(title, all, study_.solvents);
    Table shown = whole;
    const auto most = static_cast<std::size_t>(std::max(1, options_.shown));
    if (shown.rows.size() > most) {
      shown.title += fmt::format(", the first {} of {}{}", most, shown.rows.size(), all_rows_are_written);
      shown.rows.resize(most);
    }
    for (const Solvent& solvent : study_.solvents)
      (*answer_.json)["candidates"].push_back(json_of(all, solvent));
    if (study_.solvents.empty()) (*answer_.json)["candidates"] = Json::array();
    answer_.tables.push_back(std::move(whole));
    answer_.screen.push_back(std::move(shown));
  }

  // What the score is made of.
  void parts() {
    Table table{"Parts of the score, 0 to 1, and their weights", {{"candidate"}}, {}};
    for (const auto& [name, weight] : study_.weights)
      table.columns.push_back({fmt::format("{} ({:.2f})", name, weight), Dimension::number, 2});
    for (const Solvent& solvent : study_.solvents) {
      std::vector<Cell> row{solvent.substance.name};
      for (const ScorePart& part : solvent.parts) row.emplace_back(part.value);
      table.rows.push_back(std::move(row));
    }
    answer_.tables.push_back(std::move(table));
  }

  void left_out() {
    Table table{"Left out", {{"substance"}, {"reason"}}, {}};
    (*answer_.json)["left_out"] = Json::array();
    for (const UnscreenedSolvent& one : study_.left_out) {
      table.rows.push_back({one.name, one.reason});
      (*answer_.json)["left_out"].push_back({{"name", one.name}, {"reason", one.reason}});
    }
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
  }

  void lines() {
    std::vector<std::string> weights;
    for (const auto& [name, weight] : study_.weights)
      weights.push_back(fmt::format("{} {:.2f}", name, weight));
    answer_.lines.push_back("score: geometric mean of " + joined(weights, ", "));
    if (!study_.solvents.empty()) {
      const Solvent& best = study_.solvents.front();
      answer_.lines.push_back(
          fmt::format("best: {} ({}; {})", best.substance.name, best.map_class, best.verdict));
    }
    if (study_.role == SolventRole::entrainer && !study_.solvents.empty())
      answer_.lines.push_back(fmt::format(
          "relative volatility of {} over {} without a solvent: {:.2f} where it is nearest to 1",
          study_.pair[0].name, study_.pair[1].name, study_.solvents.front().volatility->without_solvent));
    if (extraction())
      answer_.lines.push_back(fmt::format(
          "distribution coefficients of {} candidates and solubilities of {} are from handbooks, the others "
          "predicted",
          std::count_if(study_.solvents.begin(), study_.solvents.end(),
                        [](const Solvent& s) { return s.handbook_distribution; }),
          std::count_if(study_.solvents.begin(), study_.solvents.end(),
                        [](const Solvent& s) { return s.handbook_solubility; })));
    std::map<std::string, int> reasons;
    for (const UnscreenedSolvent& one : study_.left_out) {
      const bool predicted = one.reason.find("table of") != std::string::npos;
      ++reasons[predicted ? "groups or interactions missing" : one.reason];
    }
    std::vector<std::string> parts;
    for (const auto& [reason, count] : reasons) parts.push_back(fmt::format("{} ({})", count, reason));
    if (!parts.empty()) answer_.lines.push_back("left out: " + joined(parts, ", "));
  }

  void draw() {
    std::vector<ScreenedSpot> spots;
    for (const Solvent& solvent : study_.solvents)
      spots.push_back({solvent.substance.short_name(), capacity_of(solvent), selectivity_of(solvent),
                       solvent.on_front, !solvent.miscible_kin.empty()});
    if (spots.size() < 2) {
      answer_.no_figure = "a figure compares at least two candidates";
      return;
    }
    const std::string upwards = study_.role == SolventRole::entrainer
                                    ? heading_of_selectivity(study_.role) + ", or its reciprocal"
                                    : heading_of_selectivity(study_.role);
    answer_.figure = screen_figure(spots, heading_of_capacity(study_.role), upwards);
    answer_.figure->title = answer_.tables.front().title;
    std::map<std::string, int> models;
    for (const Solvent& solvent : study_.solvents) ++models[solvent.model];
    std::vector<std::string> names;
    for (const auto& [name, count] : models) names.push_back(fmt::format("{} ({})", name, count));
    answer_.figure->footer = "liquid model: " + joined(names, ", ") + "; infinite dilution";
    for (const Notice& notice : answer_.notices) answer_.figure->notices.push_back(notice.code);
  }

  const ScreenStudy& study_;
  const ScreenAnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const ScreenStudy& study, const ScreenAnswerOptions& options) {
  return ScreenAnswer(study, options).told();
}

}  // namespace jampot
