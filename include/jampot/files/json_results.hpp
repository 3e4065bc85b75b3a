#pragma once
// Results as JSON, in SI; keys carry the unit (docs/files.md lists them).
#include "jampot/diagram/comparison.hpp"
#include "jampot/files/json_text.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

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
