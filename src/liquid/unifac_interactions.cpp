#include "jampot/liquid/unifac_interactions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "jampot/basis/csv_table.hpp"
#include "jampot_data.hpp"

namespace jampot {
namespace {

using Interactions = std::map<std::pair<int, int>, GroupInteraction>;

Interactions read(std::string_view text, const std::string& file) {
  const CsvTable csv(text, file, TextLife::longer);
  const bool modified = std::find(csv.header().begin(), csv.header().end(), "b") != csv.header().end();
  Interactions interactions;
  for (std::size_t row = 0; row < csv.rows(); ++row) {
    const auto number = [&](const char* column) { return csv.number(row, csv.column(column)); };
    GroupInteraction entry{number("a"), modified ? number("b") : 0, modified ? number("c") : 0,
                           csv.text(row, csv.column("grade")).front()};
    interactions[{static_cast<int>(number("m")), static_cast<int>(number("n"))}] = entry;
  }
  return interactions;
}

const Interactions& of(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle: {
      static const Interactions vle = read(jampot_data::unifac_interactions_csv(), "unifac_interactions.csv");
      return vle;
    }
    case UnifacTable::lle: {
      static const Interactions lle =
          read(jampot_data::unifac_lle_interactions_csv(), "unifac_lle_interactions.csv");
      return lle;
    }
    case UnifacTable::dortmund:
      break;
  }
  static const Interactions dortmund =
      read(jampot_data::unifac_dortmund_interactions_csv(), "unifac_dortmund_interactions.csv");
  return dortmund;
}

}  // namespace

std::optional<GroupInteraction> group_interaction(UnifacTable table, int m, int n) {
  const Interactions& interactions = of(table);
  const auto found = interactions.find({m, n});
  if (found == interactions.end()) return std::nullopt;
  return found->second;
}

std::string TableExtent::text() const {
  const std::string all =
      pairs < 1000 ? std::to_string(pairs) : fmt::format("{},{:03}", pairs / 1000, pairs % 1000);
  return fmt::format("{} of {} pairs of groups", held, all);
}

TableExtent extent_of(UnifacTable table) {
  std::set<int> groups;
  for (const UnifacGroup& group : UnifacGroups::of(table).all()) groups.insert(group.main_number);
  const int count = static_cast<int>(groups.size());
  TableExtent extent{0, count * (count - 1) / 2};
  for (const auto& entry : of(table)) {
    const auto& [m, n] = entry.first;
    extent.held += m < n && of(table).contains({n, m});
  }
  return extent;
}

}  // namespace jampot
