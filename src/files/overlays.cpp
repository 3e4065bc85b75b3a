#include "jampot/files/overlays.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/files/mixture_words.hpp"

namespace jampot {
namespace {

bool is_about(const DataSet& set, const std::vector<Substance>& members) {
  return set.substances.size() == members.size() &&
         std::all_of(set.substances.begin(), set.substances.end(), [&](const Substance& substance) {
           return std::any_of(members.begin(), members.end(),
                              [&](const Substance& member) { return member.name == substance.name; });
         });
}

bool is_of(Overlay wanted, DataKind kind) {
  const LiquidValue* value = describe(kind).value;
  switch (wanted) {
    case Overlay::boiling:
      return vapour_liquid(kind);
    case Overlay::activity:
      return has_vapour(kind) || (value != nullptr && value->of_component && !value->dilute);
    case Overlay::two_liquids:
      return family_of(kind) == DataFamily::two_liquids;
    case Overlay::limits:
      return value != nullptr && value->dilute;
  }
  return false;
}

const char* words_for(Overlay wanted) {
  switch (wanted) {
    case Overlay::boiling:
      return "those of a boiling liquid";
    case Overlay::activity:
      return "those of a boiling liquid with its vapour, or activity coefficients at a composition,";
    case Overlay::two_liquids:
      return "those of two liquids in equilibrium";
    case Overlay::limits:
      return "limiting activity coefficients";
  }
  return "";
}

}  // namespace

std::vector<DataSet> read_measured_files(const std::vector<std::string>& files, const Bank& bank) {
  std::vector<DataSet> sets;
  for (const std::string& file : files) {
    for (DataSet& set : read_measured_file(file, bank)) sets.push_back(std::move(set));
  }
  return sets;
}

std::vector<DataSet> read_overlays(const std::vector<std::string>& files,
                                   const std::vector<Substance>& substances, const Bank& bank,
                                   Overlay wanted) {
  std::vector<DataSet> overlays;
  for (const std::string& file : files) {
    std::vector<DataSet> sets = read_measured_file(file, bank);
    if (sets.size() == 1) {
      if (!is_of(wanted, sets.front().kind))
        throw RequestError(fmt::format("{} holds {} data; {} are needed here", sets.front().name,
                                       name_of(sets.front().kind), words_for(wanted)));
      overlays.push_back(in_order_of(substances, std::move(sets.front())));
      continue;
    }
    const std::size_t before = overlays.size();
    std::vector<std::string> others;
    for (const DataSet& set : sets) {
      if (is_of(wanted, set.kind) && is_about(set, substances))
        overlays.push_back(in_order_of(substances, set));
      else
        others.push_back(set.name);
    }
    if (overlays.size() == before)
      throw RequestError(fmt::format(
          "none of the {} data sets of {} holds {} of these substances ('jampot data {}' lists them)",
          sets.size(), file, words_for(wanted), file));
    if (!others.empty())
      overlays[before].notices.add(
          "data-not-drawn", fmt::format("data sets of {} that this diagram cannot show are not drawn: {}",
                                        file, joined(others, ", ")));
  }
  return overlays;
}

void exclude_points(const std::vector<std::string>& wanted, std::vector<DataSet>& sets) {
  for (const std::string& text : wanted) {
    const std::vector<std::string> pieces = split(text, ':');
    const bool with_file = sets.size() > 1;
    const std::size_t number = with_file ? 1 : 0;
    const auto line = pieces.size() > number ? parse_number(pieces[number]) : std::nullopt;
    const std::string reason = pieces.size() > number + 1 ? pieces[number + 1] : "";
    if (!line || reason.empty()) {
      throw RequestError(fmt::format(
          "`exclude` '{}': expected {}LINE:REASON; a reason is needed because it stays in the output", text,
          with_file ? "FILE:" : ""));
    }
    bool found = false;
    for (DataSet& set : sets) {
      if (with_file && set.name != pieces[0]) continue;
      for (DataPoint& point : set.points) {
        if (point.line != static_cast<int>(*line)) continue;
        point.excluded = reason;
        found = true;
      }
    }
    if (!found) throw RequestError(fmt::format("`exclude` '{}': there is no point on that line", text));
  }
}

void mark_non_volatile(const std::vector<std::string>& names, const Bank& bank, std::vector<DataSet>& sets) {
  for (const std::string& name : names) {
    bool named = false;
    for (DataSet& set : sets) {
      for (Substance& substance : set.substances) {
        if (substance.name != bank.require(name).name) continue;
        mark_non_volatile({name}, set.substances);
        named = true;
      }
    }
    if (!named) throw RequestError(fmt::format("`non-volatile`: {} is in none of the data", name));
  }
}

}  // namespace jampot
