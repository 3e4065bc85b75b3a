#include "commands.hpp"

#include <algorithm>
#include <array>

#include "jampot/basis/text.hpp"

namespace jampot::tool {

using Adding = std::pair<const char*, void (*)(Commands&, Presenter&)>;
static constexpr std::array calculations = std::to_array<Adding>({{"find", add_find},
                                                                  {"substance", add_substance},
                                                                  {"saturation", add_saturation},
                                                                  {"define", add_define},
                                                                  {"pairs", add_pairs},
                                                                  {"known", add_known},
                                                                  {"gamma", add_gamma},
                                                                  {"data", add_data},
                                                                  {"consistency", add_consistency},
                                                                  {"regress", add_regress},
                                                                  {"next", add_next},
                                                                  {"estimate", add_estimate},
                                                                  {"bubble dew", add_bubble_and_dew},
                                                                  {"txy pxy xy", add_binary_diagrams},
                                                                  {"solubility", add_solubility},
                                                                  {"split", add_split},
                                                                  {"ternary", add_ternary},
                                                                  {"azeotropes", add_azeotropes},
                                                                  {"residue", add_residue},
                                                                  {"screen", add_screen},
                                                                  {"extract", add_extract},
                                                                  {"stages", add_stages},
                                                                  {"swing", add_swing},
                                                                  {"route", add_route},
                                                                  {"flash", add_flash},
                                                                  {"fugacity", add_fugacity}});

void add_calculations(Commands& tool, Presenter& presenter, const std::string& wanted) {
  const auto is_wanted = [&](const Adding& one) {
    const std::vector<std::string> names = split(one.first, ' ');
    return std::find(names.begin(), names.end(), wanted) != names.end();
  };
  const bool known = std::any_of(calculations.begin(), calculations.end(), is_wanted);
  for (const Adding& one : calculations) {
    if (!known || is_wanted(one)) one.second(tool, presenter);
  }
}

}  // namespace jampot::tool
