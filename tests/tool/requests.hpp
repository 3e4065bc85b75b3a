#pragma once
// One request for each command, on the demo's made-up data: what every command owes is tested with all of
// them.
#include <string>
#include <vector>

#include "run_tool.hpp"

namespace jampot::test {

struct Request {
  std::string name;               ///< of the test
  std::string arguments;          ///< in a folder in which `jampot demo` ran
  std::vector<std::string> keys;  ///< of its JSON, beside those that every answer has
  bool draws = true;
  bool has_states = false;  ///< a column of temperatures or pressures
};

inline const std::string& demo_parameters() {
  static const std::string text = "--parameters jampot-demo/mtbe-methanol.pairs.toml";
  return text;
}

/// The demo's mixture with the parameters that it fitted.
inline const std::string& pair_of_demo() {
  static const std::string text = "MTBE methanol " + demo_parameters() + " ";
  return text;
}

inline const std::vector<Request>& requests() {
  static const std::string& pair = pair_of_demo();
  static const std::vector<Request> list{
      {"find", "find etyl", {"matches"}, false},
      {"substance", "substance MTBE", {"constants", "groups"}, false},
      {"states", "substance MTBE --at '25, 55 degC'", {"properties"}, true, true},
      {"saturation", "saturation MTBE --temperature '-20 to 200 by 20 degC'", {"points"}, true, true},
      {"define", "define own --smiles 'CCOCC(C)C' --boiling-point '81 degC' --against MTBE", {"estimates"}},
      {"pairs", "pairs acetone methanol water", {"pairs", "predictions"}, false},
      {"gamma", "gamma " + pair + "--temperature '52 degC' --points 11", {"points"}},
      {"limiting", "gamma " + pair + "--limiting --temperature '30, 50 degC'", {"limiting"}, true, true},
      {"data", "data jampot-demo/mtbe-methanol.csv", {"data_sets"}, false},
      {"consistency", "consistency jampot-demo/mtbe-methanol.csv", {"tests", "points"}, true, true},
      {"regress", "regress jampot-demo/mtbe-methanol.csv", {"fits"}, true, true},
      {"known", "known ethanol water", {"facts", "ranking"}, false},
      {"next", "next jampot-demo/mtbe-methanol.csv --points 11", {"aim", "candidates", "batch"}, true, true},
      {"estimate", "estimate ethanol toluene --model wilson", {"fits"}, false},
      {"bubble", "bubble " + pair + "--composition MTBE=0.3 --pressure '1, 2 atm'", {"points"}, false, true},
      {"dew", "dew " + pair + "--composition MTBE=0.3 --temperature '50, 55 degC'", {"points"}, false, true},
      {"txy", "txy " + pair + "--pressure '1 atm' --points 21", {"curves"}, true, true},
      {"pxy", "pxy " + pair + "--temperature '55 degC' --points 21", {"curves"}, true, true},
      {"xy", "xy " + pair + "--pressure '1 atm' --points 21", {"curves"}, true, true},
      {"solubility",
       "solubility 1-butanol water --temperature '20 to 60 by 20 degC'",
       {"points", "critical"},
       true,
       true},
      {"split",
       "split 'ethyl acetate' ethanol water --temperature '25 degC' --feed-temperature '40 degC' --feed "
       "'ethyl acetate=600 kg/h, ethanol=60 kg/h, water=840 kg/h'",
       {"phases", "duty_W"},
       false},
      {"ternary",
       "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --tie-lines 8",
       {"tie_lines", "plait_points", "distribution"}},
      {"azeotropes",
       "azeotropes " + pair + "--pressure '1, 2 bar'",
       {"azeotropes", "index_balance"},
       true,
       true},
      {"residue",
       "residue acetone chloroform methanol --liquid unifac --pressure '1 atm' --curves 6 --feed "
       "'acetone=0.3, chloroform=0.4'",
       {"singular_points", "curves", "boundaries", "regions", "two_liquid_region", "feeds"},
       true,
       true},
      {"screen",
       "screen acetone water --families 'esters, ketones' --role extraction",
       {"candidates", "left_out", "weights", "role", "pair"}},
      {"extract",
       "extract acetone water toluene --liquid unifac --feed 'acetone=0.2, water=0.8' --basis mass "
       "--raffinate 0.03",
       {"stages", "minimum_solvent", "cross_flow", "recovered"}},
      {"route",
       "route ethanol water benzene --liquid unifac --pressure '1 atm' --feed 'ethanol=0.85, water=0.15' "
       "--decanter '25 degC'",
       {"routes", "verdict", "sentences"},
       true},
      {"swing",
       "swing " + pair + "--pressure '1, 6 bar' --feed 'MTBE=0.5, methanol=0.5'",
       {"columns", "recycle", "azeotropes", "verdict"},
       true,
       true},
      {"stages",
       "stages " + pair +
           "--pressure '1 atm' --feed 'MTBE=0.4, methanol=0.6' --top MTBE=0.65 --bottom MTBE=0.02",
       {"stages", "minimum_reflux", "minimum_stages", "streams"},
       true,
       true},
      {"flash",
       "flash " + pair +
           "--feed 'MTBE=1200 kg/h, methanol=800 kg/h' --feed-temperature '80 degC' --feed-pressure '5 bar' "
           "--pressure '1 atm' --adiabatic",
       {"vapour_fraction", "T_K", "P_Pa", "x", "y", "duty_W", "amounts"},
       false,
       true},
      {"fugacity",
       "fugacity propane n-hexane --composition propane=0.4 --temperature '80 degC' --pressure '5 bar'",
       {"roots"},
       false,
       true},
      {"job", "job jampot-demo/saltmarsh.job.toml", {"steps"}, false}};
  return list;
}

/// What the demo writes, made once for all processes of the tests: it lies beside the tool, under the time at
/// which the tool was built.
inline std::filesystem::path demo_files() {
  namespace fs = std::filesystem;
  const fs::path tool(JAMPOT_TOOL);
  const auto built = fs::last_write_time(tool).time_since_epoch().count();
  fs::path kept = tool.parent_path() / "demo-of-tests" / std::to_string(built);
  if (fs::exists(kept)) return kept;
  fs::create_directories(kept.parent_path());
  for (const fs::directory_entry& entry : fs::directory_iterator(kept.parent_path())) {
    const std::string name = entry.path().filename().string();
    const bool of_older_tool = name.find_first_not_of("0123456789") == std::string::npos;
    std::error_code gone;
    if (of_older_tool && entry.path() != kept) fs::remove_all(entry.path(), gone);
  }
  const Workplace place;
  const Ran ran = place.run("demo");
  EXPECT_EQ(ran.status, 0) << ran.err;
  const fs::path fresh = kept.parent_path() / place.folder().filename();
  fs::copy(place / "jampot-demo", fresh, fs::copy_options::recursive);
  std::error_code another_was_first;
  fs::rename(fresh, kept, another_was_first);
  if (another_was_first) fs::remove_all(fresh);
  return kept;
}

/// A folder in which the demo ran.
inline const Workplace& demo_place() {
  static const Workplace place;
  static const bool copied = [] {
    std::filesystem::copy(demo_files(), place / "jampot-demo", std::filesystem::copy_options::recursive);
    return true;
  }();
  EXPECT_TRUE(copied);
  return place;
}

}  // namespace jampot::test
