#include "group.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <condition_variable>
#include <mutex>
#include <nlohmann/json.hpp>
#include <stop_token>
#include <thread>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/collection_files.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/known/held.hpp"
#include "jampot/report/regress.hpp"
#include "jampot/study/consistency.hpp"
#include "jampot/study/regress.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/version.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

// Asks for an end when its time is over.
class Deadline {
 public:
  explicit Deadline(double seconds)
      : watch_([this, seconds](const std::stop_token& over) {
          std::unique_lock lock(mutex_);
          changed_.wait_for(lock, over, std::chrono::duration<double>(seconds), [] { return false; });
          if (!over.stop_requested()) stop_.request_stop();
        }) {}
  std::stop_token token() const { return stop_.get_token(); }

 private:
  std::stop_source stop_;
  std::mutex mutex_;
  std::condition_variable_any changed_;
  std::jthread watch_;
};

Json in_json(const std::vector<SetVerdict>& verdicts) {
  Json all = Json::array();
  for (const SetVerdict& verdict : verdicts) {
    if (!verdict.tests) {
      all.push_back({{"set", verdict.set}, {"quality", nullptr}, {"reason", verdict.why}});
      continue;
    }
    Json failed = Json::array();
    for (const ConsistencyTest& test : verdict.tests->tests) {
      if (test.verdict == Verdict::failed) failed.push_back(test.name);
    }
    all.push_back({{"set", verdict.set}, {"quality", verdict.tests->quality}, {"failed", failed}});
  }
  return all;
}

Json facts_of(const Fit& fit) {
  OnFacts record;
  Json against = Json::array();
  FactJudge judge(fit.mixture());
  std::vector<std::string> names;
  for (const Substance& substance : fit.substances) names.push_back(substance.name);
  for (const Fact* fact : KnownFacts::built_in().among(names)) {
    try {
      const HeldFact held = judge.held(*fact);
      record.add(held);
      if (held.fails()) against.push_back(held.sentence(fit.options.model));
    } catch (const std::runtime_error&) {
      continue;  // a substance without a vapour pressure
    }
  }
  return {{"judged", record.judged}, {"agreeing", record.agreeing}, {"against", against}};
}

// What speaks against using the parameters, the gravest first; "usable" where nothing does.
std::string verdict_of(const Fit& fit, const Json& record) {
  constexpr double much_misfit = 3;
  const double reduced = fit.degrees_of_freedom > 0 ? fit.objective / fit.degrees_of_freedom : 0;
  std::vector<std::string> doubts;
  for (const char* grave : {"data-misread", "data-implausible", "sets-disagree"}) {
    if (fit.notices.has(grave)) doubts.push_back(grave);
  }
  if (reduced > much_misfit)
    doubts.push_back(fmt::format("chi-square over degrees of freedom {:.1f}", reduced));
  for (const FittedParameter* one : fit.free()) {
    if (!one->at_bound) continue;
    doubts.push_back("a parameter at its bound");
    break;
  }
  const int judged = record["facts"]["judged"], agreeing = record["facts"]["agreeing"];
  if (agreeing < judged)
    doubts.push_back(fmt::format("{} of {} handbook facts missed", judged - agreeing, judged));
  return doubts.empty() ? "usable" : "doubtful: " + joined(doubts, ", ");
}

Json fitted_record(const RegressStudy& study, const std::vector<SetVerdict>& consistency) {
  const Fit& best = study.best();
  Json record;
  record["model"] = best.options.model;
  record["points"] = best.points;
  record["reduced_chi_square"] =
      best.degrees_of_freedom > 0 ? Json(best.objective / best.degrees_of_freedom) : Json(nullptr);
  const auto rms = [](const std::optional<double>& value) { return value ? Json(*value) : Json(nullptr); };
  record["rms"] = {{"T_K", rms(best.deviation.T_K)},
                   {"P_Pa", rms(best.deviation.P_Pa)},
                   {"y", rms(best.deviation.y)},
                   {"liquids", rms(best.rms_liquids())}};
  record["T_range_K"] = best.T_range_K;
  record["P_range_Pa"] = best.P_range_Pa;
  record["ranking"] = Json::array();
  for (const RankedFit& ranked : study.fits)
    record["ranking"].push_back({{"model", ranked.fit.options.model},
                                 {"aicc_above_best", ranked.aicc_above_best},
                                 {"weight", ranked.weight},
                                 {"verdict", ranked.verdict}});
  record["consistency"] = in_json(consistency);
  record["facts"] = facts_of(best);
  record["notices"] = Json::array();
  for (const Notice& notice : best.notices) record["notices"].push_back(notice.code);
  record["verdict"] = verdict_of(best, record);
  return record;
}

}  // namespace

fs::path report_file(const fs::path& out, const std::string& name) {
  return out / "reports" / (name + ".html");
}
fs::path record_file(const fs::path& out, const std::string& name) {
  return out / "records" / (name + ".json");
}

std::string key_of(const ArchiveGroup& group, const CollectRequest& request) {
  const std::string made_by = fmt::format("{} {} {} folds {} s {}", version, data_version(),
                                          joined(request.models, ","), request.folds, request.most_s);
  return fmt::format("{:016x}", checksum(made_by, group.content));
}

std::string record_with(const fs::path& out, const std::string& name, const std::string& key) {
  std::error_code failed;
  if (!fs::exists(record_file(out, name), failed)) return {};
  std::string text = read_file(record_file(out, name));
  const Json record = parsed_json(text);
  const bool same = record.is_object() && record.value("key", "") == key;
  const bool whole =
      same && (!record.value("fitted", false) || (fs::exists(collection_pairs(out, name), failed) &&
                                                  fs::exists(report_file(out, name), failed)));
  return whole ? text : std::string();
}

std::string work_out(const ArchiveGroup& group, const CollectRequest& request) {
  Json record{{"name", group.name}, {"key", key_of(group, request)}, {"substances", group.substances}};
  record["sets"] = Json::array();
  for (const DataSet& set : group.sets)
    record["sets"].push_back(
        {{"file", set.name}, {"kind", name_of(set.kind)}, {"points", set.points.size()}});
  const Deadline deadline(request.most_s);
  try {
    RegressRequest fit;
    fit.sets = group.sets;
    fit.models = request.models;
    fit.folds = request.folds;
    fit.options.stop = deadline.token();
    const RegressStudy study = jampot::study(fit);
    if (deadline.token().stop_requested()) throw CalculationError("stopped");
    const auto consistency = verdicts_on(group.sets, study.best().options.vapour);
    record.update(fitted_record(study, consistency));
    record["fitted"] = true;
    write_file(collection_pairs(request.out, group.name), pairs_text(study.best()));
    for (const RankedFit& other : study.fits) {
      const std::string& model = other.fit.options.model;
      if (model != study.best().options.model)
        write_file(collection_pairs(request.out, group.name, model), pairs_text(other.fit));
    }
    fit_report(study, {}, consistency).write(report_file(request.out, group.name), {});
  } catch (const std::runtime_error& error) {
    record["fitted"] = false;
    record["verdict"] = deadline.token().stop_requested()
                            ? fmt::format("not fitted: it took longer than {:.6g} s", request.most_s)
                            : fmt::format("not fitted: {}", error.what());
    std::error_code failed;
    fs::remove(collection_pairs(request.out, group.name), failed);
    for (const std::string& model : request.models)
      fs::remove(collection_pairs(request.out, group.name, model), failed);
    fs::remove(report_file(request.out, group.name), failed);
  }
  std::string text = json_text(record, 1);
  write_file(record_file(request.out, group.name), text);
  return text;
}

}  // namespace jampot
