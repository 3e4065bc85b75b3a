#pragma once
// Options that mean the same in every command, and how they become a mixture.
#include <CLI/CLI.hpp>
#include <memory>
#include <string>
#include <vector>

#include "answer.hpp"
#include "jampot/liquid/henry.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/regression/complete.hpp"

namespace jampot::tool {

struct PresentationOptions {
  bool json = false;
  std::string csv, xlsx, figure, units, window, plot, expected;
  const CLI::App* command = nullptr;  ///< whose conditions are asked for in units of their own
  /// @throws RequestError for a unit or a figure's ending that is not known
  Presentation read() const;
};

/// Adds --json, --csv, --xlsx, --units, --expect and, where the command draws, --figure.
void add_presentation(CLI::App& command, PresentationOptions& options, bool draws);

/// The bank with the substances of one's own in these files. @throws RequestError for a name that is already
/// taken
std::shared_ptr<const Bank> bank_with(const std::vector<std::string>& substance_files);
void add_substance_files(CLI::App& command, std::vector<std::string>& files);

/// What describes the vapour, as written on the command line.
struct VapourOptions {
  std::string model = "ideal", interactions, saturation_fugacity, poynting;
  bool translated = false;
  /// @throws RequestError for an unknown model, a switch that is neither on nor off, or a faulty table
  VapourChoice read(const Bank& bank) const;
};
/// Adds --non-volatile.
void add_non_volatile(CLI::App& command, std::vector<std::string>& names);
/// Marks these among the substances. @throws RequestError for a name that is not one of them
void mark_non_volatile(const std::vector<std::string>& names, std::vector<Substance>& substances);
/// Adds --henry.
void add_henry(CLI::App& command, std::vector<std::string>& constants);
/// Adds --vapour, --interactions, --saturation-fugacity, --poynting and --translate.
void add_vapour(CLI::App& command, VapourOptions& options);

/// Substances with the liquid model asked for and every pair it needs that could be found.
struct Resolved {
  std::vector<Substance> substances;
  std::string model;
  ParameterCollection parameters;
  VapourChoice vapour;
  std::vector<HenryConstant> henry;

  Mixture mixture() const;
  /// "nrtl", "nrtl, virial vapour", "pr".
  std::string label() const;
};

/// A mixture under the name by which its curves are told apart.
struct Contender {
  std::string label;
  Mixture mixture;
};

/// Adds to a footer the sources of the parameters that are not named there yet.
void add_sources(Figure& figure, const std::vector<Contender>& contenders);

/// The header of an answer about the first, with the parameters and sources of the others behind its own.
Json contenders_header(const std::string& command, const std::vector<Contender>& contenders);

struct MixtureOptions {
  std::vector<std::string> names;
  std::vector<std::string> substance_files;
  std::string liquid;  ///< empty: the model of the parameter files, else the one whose pairs are published
  std::vector<std::string> parameter_files;
  std::vector<std::string> labels;  ///< "ethyl acetate=EA"
  std::string first;                ///< of a binary: the substance on the axis
  std::string basis = "mole";
  std::string missing_pairs = "refuse", estimate_from = "unifac", estimate_range;
  std::string compare;  ///< further models or pair files
  VapourOptions vapour;
  std::vector<std::string> non_volatile;  ///< substances that stay in the liquid
  std::vector<std::string> henry;         ///< "carbon dioxide in water = 1640 bar"
  /// About two liquids: without parameters or a model of one's own UNIFAC's table for liquids predicts them.
  bool two_liquids = false;
  bool binary = false;

  /// Puts what a *.mixture.toml among the names says in the place of its name; options given beside it win.
  /// @throws RequestError for a fault in the file
  void expand();

  /// Notices tell of estimated pairs.
  Resolved resolve(Notices& notices) const;
  Mixture read(Notices& notices) const;
  /// The mixture and those it is compared with, the mixture itself first.
  std::vector<Contender> contenders(Notices& notices) const;
  /// The same without vapours, for what needs none.
  std::vector<std::pair<std::string, Resolved>> resolve_all(Notices& notices) const;
};

/// The same for a command that has substances but no mixture: the names become those of the file.
/// @returns what the file says beside them
MixtureOptions expand_names(std::vector<std::string>& names, std::vector<std::string>& substance_files);

void add_mixture(CLI::App& command, MixtureOptions& options, bool binary);
/// Adds --compare.
/// The same words choose a vapour or an equation of state for both phases: "srk", "pr", "pc-saft", "virial".
void add_compare(CLI::App& command, MixtureOptions& options);

/// "constant, inverse_T": coefficients of a temperature dependence. @throws RequestError naming them
std::vector<Coefficient> parse_form(const std::string& text);

struct FeedOptions {
  std::vector<std::string> texts;
  std::string amount;
  /// The feeds as written. @throws RequestError where there is none
  const std::vector<std::string>& all() const;
  /// One of them. @throws as parse_feed
  Feed read(const std::string& text, const std::vector<Substance>& substances,
            const std::string& basis) const;
  /// The only one. @throws RequestError where there is none or several, or as parse_feed
  Feed read(const std::vector<Substance>& substances, const std::string& basis) const;
};
/// Adds --feed and --amount.
void add_feed(CLI::App& command, FeedOptions& options);

struct Condition {
  std::string temperature, pressure;
};
void add_condition(CLI::App& command, Condition& condition);
/// A mixture of any number of substances with its vapour, gases after Henry's law, comparisons, and a
/// condition.
void add_boiling_mixture(CLI::App& command, MixtureOptions& options, Condition& condition);

/// @throws RequestError where a request asks for more of something than is calculated in one go
void demand_count(const char* what, double wanted, double most);
/// States of one request: what ranges and lists make together.
inline constexpr double most_states = 20000;

/// The held values: pressures or temperatures, exactly one of which must be given. In SI.
struct Held {
  Sought sought;
  std::vector<double> values;
};
Held read_held(const Condition& condition);

}  // namespace jampot::tool
