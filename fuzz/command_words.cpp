#include "command_words.hpp"

#include <algorithm>
#include <map>

#include "jampot/basis/text.hpp"

namespace jampot::fuzz {
namespace {

using Values = std::vector<std::string>;

const Values& names() {
  static const Values list{"water",         "ethanol",   "methanol",       "acetone",      "MTBE",
                           "ethyl acetate", "1-butanol", "benzene",        "toluene",      "chloroform",
                           "cyclohexane",   "n-hexane",  "acetic acid",    "acetonitrile", "1,4-dioxane",
                           "64-17-5",       "C2H6O",     "propane",        "methane",      "n-octane",
                           "formic acid",   "sulfolane", "carbon dioxide", "etanol"};
  return list;
}

// What stands in the place of a value and is none.
const Values& nonsense() {
  static const Values list{"",
                           "-1",
                           "0",
                           "nan",
                           "1e400",
                           "1e-300 K",
                           "x",
                           "=",
                           ",",
                           "a=b=c",
                           "water=",
                           "=0.3",
                           "1 2 bar",
                           "inf Pa",
                           "0.3",
                           "--",
                           "-",
                           "1;2",
                           "#",
                           "'\"`$(x)",
                           "\xC2\xB0"
                           "C",
                           "1 to 0 by 0 bar",
                           "5 %",
                           "1e9 bar",
                           "300 K to 200 K",
                           "/nowhere/f",
                           "f.toml"};
  return list;
}

// Values by the name of the option, where its type does not tell.
const std::map<std::string, Values>& by_option() {
  static const Values temperatures{"25 degC",  "60 degC",  "300 K", "20 to 80 by 20 degC",
                                   "140 degF", "-80 degC", "900 K", "20, 40 degC"},
      pressures{"1 atm",           "10 bar", "0.5, 2 bar", "760 mmHg",
                "1 to 3 in 3 bar", "10 kPa", "300 bar",    "14.7 psi"},
      models{"unifac", "unifac-lle", "unifac",          "ideal",  "unifac",
             "nrtl",   "eos",        "unifac-dortmund", "wilson", "uniquac"};
  static const std::map<std::string, Values> values{
      {"temperature", temperatures},
      {"at", temperatures},
      {"feed-temperature", temperatures},
      {"isotherms", temperatures},
      {"decanter", temperatures},
      {"boiling-point", temperatures},
      {"critical-temperature", {"600 K", "300 degC"}},
      {"critical-pressure", {"40 bar", "3 MPa"}},
      {"pressure", pressures},
      {"feed-pressure", pressures},
      {"liquid", models},
      {"model", {"nrtl", "wilson", "uniquac", "nrtl,uniquac", "nrtl, wilson, uniquac"}},
      {"vapour", {"ideal", "virial", "tsonopoulos", "srk", "pr", "pc-saft"}},
      {"compare", {"ideal", "unifac", "ideal, unifac", "pr", "nrtl"}},
      {"missing-pairs", {"refuse", "estimate", "ideal"}},
      {"estimate-from", {"unifac", "unifac-lle", "unifac-dortmund", "mosced"}},
      {"basis", {"mole", "mass"}},
      {"vapour-fraction", {"0.5", "0", "1", "0 to 1 by 0.25"}},
      {"units", {"bar, K", "kPa", "degF, psi", "K"}},
      {"figure", {"f.svg", "f.png", "f.pdf", "f.gif"}},
      {"csv", {"t.csv"}},
      {"xlsx", {"t.xlsx"}},
      {"report", {"r.html", "r.md"}},
      {"points", {"11", "3", "51"}},
      {"curves", {"2", "6"}},
      {"starts", {"4", "1"}},
      {"tie-lines", {"3", "8"}},
      {"poynting", {"on", "off"}},
      {"saturation-fugacity", {"on", "off"}},
      {"objective", {"maximum-likelihood", "bubble-pressure", "bubble-temperature"}},
      {"form", {"constant", "inverse_T", "constant,inverse_T"}},
      {"groups", {"CH3=2, CH2=3, OH=1", "ring =CH=6"}},
      {"smiles", {"CCO", "c1ccccc1", "CCOC(C)=O", "C1CC1C(=O)N"}},
      {"duty", {"10 kW", "1 J/mol", "-5 kW"}},
      {"density", {"860 kg/m3", "860 kg/m3 at 20 degC"}},
      {"molar-mass", {"86", "342.3"}},
      {"henry", {"carbon dioxide in water = 1640 bar at 25 degC"}},
      {"corners", {"water, ethanol, acetone"}},
      {"plot", {"T against P", "y(water) against x(water)"}},
      {"window", {"x=0 to 0.5", "y=50 to 80"}},
      {"label", {"water=W", "ethanol=<b>"}},
      {"mark", {"feed: water=0.3, ethanol=0.2"}}};
  return values;
}

const std::string& one_of(Choices& choices, const Values& values) {
  return values[choices.below(values.size())];
}

std::string fractions(Choices& choices, const Values& mixture, const char* unit) {
  std::string text;
  for (std::size_t k = 0; k < mixture.size(); ++k) {
    if (k + 1 == mixture.size() && *unit == '\0' && !choices.one_in(8)) break;  // the rest
    if (!text.empty()) text += ", ";
    const bool odd = choices.one_in(20);
    text +=
        mixture[k] + "=" +
        one_of(choices, odd ? Values{"0", "1", "-0.1", "600", "1e-9"} : Values{"0.3", "0.2", "0.1", "0.05"}) +
        unit;
  }
  return text;
}

std::string value_of(Choices& choices, const std::string& option, const Values& mixture) {
  if (choices.one_in(25)) return one_of(choices, nonsense());
  if (choices.one_in(40)) return choices.raw(24);
  if (option == "composition" || option == "through" || option == "tie-line")
    return fractions(choices, mixture, "");
  if (option == "feed") return fractions(choices, mixture, choices.one_in(3) ? " kg/h" : "");
  if (option == "first" || option == "against" || option == "non-volatile")
    return mixture.empty() ? one_of(choices, names()) : one_of(choices, mixture);
  const auto known = by_option().find(option);
  return known == by_option().end() ? one_of(choices, nonsense()) : one_of(choices, known->second);
}

}  // namespace

std::size_t Choices::below(std::size_t count) {
  std::size_t value = 0;
  for (int k = 0; k < (count > 256 ? 2 : 1) && !bytes_.empty(); ++k) {
    value = 256 * value + static_cast<unsigned char>(bytes_.front());
    bytes_.remove_prefix(1);
  }
  return count == 0 ? 0 : value % count;
}

std::string Choices::raw(std::size_t most) {
  const std::size_t size = std::min({below(256) % (most + 1), bytes_.size()});
  std::string text(bytes_.substr(0, size));
  bytes_.remove_prefix(size);
  std::replace(text.begin(), text.end(), '\0', '0');  // no word of a command line holds one
  return text;
}

std::vector<std::string> random_words(Choices& choices, const tool::Commands& all, const Values& unwanted) {
  std::vector<const tool::Command*> commands;
  for (const tool::Command& command : all.list) {
    if (std::find(unwanted.begin(), unwanted.end(), command.name) == unwanted.end())
      commands.push_back(&command);
  }
  const tool::Command& command = *commands[choices.below(commands.size())];
  Values words{command.name}, mixture;
  std::vector<const tool::Option*> options;
  for (const tool::Option& option : command.options) {
    if (!option.is_argument()) {
      options.push_back(&option);
      continue;
    }
    // Two substances for a binary, mostly three otherwise; a file where one is meant.
    const std::size_t count = option.name != "MIX" ? 1 : option.most == 2 ? 2 : 2 + choices.below(3);
    for (std::size_t k = 0; k < count; ++k)
      mixture.push_back(option.name == "FILE" ? one_of(choices, {"data.csv", "none.csv", "lle.csv"})
                                              : one_of(choices, names()));
  }
  words.insert(words.end(), mixture.begin(), mixture.end());
  // The conditions nearly always, the rest now and then.
  for (const tool::Option* option : options) {
    const std::string name = option->plain_name();
    const bool condition =
        name == "temperature" || name == "pressure" || name == "composition" || name == "feed";
    const bool likely = condition          ? !choices.one_in(3)
                        : name == "liquid" ? !choices.one_in(6)
                                           : choices.one_in(16);
    if (!likely) continue;
    words.push_back(option->name);
    if (!option->is_flag()) words.push_back(value_of(choices, name, mixture));
  }
  return words;
}

}  // namespace jampot::fuzz
