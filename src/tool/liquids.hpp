#pragma once
// What the commands about two liquids share.
#include "jampot/diagram/liquid_comparison.hpp"
#include "options.hpp"

namespace jampot::tool {

/// The mixtures of a command about two liquids. @throws CalculationError for a model that cannot describe two
/// liquids at all
std::vector<Contender> liquid_contenders(const MixtureOptions& options, Notices& notices);

/// What is doubtful about using these mixtures for two liquids.
void add_liquid_notices(const std::vector<Contender>& contenders, double Tmin_K, double Tmax_K,
                        Notices& notices);

/// Measured pairs beside the model's, and a summary.
std::vector<Table> liquid_deviation_tables(const LiquidComparison& comparison, const std::string& name,
                                           const std::vector<Substance>& substances);
Json to_json(const LiquidComparison& comparison);

/// Footer and notices of a figure about liquids.
void sign(Figure& figure, const std::vector<Contender>& contenders, const Notices& notices);

}  // namespace jampot::tool
