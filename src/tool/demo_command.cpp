// demo: the made-up job of the Saltmarsh Botanicals, from measured points to a fitted model and its pictures.
#include <fmt/format.h>

#include <filesystem>
#include <nlohmann/json.hpp>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/report/binary.hpp"
#include "jampot/report/regress.hpp"
#include "jampot_demo_data.hpp"
#include "options.hpp"
#include "screen.hpp"
#include "step_commands.hpp"

namespace jampot::tool {
namespace {

namespace fs = std::filesystem;

struct DemoOptions {
  std::string out = "jampot-demo";
  bool json = false;
};

class Demo {
 public:
  Demo(const fs::path& folder, bool json) : folder_(folder), quiet_(json) {
    std::error_code failed;
    fs::create_directories(folder_, failed);
    if (failed) throw RequestError(fmt::format("--out '{}': the folder cannot be made", folder_.string()));
  }

  Json run() {
    say("Saltmarsh Botanicals recovers methyl tert-butyl ether and methanol. All data here are made up.\n\n");
    Json answer = plain_header("demo");

    say("1. The first still: what the points say about NRTL, alpha fitted as well\n\n");
    const DataSet first = measured("mtbe-methanol.csv", jampot_demo_data::mtbe_methanol_csv());
    FitOptions with_alpha;
    with_alpha.release = {"alpha"};
    answer["fits"].push_back(report(study(RegressRequest{{first}, with_alpha}), "mtbe-methanol-free-alpha"));

    say("2. The same with alpha held at 0.3, as is usual: the parameters to keep\n\n");
    const RegressStudy kept = study(RegressRequest{{first}});
    answer["fits"].push_back(report(kept, "mtbe-methanol"));
    diagrams(kept.best(), first);

    say("3. The second still: data that NRTL with alpha = 0.3 cannot describe, and says so\n\n");
    const DataSet second =
        measured("mtbe-methanol-second-still.csv", jampot_demo_data::mtbe_methanol_second_still_csv());
    answer["fits"].push_back(report(study(RegressRequest{{second}}), "mtbe-methanol-second-still"));

    say("{}\n", as_text(summary_, units_));

    say("4. The whole job in one file, with a report: ");
    answer["job"] = job("saltmarsh", jampot_demo_data::saltmarsh_job_toml());
    say("5. Which solvent, how many stages, which way: ");
    answer["ways"] = job("saltmarsh-ways", jampot_demo_data::saltmarsh_ways_job_toml());
    say("Files written:\n");
    for (const std::string& path : written_) {
      say("  {}\n", path);
      answer["files"].push_back(path);
    }
    answer["notices"] = jampot::to_json(notices_);
    return answer;
  }

 private:
  template <class... Values>
  void say(fmt::format_string<Values...> text, Values&&... values) const {
    if (!quiet_) print_out(with_keys_as("--", fmt::format(text, std::forward<Values>(values)...)));
  }

  std::string path(const std::string& name) {
    written_.push_back((folder_ / name).string());
    return written_.back();
  }

  Json job(const std::string& name, std::string_view text) {
    const std::string file = path(name + ".job.toml");
    say("jampot job {}\n\n", file);
    write_file(file, text);
    const JobOutcome outcome = run_job(file, false, {}, CommandLineSteps());
    outcome.throw_failures();
    notices_.add(outcome.answer.notices);
    say("{}\n", as_text(outcome.answer.tables.front(), units_));
    path(name + ".html");
    return *outcome.answer.json;
  }

  DataSet measured(const std::string& name, std::string_view text) {
    const std::string file = path(name);
    write_file(file, text);
    return read_measured(file);
  }

