#pragma once
// Results as JSON, in SI; keys carry the unit (docs/files.md lists them).
#include <nlohmann/json_fwd.hpp>

#include "jampot/diagram/comparison.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

using Json = nlohmann::ordered_json;

/// The text of a file or of standard output: indented by two, with a line end; a byte that is not UTF-8 as
/// U+FFFD.
std::string json_text(const Json& json);

/// The same as JSON Lines, for programs that read line by line: one object a line. The first line has
/// `"record": "answer"` and everything that is not a list of objects. Each object of a list is a line below
/// it, with the name of the list as its `record` and its number, from 0, in `of`; so are the objects of lists
/// within it:
/// `{"record": "points", "of": {"curves": 0, "points": 3}, ...}`.
std::string json_lines(const Json& json);

Json to_json(const Notices& notices);
Json to_json(const Substance& substance);  ///< identity, short
Json to_json(const PairParameters& pair);
Json to_json(const DeviationSummary& summary);
Json to_json(const Comparison& comparison);
Json to_json(const Fit& fit);

/// The group interactions behind a UNIFAC model, as a list like that of pair parameters.
Json to_json(const Unifac& unifac);

/// The beginning of an answer from one equation of state, with its parameters.
Json fluid_header(const std::string& command, const std::vector<Substance>& substances,
                  const EquationOfState& equation);

/// The beginning of an answer about a liquid alone.
Json liquid_header(const std::string& command, const std::vector<Substance>& substances,
                   const ActivityModel& model, const std::vector<PairParameters>& pairs);

/// The beginning of every answer: command, substances, models, parameters (with source and range_K).
Json answer_header(const std::string& command, const Mixture& mixture);

}  // namespace jampot
