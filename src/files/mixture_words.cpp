#include "jampot/files/mixture_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/collection_files.hpp"
#include "jampot/files/interactions_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/study/held.hpp"

namespace jampot {

std::shared_ptr<const Bank> bank_with(const std::vector<std::string>& substance_files) {
  const Bank& built_in = Bank::built_in();
  if (substance_files.empty()) return {std::shared_ptr<const Bank>(), &built_in};
  std::vector<Substance> substances(built_in.all().begin(), built_in.all().end());
  for (const std::string& file : substance_files) {
    Substance own = read_substance(file).substance;
    for (const Substance& other : substances) {
      if (lower_case(other.name) == lower_case(own.name) || built_in.find(own.name) != nullptr) {
        throw RequestError({file, 0, {}},
                           fmt::format("the name '{}' is already taken; give yours another", own.name));
      }
    }
    own.formula.clear();  // a formula shall not stand for a user-defined component, nor make one of the bank
                          // ambiguous
    substances.push_back(std::move(own));
  }
  return std::make_shared<const Bank>(std::move(substances));
}

void mark_non_volatile(const std::vector<std::string>& names, std::vector<Substance>& substances) {
  for (const std::string& name : names) {
    Substance& substance = substances[member_named(name, substances)];
    substance.non_volatile = true;
    substance.vapour_pressure.reset();
  }
}

VapourChoice VapourWords::choice(const Bank& bank) const {
  VapourChoice choice;
  choice.model = model;
  const auto& names = vapour_model_names();
  if (std::find(names.begin(), names.end(), model) == names.end()) {
    throw RequestError(fmt::format("`vapour` '{}': there are {}.{}", model,
                                   joined(vapour_model_names(), ", "),
                                   did_you_mean(model, vapour_model_names())));
  }
  choice.interactions = read_interactions(interactions, bank);
  choice.translated = translated;
  const auto switched = [](const char* option, const std::string& text) -> std::optional<bool> {
    if (text.empty()) return std::nullopt;
    if (text != "on" && text != "off") throw RequestError(fmt::format("{} '{}': on or off", option, text));
    return text == "on";
  };
  choice.saturation_fugacity = switched("`saturation-fugacity`", saturation_fugacity);
  choice.poynting = switched("`poynting`", poynting);
  return choice;
}

namespace {

std::vector<Substance> substances_of(const MixtureWords& options, const Bank& bank) {
  demand_count("substances", static_cast<double>(options.names.size()), most_substances);
  std::vector<Substance> substances = substances_named(options.names, bank);
  if (substances.size() < 2) throw RequestError("a mixture needs at least two substances");
  if (options.binary && substances.size() != 2)
    throw RequestError(fmt::format("this is about two substances; {} are named", substances.size()));
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (substances[i].name == substances[j].name) {
        throw RequestError(fmt::format("{} is named twice in this mixture", substances[i].name));
      }
    }
  }
  for (const std::string& text : options.labels) {
    const std::size_t equals = text.find('=');
    const std::string label(equals == std::string::npos ? "" : trimmed(text.substr(equals + 1)));
    if (label.empty())
      throw RequestError(fmt::format("`label` '{}': expected \"substance=label\", as in \"{}=A\"", text,
                                     substances[0].name));
    substances[member_named(std::string(trimmed(text.substr(0, equals))), substances)].label = label;
  }
  mark_non_volatile(options.non_volatile, substances);
  if (options.first.empty()) return substances;
  const Substance& wanted = bank.require(options.first);
  const auto found = std::find_if(substances.begin(), substances.end(),
                                  [&](const Substance& candidate) { return candidate.name == wanted.name; });
  if (found == substances.end()) {
    throw RequestError(fmt::format("`first`: {} is not one of the substances", wanted.name));
  }
  std::rotate(substances.begin(), found, found + 1);
  return substances;
}

EstimateOptions estimate_options(const MixtureWords& options) {
  EstimateOptions estimate;
  estimate.from = options.estimate_from;
  if (options.estimate_range.empty()) return estimate;
  const auto ends = parse_quantities(options.estimate_range + " in 2", Dimension::temperature);
  estimate.T_range_K = {std::min(ends.front(), ends.back()), std::max(ends.front(), ends.back())};
  return estimate;
}

// A file of pairs or a collection of them.
void read_parameters(const std::string& file, const std::vector<Substance>& substances,
                     const std::string& liquid, ParameterCollection& parameters, const Bank& bank) {
  std::error_code failed;
  if (!std::filesystem::is_directory(file, failed)) {
    read_pairs(file, parameters, bank);
    return;
  }
  const std::vector<std::string> names = pair_model_names();
  const bool named = std::find(names.begin(), names.end(), liquid) != names.end();
  read_collection(file, substances, named ? liquid : "", parameters, bank);
}

// A pair file instead of the model and parameters of a mixture.
MixtureSpec with_parameters(const MixtureSpec& spec, const std::string& file, const Bank& bank) {
  MixtureSpec other = spec;
  other.parameters = {};
  read_parameters(file, spec.substances, "", other.parameters, bank);
  other.liquid.clear();
  other.name = std::filesystem::path(file).stem().stem().string();
  return other;
}

}  // namespace

MixtureSpec MixtureWords::spec() const {
  const std::shared_ptr<const Bank> known = bank();
  MixtureSpec spec;
  spec.substances = substances_of(*this, *known);
  for (const std::string& file : parameter_files)
    read_parameters(file, spec.substances, liquid, spec.parameters, *known);
  const bool best = liquid == "best";
  if (best && !parameter_files.empty())
    throw RequestError(
        "`liquid` best chooses by handbook facts; with parameters of your own name their model");
  spec.liquid = best ? std::string() : liquid;
  spec.vapour = vapour.choice(*known);
  for (const std::string& text : henry) spec.henry.push_back(parse_henry(text, spec.substances));
  spec.missing_pairs = parse_missing_pairs(missing_pairs);
  spec.doubtful_groups = parse_doubtful_groups(doubtful_groups);
  spec.estimate = estimate_options(*this);
  return spec;
}

std::vector<MixtureSpec> MixtureWords::compared() const {
  std::vector<MixtureSpec> others;
  if (compare.empty()) return others;
  const MixtureSpec own = spec();
  for (const std::string& piece : split(compare, ',')) {
    if (piece.empty()) continue;
    others.push_back(piece.ends_with(".toml") ? with_parameters(own, piece, *bank())
                                              : with_model(own, piece));
  }
  return others;
}

}  // namespace jampot
