#include "jampot/report/route.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/draw/looks.hpp"

namespace jampot {
namespace {

class RouteAnswer {
 public:
  RouteAnswer(const RouteStudy& study, const ResidueAnswerOptions& options)
      : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("route", study_.map.contenders);
    Json& json = *answer_.json;
    json["P_Pa"] = study_.map.P_Pa;
    json["decanter_T_K"] = study_.decanter_T_K ? Json(*study_.decanter_T_K) : Json(nullptr);
    json["verdict"] = study_.verdict;
    json["sentences"] = study_.sentences;
    json["routes"] = Json::array();
    for (const Route& route : study_.routes) json["routes"].push_back(to_json(route));
    streams();
    if (study_.routes.size() > 1) sequences();
    answer_.lines.push_back(study_.verdict);
    for (const std::string& sentence : study_.sentences) answer_.lines.push_back(sentence);
    answer_.lines.emplace_back(
        "these are limits: sharp splits in long columns, boundaries taken as at total reflux");
    answer_.lines.push_back(fmt::format("liquid model: {}", study_.map.contenders.front().label));
    answer_.notices = study_.notices;
    if (options_.figure) draw();
    return std::move(answer_);
  }

 private:
  const std::vector<Substance>& substances() const { return study_.substances(); }
  double amount() const { return study_.feed.sized ? study_.feed.total() : 1; }

  std::vector<double> shown(const std::array<double, 3>& x) const {
    return options_.basis == Basis::mole ? std::vector<double>(x.begin(), x.end())
                                         : mass_fractions(x, substances());
  }

  static std::string unit_name(const RouteUnit& unit, std::size_t number) {
    return fmt::format("{} {}", unit.decanter ? "decanter" : "column", number + 1);
  }

  std::string end_of(const Route& route, const StreamEnd& to) const {
    if (to.kind == StreamEnd::Kind::product) return "product " + substances()[to.number].short_name();
    return (to.kind == StreamEnd::Kind::back ? "back to " : "to ") +
           unit_name(route.units[to.number], to.number);
  }

  void streams() {
    if (study_.routes.empty()) return;
    const Dimension moles = !study_.feed.sized  ? Dimension::number
                            : study_.feed.flows ? Dimension::molar_flow
                                                : Dimension::amount;
    Table table{"Streams",
                {{"route", Dimension::number, 0},
                 {"unit"},
                 {"stream"},
                 {"goes"},
                 {study_.feed.sized ? "moles" : "moles per mole of feed", moles, 4}},
                {}};
    for (const Substance& substance : substances())
      table.columns.push_back(
          {fmt::format("{}({})", options_.basis == Basis::mole ? "x" : "w", substance.short_name()),
           Dimension::fraction, 4});
    table.columns.push_back({"T", Dimension::temperature, 2});
    for (std::size_t r = 0; r < study_.routes.size(); ++r) {
      const Route& route = study_.routes[r];
      for (std::size_t k = 0; k < route.units.size(); ++k) {
        const RouteUnit& unit = route.units[k];
        const auto add = [&](const char* stream, const std::string& goes, const std::array<double, 3>& n,
                             Cell T) {
          const double total = n[0] + n[1] + n[2];
          std::vector<Cell> row{static_cast<double>(r + 1), unit_name(unit, k), std::string(stream), goes,
                                amount() * total};
          for (const double part : shown({n[0] / total, n[1] / total, n[2] / total})) row.emplace_back(part);
          row.push_back(std::move(T));
          table.rows.push_back(std::move(row));
        };
        add("in", "", unit.in, Cell());
        for (std::size_t o = 0; o < 2; ++o)
          add(unit.decanter ? "liquid"
              : o == 0      ? "overhead"
                            : "bottoms",
              end_of(route, unit.out[o].to), unit.out[o].n, unit.out[o].T_K);
      }
    }
    Table first = table;  // the screen has the first route alone
    std::erase_if(first.rows, [](const std::vector<Cell>& row) { return std::get<double>(row[0]) > 1; });
    first.columns.erase(first.columns.begin());
    for (auto& row : first.rows) row.erase(row.begin());
    answer_.tables.push_back(std::move(table));
    answer_.screen.push_back(std::move(first));
  }

