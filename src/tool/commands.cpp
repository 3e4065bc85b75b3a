#include "commands.hpp"

namespace jampot::tool {

void add_calculations(Commands& tool, Presenter& presenter) {
  add_find(tool, presenter);
  add_substance(tool, presenter);
  add_saturation(tool, presenter);
  add_define(tool, presenter);
  add_pairs(tool, presenter);
  add_known(tool, presenter);
  add_gamma(tool, presenter);
  add_data(tool, presenter);
  add_consistency(tool, presenter);
  add_regress(tool, presenter);
  add_next(tool, presenter);
  add_estimate(tool, presenter);
  add_bubble_and_dew(tool, presenter);
  add_binary_diagrams(tool, presenter);
  add_solubility(tool, presenter);
  add_split(tool, presenter);
  add_ternary(tool, presenter);
  add_azeotropes(tool, presenter);
  add_residue(tool, presenter);
  add_screen(tool, presenter);
  add_extract(tool, presenter);
  add_stages(tool, presenter);
  add_swing(tool, presenter);
  add_route(tool, presenter);
  add_flash(tool, presenter);
  add_fugacity(tool, presenter);
}

}  // namespace jampot::tool