  Json report(const RegressStudy& found, const std::string& name) {
    const Fit& result = found.best();
    const Answer told = answer(found);
    Json json = (*told.json)["fits"][0];
    json.erase("notices");  // one list at the end has them all
    summarise_fit(found, name);
    for (const Table& table : told.tables) {
      if (&table != &told.tables.back()) say("{}\n", as_text(table, units_));
    }
    for (const Notice& notice : result.notices) say("notice ({}): {}\n", notice.code, notice.text);
    if (!result.notices.empty()) say("\n");
    notices_.add(result.notices);
    write_file(path(name + ".fit.csv"), as_csv(told.tables, units_));
    write_file(path(name + ".pairs.toml"), pairs_text(result));
    draw(*told.figure, path(name + ".residuals.svg"));
    return json;
  }

  void summarise_fit(const RegressStudy& found, const std::string& name) {
    const Fit& result = found.best();
    std::vector<Cell> summary{name};
    for (const FittedParameter& parameter : result.parameters) {
      summary.emplace_back(parameter.held
                               ? fmt::format("{:.3g} held", parameter.value)
                               : fmt::format("{:.4g} +- {:.2g}", parameter.value, parameter.std_error));
    }
    if (const auto& azeotropes = found.azeotropes.front()) {
      const Azeotrope& azeotrope = azeotropes->curve.azeotropes.at(0);
      const AzeotropeUncertainty& u = azeotropes->uncertainties[0];
      summary.emplace_back(fmt::format("{:.4f} +- {:.4f}", azeotrope.x1, u.u_x1));
      summary.emplace_back(fmt::format("{:.3f} +- {:.3f}", azeotrope.T_K - celsius_zero, u.u_T_K));
    }
    summary.emplace_back(fmt::format("{:.2f}", result.objective / result.degrees_of_freedom));
    summary.emplace_back(std::string(result.notices.has("misfit") ? "misfit" : "fits"));
    summary_.rows.push_back(std::move(summary));
  }

  void diagrams(const Fit& kept, const DataSet& data) {
    BinaryRequest request;
    request.mixture = mixture_of(kept);
    request.held = at_pressures({standard_atmosphere});
    request.measured = {data};
    const BinaryStudy boiling = study(request);
    const Answer txy = answer(boiling, {{units_}}), xy = answer(boiling, {{units_}, BinaryDiagram::xy});
    draw(*txy.figure, path("mtbe-methanol.txy.svg"));
    draw(*xy.figure, path("mtbe-methanol.xy.svg"));
    write_file(path("mtbe-methanol.txy.csv"), as_csv({txy.tables.front()}, units_));
    request.held = at_temperatures({40 + celsius_zero, 50 + celsius_zero});
    request.measured.clear();
    const BinaryStudy isothermal = study(request);
    draw(*answer(isothermal, {{units_}}).figure, path("mtbe-methanol.pxy.svg"));
    Table deviations = txy.tables.back();
    deviations.title = "Model minus measured, first still";
    say("{}\n", as_text(deviations, units_));
    notices_.add(isothermal.notices);
  }

  fs::path folder_;
  bool quiet_;
  DisplayUnits units_;
  std::vector<std::string> written_;
  Notices notices_;
  Table summary_{"In short",
                 {{"fit"},
                  {"tau_12 [K]"},
                  {"tau_21 [K]"},
                  {"alpha"},
                  {"azeotrope x(MTBE)"},
                  {"T [degC]"},
                  {"chi2/dof"},
                  {"verdict"}},
                 {}};
};

}  // namespace

void add_demo(Commands& tool, Presenter&) {
  auto options = std::make_shared<DemoOptions>();
  Command& command =
      tool.add("demo", "Run the made-up example job; write its fits, diagrams and tables into one folder");
  command.option("--out", options->out, "FOLDER", "Folder to write to (default jampot-demo)");
  command.flag("--json", options->json, "One JSON object on standard output, and nothing else there");
  command.footer = "Example:\n  jampot demo --out jampot-demo";
  command.run = [options] {
    const Json answer = Demo(options->out, options->json).run();
    if (options->json) print_out(json_text(answer));
  };
}

}  // namespace jampot::tool
