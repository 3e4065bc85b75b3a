#pragma once
// The commands of the tool.

#include "command.hpp"
#include "presenter.hpp"

namespace jampot::tool {

// Each adds itself to the tool and hands its answers to the presenter, which must outlive the tool.
void add_find(Commands& tool, Presenter& presenter);
void add_substance(Commands& tool, Presenter& presenter);
void add_saturation(Commands& tool, Presenter& presenter);
void add_define(Commands& tool, Presenter& presenter);
void add_pairs(Commands& tool, Presenter& presenter);
void add_gamma(Commands& tool, Presenter& presenter);
void add_estimate(Commands& tool, Presenter& presenter);
void add_data(Commands& tool, Presenter& presenter);
void add_consistency(Commands& tool, Presenter& presenter);
void add_regress(Commands& tool, Presenter& presenter);
void add_known(Commands& tool, Presenter& presenter);
void add_next(Commands& tool, Presenter& presenter);
void add_bubble_and_dew(Commands& tool, Presenter& presenter);
void add_binary_diagrams(Commands& tool, Presenter& presenter);
void add_solubility(Commands& tool, Presenter& presenter);
void add_split(Commands& tool, Presenter& presenter);
void add_ternary(Commands& tool, Presenter& presenter);
void add_fugacity(Commands& tool, Presenter& presenter);
void add_flash(Commands& tool, Presenter& presenter);
void add_azeotropes(Commands& tool, Presenter& presenter);
void add_residue(Commands& tool, Presenter& presenter);
void add_screen(Commands& tool, Presenter& presenter);
void add_stages(Commands& tool, Presenter& presenter);
void add_swing(Commands& tool, Presenter& presenter);
void add_route(Commands& tool, Presenter& presenter);
void add_extract(Commands& tool, Presenter& presenter);
void add_demo(Commands& tool, Presenter& presenter);
void add_collect(Commands& tool, Presenter& presenter);
void add_job(Commands& tool, Presenter& presenter);

/// Those that compute something and present one answer: all that may be a step of a job.
/// @param wanted  the one that will be called: where it is among them, the others, which take time, are left
/// out
void add_calculations(Commands& tool, Presenter& presenter, const std::string& wanted = "");

}  // namespace jampot::tool
