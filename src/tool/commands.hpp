#pragma once
// The commands of the tool.
#include <CLI/CLI.hpp>

#include "presenter.hpp"

namespace jampot::tool {

// Each adds itself to the tool and hands its answers to the presenter, which must outlive the tool.
void add_find(CLI::App& tool, Presenter& presenter);
void add_substance(CLI::App& tool, Presenter& presenter);
void add_saturation(CLI::App& tool, Presenter& presenter);
void add_define(CLI::App& tool, Presenter& presenter);
void add_pairs(CLI::App& tool, Presenter& presenter);
void add_gamma(CLI::App& tool, Presenter& presenter);
void add_estimate(CLI::App& tool, Presenter& presenter);
void add_data(CLI::App& tool, Presenter& presenter);
void add_consistency(CLI::App& tool, Presenter& presenter);
void add_regress(CLI::App& tool, Presenter& presenter);
void add_known(CLI::App& tool, Presenter& presenter);
void add_next(CLI::App& tool, Presenter& presenter);
void add_bubble_and_dew(CLI::App& tool, Presenter& presenter);
void add_binary_diagrams(CLI::App& tool, Presenter& presenter);
void add_solubility(CLI::App& tool, Presenter& presenter);
void add_split(CLI::App& tool, Presenter& presenter);
void add_ternary(CLI::App& tool, Presenter& presenter);
void add_fugacity(CLI::App& tool, Presenter& presenter);
void add_flash(CLI::App& tool, Presenter& presenter);
void add_azeotropes(CLI::App& tool, Presenter& presenter);
void add_residue(CLI::App& tool, Presenter& presenter);
void add_screen(CLI::App& tool, Presenter& presenter);
void add_stages(CLI::App& tool, Presenter& presenter);
void add_swing(CLI::App& tool, Presenter& presenter);
void add_route(CLI::App& tool, Presenter& presenter);
void add_extract(CLI::App& tool, Presenter& presenter);
void add_demo(CLI::App& tool, Presenter& presenter);
void add_job(CLI::App& tool, Presenter& presenter);

/// Those that compute something and present one answer: all that may be a step of a job.
void add_calculations(CLI::App& tool, Presenter& presenter);

}  // namespace jampot::tool
