#pragma once
// What an answer about one or several models has in common.
#include "jampot/report/answer.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// Adds to a footer the sources of the parameters that are not named there yet.
void add_sources(Figure& figure, const std::vector<Contender>& contenders);

/// Models and sources in the footer of a figure about liquids, and the codes of its notices.
void add_models(Figure& figure, const std::vector<Contender>& contenders, const Notices& notices);

/// The header of an answer about the first, with the parameters and sources of the others behind its own.
Json contenders_header(const std::string& command, const std::vector<Contender>& contenders);

/// Deviations from measured sets: "measured" of the JSON, and a table each into `tables`.
void add_deviations(const std::vector<MeasuredBeside>& beside, const std::vector<Contender>& contenders,
                    Answer& answer, std::vector<Table>& tables);

/// A calculation written out.
void add_working(const std::vector<std::string>& lines, Answer& answer);

}  // namespace jampot
