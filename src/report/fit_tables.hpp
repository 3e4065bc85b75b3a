#pragma once
// Tables and sentences about a fit, for the commands that print them.
#include "jampot/files/json_results.hpp"
#include "jampot/files/table.hpp"
#include "jampot/study/regress.hpp"

namespace jampot {

/// Without its folder.
std::string file_name(const std::string& path);
Table parameter_table(const Fit& fit);
Table statistics_table(const Fit& fit);
Table residual_table(const Fit& fit);
Table liquid_residual_table(const Fit& fit);
/// The points that move the parameters most when they are left out, and where one azeotrope would then lie.
Table influence_table(const Fit& fit, const FittedAzeotropes* azeotropes = nullptr);
/// What became of the special points that were stated as known.
Table known_table(const Fit& fit);
/// Several data sets, each beside the others.
Table sets_table(const Fit& fit);
Table ranking_table(const std::vector<RankedFit>& ranked);

Table table_of(const FittedAzeotropes& azeotropes, const Fit& fit);
Json to_json(const FittedAzeotropes& azeotropes);

}  // namespace jampot
