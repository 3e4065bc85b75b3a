#pragma once
// Options that mean the same in every command, and how they become a mixture.
#include <string>
#include <vector>

#include "command.hpp"
#include "jampot/files/mixture_words.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/report/presentation.hpp"
#include "jampot/study/held.hpp"
#include "presenter.hpp"

namespace jampot::tool {

struct PresentationOptions {
  bool json = false, json_lines = false;
  std::string csv, xlsx, table, report, figure, units, window, plot, expected;
  const Command* command = nullptr;  ///< whose conditions are asked for in units of their own
  /// @throws RequestError for a unit or a figure's ending that is not known
  Presentation read() const;
};

/// Adds --json, --csv, --xlsx, --table, --units, --expect, --report where the command has none of its own,
/// and
/// --figure where it draws.
void add_presentation(Command& command, PresentationOptions& options, bool draws);

/// The command answers with what `told` makes of its presentation. Who makes it keeps the options alive in
/// `told`.
template <class Told>
void answers(Command& command, PresentationOptions& options, Presenter& presenter, Told told) {
  command.run = [&options, &presenter, told] {
    const Presentation presentation = options.read();
    presenter.present(told(presentation), presentation);
  };
}

void add_substance_files(Command& command, std::vector<std::string>& files);

/// Adds --non-volatile.
void add_non_volatile(Command& command, std::vector<std::string>& names);
/// Adds --henry.
void add_henry(Command& command, std::vector<std::string>& constants);
/// Adds --vapour, --interactions, --saturation-fugacity, --poynting and --translate.
void add_vapour(Command& command, VapourWords& options);

/// A mixture as it is asked for, and the basis of its fractions.
struct MixtureOptions : MixtureWords {
  std::string basis = "mole";
  bool two_liquids = false;  ///< the command is about two liquids: an equation of state is not offered
};

/// The mixture of a request and those it is compared with.
template <class Request>
void read_mixture(const MixtureOptions& options, Request& request) {
  request.mixture = options.spec();
  request.compare = options.compared();
}

/// How the answer is asked for.
AnswerOptions asked(const Presentation& presentation, const MixtureOptions& options);

/// The same for a command that has substances but no mixture: the names become those of the file.
/// @returns what the file says beside them
MixtureOptions expand_names(std::vector<std::string>& names, std::vector<std::string>& substance_files);

void add_mixture(Command& command, MixtureOptions& options, bool binary);
/// Adds --compare.
/// The same words choose a vapour or an equation of state for both phases: "srk", "pr", "pc-saft", "virial".
void add_compare(Command& command, MixtureOptions& options);

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
void add_feed(Command& command, FeedOptions& options);

struct Condition {
  std::string temperature, pressure;
};
void add_condition(Command& command, Condition& condition);
/// A mixture of any number of substances with its vapour, gases after Henry's law, comparisons, and a
/// condition.
void add_boiling_mixture(Command& command, MixtureOptions& options, Condition& condition);

Held read_held(const Condition& condition);

}  // namespace jampot::tool