  void sequences() {
    Table table{"Routes",
                {{"route", Dimension::number, 0},
                 {"units"},
                 {"sent back per mole of feed", Dimension::number, 3},
                 {"entrainer per mole of feed", Dimension::number, 3},
                 {"relies on a curved boundary"}},
                {}};
    for (std::size_t r = 0; r < study_.routes.size(); ++r) {
      const Route& route = study_.routes[r];
      std::string units;
      for (std::size_t k = 0; k < route.units.size(); ++k) {
        const RouteUnit& unit = route.units[k];
        units += k == 0 ? "" : ", ";
        units += unit.decanter ? "decanter" : "column";
        for (const RouteStream& out : unit.out) {
          if (out.to.kind == StreamEnd::Kind::product)
            units += fmt::format(" ({})", substances()[out.to.number].short_name());
        }
      }
      table.rows.push_back({static_cast<double>(r + 1), units, route.recycled, route.entrainer,
                            std::string(route.relies_on_curvature() ? "yes" : "no")});
    }
    answer_.tables.push_back(table);
    answer_.screen.push_back(std::move(table));
  }

  static Json to_json(const RouteStream& stream) {
    const char* kind = stream.to.kind == StreamEnd::Kind::product ? "product"
                       : stream.to.kind == StreamEnd::Kind::unit  ? "unit"
                                                                  : "back";
    return {{"moles_per_mole_of_feed", stream.total()},
            {"x", stream.x()},
            {"T_K", stream.T_K},
            {"to", {{"kind", kind}, {"number", stream.to.number}}}};
  }

  static Json to_json(const Route& route) {
    Json json{{"recycled", route.recycled},
              {"entrainer", route.entrainer},
              {"relies_on_curvature", route.relies_on_curvature()}};
    for (const RouteUnit& unit : route.units)
      json["units"].push_back({{"kind", unit.decanter ? "decanter" : "column"},
                               {"in", unit.in},
                               {"out", {to_json(unit.out[0]), to_json(unit.out[1])}},
                               {"relies_on_curvature", unit.relies_on_curvature()}});
    return json;
  }

  void draw() {
    ResidueFigureOptions looks = options_.looks;
    looks.units = options_.units;
    looks.basis = options_.basis;
    looks.marks.clear();
    looks.balance_lines.clear();
    const std::vector<double> z = study_.feed.fractions();
    looks.marks.push_back({"feed", three(z)});
    if (!study_.routes.empty()) {
      const Route& route = study_.routes.front();
      for (std::size_t k = 0; k < route.units.size(); ++k) {
        const RouteUnit& unit = route.units[k];
        for (std::size_t o = 0; o < 2; ++o) {
          const RouteStream& out = unit.out[o];
          std::string text;  // products are the corners
          if (out.to.kind != StreamEnd::Kind::product)
            text = fmt::format("{} {}", k + 1, unit.decanter ? "liquid" : o == 0 ? "top" : "bottom");
          looks.marks.push_back({text, out.x()});
        }
        looks.balance_lines.emplace_back(looks.marks.size() - 2, looks.marks.size() - 1);
      }
    }
    answer_.figure = residue_figure(study_.map.map(), substances(), looks);
    answer_.figure->title = fmt::format("A route for {}, {} and {}", substances()[0].name,
                                        substances()[1].name, substances()[2].name);
    add_models(*answer_.figure, study_.map.contenders, answer_.notices);
  }

  const RouteStudy& study_;
  const ResidueAnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const RouteStudy& study, const ResidueAnswerOptions& options) {
  return RouteAnswer(study, options).told();
}

}  // namespace jampot
