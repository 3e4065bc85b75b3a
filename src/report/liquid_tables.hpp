#pragma once
// Measured pairs of liquids in tables and JSON.
#include "jampot/diagram/liquid_comparison.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// Measured pairs beside the model's, and a summary.
std::vector<Table> liquid_deviation_tables(const LiquidComparison& comparison, const std::string& name,
                                           const std::vector<Substance>& substances);
Json to_json(const LiquidComparison& comparison);

/// Deviations of measured sets: "measured" of the JSON, and their tables.
void add_deviations(const std::vector<LiquidsBeside>& beside, const std::vector<Contender>& contenders,
                    Answer& answer);

}  // namespace jampot
