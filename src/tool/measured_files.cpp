#include "measured_files.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"

namespace jampot::tool {
namespace {

bool is_about(const DataSet& set, const Mixture& mixture) {
  const auto& members = mixture.substances();
  return set.substances.size() == members.size() &&
         std::all_of(set.substances.begin(), set.substances.end(), [&](const Substance& substance) {
           return std::any_of(members.begin(), members.end(),
                              [&](const Substance& member) { return member.name == substance.name; });
         });
}

void check_kind(const DataSet& set, bool two_liquids) {
  if (two_liquids != (set.kind == DataKind::lle) || (!two_liquids && !vapour_liquid(set.kind)))
    throw RequestError(
        fmt::format("{} holds {} data; {} needed here", set.name, name_of(set.kind),
                    two_liquids ? "two liquids in equilibrium are" : "those of a boiling liquid are"));
}

}  // namespace

std::vector<DataSet> read_measured_files(const std::vector<std::string>& files, const Bank& bank) {
  std::vector<DataSet> sets;
  for (const std::string& file : files) {
    for (DataSet& set : read_measured_file(file, bank)) sets.push_back(std::move(set));
  }
  return sets;
}

std::vector<DataSet> read_overlays(const std::vector<std::string>& files, const Mixture& mixture,
                                   const Bank& bank, bool two_liquids) {
  std::vector<DataSet> overlays;
  for (const std::string& file : files) {
    std::vector<DataSet> sets = read_measured_file(file, bank);
    if (sets.size() == 1) {
      check_kind(sets.front(), two_liquids);
      overlays.push_back(in_order_of(mixture, std::move(sets.front())));
      continue;
    }
    const std::size_t before = overlays.size();
    std::vector<std::string> others;
    for (const DataSet& set : sets) {
      const bool wanted = two_liquids ? set.kind == DataKind::lle : vapour_liquid(set.kind);
      if (wanted && is_about(set, mixture))
        overlays.push_back(in_order_of(mixture, set));
      else
        others.push_back(set.name);
    }
    if (overlays.size() == before)
      throw RequestError(fmt::format(
          "none of the {} data sets of {} holds {} of these substances ('jampot data "
          "{}' lists them)",
          sets.size(), file, two_liquids ? "two liquids in equilibrium" : "a boiling liquid", file));
    if (!others.empty())
      overlays[before].notices.add(
          "data-not-drawn", fmt::format("of {} the data sets about something else are not drawn: {}", file,
                                        joined(others, ", ")));
  }
  return overlays;
}

}  // namespace jampot::tool
