#include "jampot/substance/unifac_groups.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"

namespace jampot {

std::string name_of(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle:
      return "unifac";
    case UnifacTable::lle:
      return "unifac-lle";
    case UnifacTable::dortmund:
      break;
  }
  return "unifac-dortmund";
}

namespace {

std::string_view csv_of(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle:
      return jampot_data::unifac_groups_csv();
    case UnifacTable::lle:
      return jampot_data::unifac_lle_groups_csv();
    case UnifacTable::dortmund:
      break;
  }
  return jampot_data::unifac_dortmund_groups_csv();
}

}  // namespace

UnifacGroups::UnifacGroups(UnifacTable table) : table_name_(name_of(table)) {
  const CsvTable csv(csv_of(table), table_name_ + " groups", TextLife::longer);
  for (std::size_t row = 0; row < csv.rows(); ++row) {
    const auto text = [&](const char* column) { return csv.text(row, csv.column(column)); };
    const auto number = [&](const char* column) { return csv.number(row, csv.column(column)); };
    UnifacGroup group{std::string(text("subgroup")),
                      std::string(text("main_group")),
                      static_cast<int>(number("main_number")),
                      number("R"),
                      number("Q"),
                      text("grade").front()};
    const auto [found, fresh] = by_name_.emplace(group.name, groups_.size());
    if (!fresh) throw RequestError(csv.place(row, 0), fmt::format("'{}' is given twice", group.name));
    groups_.push_back(std::move(group));
  }
}

const UnifacGroups& UnifacGroups::of(UnifacTable table) {
  switch (table) {
    case UnifacTable::vle: {
      static const UnifacGroups groups(UnifacTable::vle);
      return groups;
    }
    case UnifacTable::lle: {
      static const UnifacGroups groups(UnifacTable::lle);
      return groups;
    }
    case UnifacTable::dortmund:
      break;
  }
  static const UnifacGroups groups(UnifacTable::dortmund);
  return groups;
}

const UnifacGroup* UnifacGroups::find(const std::string& name) const {
  const auto found = by_name_.find(name);
  return found == by_name_.end() ? nullptr : &groups_[found->second];
}

std::vector<std::string> UnifacGroups::names() const {
  std::vector<std::string> list;
  for (const UnifacGroup& group : groups_) list.push_back(group.name);
  return list;
}

std::vector<GroupCount> UnifacGroups::parse(std::string_view text) const {
  const bool as_in_bank = text.find('=') == std::string_view::npos ||
                          text.find('|') != std::string_view::npos ||
                          text.find(':') != std::string_view::npos;
  std::vector<GroupCount> groups;
  for (const std::string& piece : split(text, as_in_bank ? '|' : ',')) {
    const std::size_t sign = piece.rfind(as_in_bank ? ':' : '=');
    const auto count = sign == std::string::npos ? std::nullopt : parse_number(piece.substr(sign + 1));
    if (!count || *count < 1 || *count != std::floor(*count) || *count > 1000) {
      throw RequestError(fmt::format("'{}': expected SUBGROUP=COUNT, as in \"CH3=2, CH2=1\"", piece));
    }
    std::string name(trimmed(std::string_view(piece).substr(0, sign)));
    if (find(name) == nullptr) {
      throw RequestError(fmt::format("'{}' is not a subgroup of the table {}.{}", name, table_name_,
                                     did_you_mean(name, names())));
    }
    for (const GroupCount& other : groups) {
      if (other.group == name) throw RequestError(fmt::format("the subgroup '{}' is given twice", name));
    }
    groups.push_back({std::move(name), static_cast<int>(*count)});
  }
  return groups;
}

std::string unifac_text(const std::vector<GroupCount>& groups) {
  std::string text;
  for (const GroupCount& entry : groups) {
    text += fmt::format("{}{}:{}", text.empty() ? "" : "|", entry.group, entry.count);
  }
  return text;
}

MoleculeSize molecule_size(const std::vector<GroupCount>& groups, UnifacTable table) {
  const UnifacGroups& subgroups = UnifacGroups::of(table);
  MoleculeSize size;
  for (const GroupCount& entry : groups) {
    const UnifacGroup* group = subgroups.find(entry.group);
    if (group == nullptr)
      throw RequestError(fmt::format("'{}' is not a subgroup of {}", entry.group, name_of(table)));
    size.r += entry.count * group->R;
    size.q += entry.count * group->Q;
  }
  return size;
}

}  // namespace jampot
