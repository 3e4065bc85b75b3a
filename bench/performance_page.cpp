// docs/performance.md from what the benchmark program measured: performance_page FILE.json >
// docs/performance.md. Google Benchmark writes the file; scripts/performance does both.
#include <fmt/format.h>

#include <cstdio>
#include <fstream>
#include <iterator>
#include <map>
#include <nlohmann/json.hpp>
#include <string>
#include <tuple>
#include <vector>

namespace {

struct Measured {
  double ns = 0;
  std::map<std::string, double> counters;
};

std::map<std::string, Measured> medians(const nlohmann::json& file) {
  std::map<std::string, Measured> all;
  for (const auto& entry : file["benchmarks"]) {
    if (entry.value("aggregate_name", "") != "median") continue;
    const std::map<std::string, double> unit{{"ns", 1}, {"us", 1e3}, {"ms", 1e6}, {"s", 1e9}};
    Measured measured;
    measured.ns = entry["real_time"].get<double>() * unit.at(entry["time_unit"].get<std::string>());
    for (const char* counter : {"allocations", "evaluations", "evaluations_per_point", "phases", "each"}) {
      if (entry.contains(counter)) measured.counters[counter] = entry[counter];
    }
    all[entry["run_name"]] = measured;
  }
  return all;
}

std::string time_text(double ns) {
  if (ns < 1e3) return fmt::format("{:.3g} ns", ns);
  if (ns < 1e6) return fmt::format("{:.3g} us", ns / 1e3);
  if (ns < 1e9) return fmt::format("{:.3g} ms", ns / 1e6);
  return fmt::format("{:.3g} s", ns / 1e9);
}

// A task, by us and the plain way, and what the plain way leaves out.
struct Pair {
  const char *task, *ours, *plain, *remark;
};

const std::vector<Pair> pairs{
    {"ln gamma, NRTL of three, same T", "nrtl_ternary", "nrtl_ternary_by_hand", "a kernel for exactly three"},
    {"ln gamma, NRTL of three, new T", "nrtl_ternary_new_T", "nrtl_ternary_new_T_by_hand",
     "a kernel for exactly three"},
    {"ln gamma, NRTL of ten, same T", "NrtlByComponents/10", "PlainNrtlByComponents/10", "the printed sums"},
    {"ln gamma, UNIFAC of four, new T", "unifac_4_components_new_T", "unifac_4_components_textbook",
     "the printed sums"},
    {"T-x-y of 101 points", "txy_101", "txy_101_textbook", "bisection; no azeotrope, no second liquid"},
    {"fit of 30 points, 3 parameters, one start", "fit_30_points_3_parameters/starts:1",
     "fit_30_points_textbook", "x taken as exact, differences, bisection; no uncertainties"},
    {"fit of 30 points, 3 parameters, 16 starts", "fit_30_points_3_parameters/starts:16",
     "fit_30_points_textbook", "the same, still one start"},
    {"ternary diagram of 25 tie lines", "ternary_25_tie_lines", "ternary_25_plain",
     "Newton from the edge; no plait point, no test for a third liquid"},
    {"flash of ten, 300 K, 30 bar", "PengRobinsonTenFlash/300/30", "PlainTenFlash/300/30",
     "substitution; no test of stability"},
    {"flash of ten, 250 K, 10 bar", "PengRobinsonTenFlash/250/10", "PlainTenFlash/250/10",
     "substitution; no test of stability"},
    {"residue curve map of 60 curves, NRTL", "HomogeneousMap", "PlainCurves",
     "equal steps of time, cold starts; curves only"},
    {"the same map", "HomogeneousMap", "HomogeneousMapSlopeBySlope",
     "a boiling point for every slope, as until version 1.0"},
};

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    fmt::print(stderr, "usage: performance_page FILE.json\n");
    return 2;
  }
  std::ifstream in(argv[1]);
  std::string text{std::istreambuf_iterator<char>(in), {}};
  // The scatter of a counter that is always 0 is written as NaN, which is no JSON.
  for (std::size_t at = 0; (at = text.find(": NaN", at)) != std::string::npos; at += 5)
    text.replace(at, 5, ": 0.0");
  const auto file = nlohmann::json::parse(text);
  const auto measured = medians(file);
  fmt::print(
      "# Performance\n\nWritten by `scripts/performance` from one run of `jampot_bench`: release build, "
      "medians of {} "
      "repetitions,\n{} cores at {} MHz. Times differ from machine to machine and from hour to hour; the "
      "ratios are "
      "of\nthe same run. [speed.md](speed.md) describes the tasks and further measurements.\n\n",
      file["benchmarks"][0]["repetitions"].get<int>(), file["context"]["num_cpus"].get<int>(),
      file["context"]["mhz_per_cpu"].get<int>());
  fmt::print(
      "## Compared with a plain textbook implementation of the same task\n\nBoth are in the same file under "
      "`bench/`. "
      "A ratio below 1: Jam Pot does more and takes longer.\n\n"
      "| task | Jam Pot | plain | plain / Jam Pot | the plain way |\n|---|---|---|---|---|\n");
  for (const Pair& pair : pairs) {
    const double ours = measured.at(pair.ours).ns, plain = measured.at(pair.plain).ns;
    const double ratio = plain / ours;
    fmt::print("| {} | {} | {} | {:.{}f} | {} |\n", pair.task, time_text(ours), time_text(plain), ratio,
               ratio < 1    ? 2
               : ratio < 10 ? 1
                            : 0,
               pair.remark);
  }
  fmt::print(
      "\n## Many states in one call\n\nNRTL of three, 1,024 compositions; the time of each.\n\n"
      "| | in one call | one by one |\n|---|---|---|\n");
  for (const auto& [task, many, one] :
       {std::tuple("ln gamma, same T", "nrtl_ternary_1024", "nrtl_ternary"),
        std::tuple("ln gamma, a T for each", "nrtl_ternary_1024_new_T", "nrtl_ternary_new_T"),
        std::tuple("bubble temperature", "bubble_1024", "bubble_one_by_one"),
        std::tuple("does it split, same T", "stability_1024_same_T", "stability_one_by_one"),
        std::tuple("does it split, a T for each", "stability_1024", "stability_one_by_one")}) {
    const auto& single = measured.at(one);
    const auto each = single.counters.find("each");
    fmt::print("| {} | {} | {} |\n", task, time_text(1e9 * measured.at(many).counters.at("each")),
               time_text(each == single.counters.end() ? single.ns : 1e9 * each->second));
  }
  const auto table = [&](const char* title, const char* column,
                         const std::vector<std::pair<const char*, const char*>>& rows,
                         const std::vector<int>& sizes, const char* ending) {
    fmt::print("\n## {}\n\n| {} |", title, column);
    for (const int size : sizes) fmt::print(" {} |", size);
    fmt::print("\n|---|");
    for (std::size_t k = 0; k < sizes.size(); ++k) fmt::print("---|");
    fmt::print("\n");
    for (const auto& [name, label] : rows) {
      fmt::print("| {} |", label);
      for (const int size : sizes)
        fmt::print(" {} |", time_text(measured.at(fmt::format("{}{}{}", name, size, ending)).ns));
      fmt::print("\n");
    }
  };
  table("With components", "components",
        {{"NrtlByComponents/", "ln gamma, NRTL"},
         {"PlainNrtlByComponents/", "the same from the printed sums"},
         {"FlashByComponents/", "flash, Peng-Robinson"}},
        {2, 3, 5, 10, 20}, "");
  table("With points", "points", {{"TxyByPoints/", "T-x-y with azeotrope, NRTL"}}, {26, 51, 101, 201, 401},
        "");
  table("With threads", "threads",
        {{"MapsByThreads/real_time/threads:",
          "wall time per residue curve map, UNIFAC, a mixture for each thread"}},
        {1, 2}, "");
  fmt::print("\n## Memory\n\n| | allocations |\n|---|---|\n");
  fmt::print("| ln gamma, NRTL, any number of components | {:.3g} |\n",
             measured.at("NrtlByComponents/20").counters.at("allocations"));
  fmt::print("| T-x-y of 101 points, whole | {:.0f} |\n",
             measured.at("TxyByPoints/101").counters.at("allocations"));
  fmt::print("\nNo liquid model allocates once it is made: `tests/liquid/allocation_test.cpp` counts.\n");
  return 0;
}
