#include "jampot/collection/collect.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <set>

#include "../basis/side_by_side.hpp"
#include "group.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/files/collection_files.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

void demand(const CollectRequest& request) {
  const std::vector<std::string> known = pair_model_names();
  for (const std::string& model : request.models) {
    if (std::find(known.begin(), known.end(), model) == known.end())
      throw RequestError(fmt::format("`models` '{}': no model that is fitted; there are {}.{}", model,
                                     joined(known, ", "), did_you_mean(model, known)));
  }
  if (request.models.empty()) throw RequestError("there is no model to fit");
  if (request.shards < 1 || request.shard < 1 || request.shard > request.shards)
    throw RequestError(fmt::format("`shard` {}/{}: expected a number from 1 to the number of shards, as 3/40",
                                   request.shard, request.shards));
  if (request.threads < 0)
    throw RequestError(
        fmt::format("`threads` {}: expected a number of cores, or 0 for all of them", request.threads));
  if (request.out.empty()) throw RequestError("`out` names the folder of the collection");
  if (!(request.most_s > 0)) throw RequestError("`limit` is a time above zero");
  std::error_code failed;
  if (fs::exists(request.out, failed) && !fs::is_directory(request.out, failed))
    throw RequestError(fmt::format("`out` {}: it is there and is no folder", request.out.string()));
}

constexpr std::array folders{"pairs", "others", "reports", "records"};

void make_folders(const fs::path& out) {
  for (const char* name : folders) {
    std::error_code failed;
    fs::create_directories(out / name, failed);
    if (failed)
      throw CalculationError(fmt::format("{}: cannot create the folder: {}", (out / name).string(),
                                         system_reason(failed.value())));
  }
}

// The part that a group belongs to depends on its name alone: parts agree on it without talking.
bool in_part(const ArchiveGroup& group, const CollectRequest& request) {
  return checksum(group.name) % static_cast<std::uint64_t>(request.shards) + 1 ==
         static_cast<std::uint64_t>(request.shard);
}

CollectedGroup collected(const ArchiveGroup& group, std::string record, bool renewed) {
  const Json json = parsed_json(record);
  return {group.name, group.substances, json.value("fitted", false), renewed, std::move(record)};
}

// Files of groups that the archive no longer has.
void remove_others(const fs::path& out, const std::vector<ArchiveGroup>& groups) {
  std::set<fs::path> wanted;
  for (const ArchiveGroup& group : groups) {
    wanted.insert(collection_pairs(out, group.name));
    for (const std::string& model : pair_model_names())
      wanted.insert(collection_pairs(out, group.name, model));
    wanted.insert(report_file(out, group.name));
    wanted.insert(record_file(out, group.name));
  }
  for (const char* name : folders) {
    for (const auto& entry : fs::directory_iterator(out / name)) {
      std::error_code failed;
      if (!wanted.contains(entry.path())) fs::remove(entry.path(), failed);
    }
  }
}

Table table_of(const CollectStudy& study) {
  Table table{study.groups.size() == 1 ? "One group of substances"
                                       : fmt::format("{} groups of substances", study.groups.size()),
              {{"substances"},
               {"sets", Dimension::number, 0},
               {"points", Dimension::number, 0},
               {"model"},
               {"chi2/dof", Dimension::number, 2},
               {"rms T [K]", Dimension::number, 3},
               {"rms P", Dimension::pressure, 3},
               {"rms y", Dimension::fraction, 4},
               {"least quality", Dimension::number, 2},
               {"facts"},
               {"verdict"}},
              {}};
  for (const CollectedGroup& group : study.groups) {
    const Json record = parsed_json(group.record);
    const auto number = [](const Json& value) {
      return value.is_number() ? Cell(value.get<double>()) : Cell();
    };
    std::vector<Cell> row{joined(group.substances, ", "), static_cast<double>(record["sets"].size())};
    if (!group.fitted) {
      row.resize(table.columns.size());
      row.back() = record["verdict"].get<std::string>();
      table.rows.push_back(std::move(row));
      continue;
    }
    std::optional<double> least;
    for (const Json& one : record["consistency"]) {
      if (one["quality"].is_number()) least = std::min(least.value_or(1), one["quality"].get<double>());
    }
    const int judged = record["facts"]["judged"], agreeing = record["facts"]["agreeing"];
    row.insert(row.end(),
               {number(record["points"]), record["model"].get<std::string>(),
                number(record["reduced_chi_square"]), number(record["rms"]["T_K"]),
                number(record["rms"]["P_Pa"]), number(record["rms"]["y"]), least ? Cell(*least) : Cell(),
                judged == 0 ? std::string("-") : fmt::format("{} of {}", agreeing, judged),
                record["verdict"].get<std::string>()});
    table.rows.push_back(std::move(row));
  }
  return table;
}

Table passed_over_table(const CollectStudy& study) {
  Table table{"Passed over", {{"file"}, {"reason"}}, {}};
  for (const PassedOver& one : study.passed_over) table.rows.push_back({one.file, one.reason});
  return table;
}

void write_tables(const CollectStudy& study) {
  Table groups = table_of(study);
  const Table passed_over = passed_over_table(study);
  write_file(study.out / "collection.csv", as_csv({groups}, {}));
  write_file(study.out / "passed-over.csv", as_csv({passed_over}, {}));
  for (const CollectedGroup& group : study.groups)
    groups.links.push_back(group.fitted ? "reports/" + group.name + ".html" : "");
  Report page("A collection of pair parameters");
  page.text(fmt::format("{}, {} of data, {} of substances; each name leads to the page of its fit.",
                        counted(study.files, "file"), counted(study.sets, "set"),
                        counted(study.groups.size(), "group")));
  page.table(std::move(groups));
  if (!passed_over.rows.empty()) page.table(passed_over);
  page.write(study.out / "index.html", {});
}

}  // namespace

CollectStudy study(const CollectRequest& request) {
  demand(request);
  const Archive archive =
      read_archive(request.folder, request.bank != nullptr ? *request.bank : Bank::built_in());
  if (archive.groups.empty())
    throw RequestError(fmt::format("{}: none of {} holds data that can be fitted; the first: {}: {}",
                                   request.folder.string(), counted(archive.files, "file"),
                                   archive.passed_over.front().file, archive.passed_over.front().reason));
  make_folders(request.out);
  CollectStudy study;
  study.out = request.out;
  study.files = archive.files;
  study.sets = archive.sets;
  study.passed_over = archive.passed_over;
  study.whole = request.merge || request.shards == 1;
  std::vector<const ArchiveGroup*> mine;
  for (const ArchiveGroup& group : archive.groups) {
    if (request.merge || in_part(group, request)) mine.push_back(&group);
  }
  if (request.progress != nullptr) request.progress->expected = static_cast<long>(mine.size());
  study.groups.resize(mine.size());
  std::vector<std::string> missing(mine.size());
  const auto one = [&](std::size_t k) {
    const OneThread alone;  // the groups keep all cores busy
    std::string record = record_with(request.out, mine[k]->name, key_of(*mine[k], request));
    const bool renewed = record.empty();
    if (renewed && request.merge) {
      missing[k] = mine[k]->name;
      return;
    }
    if (renewed) record = work_out(*mine[k], request);
    study.groups[k] = collected(*mine[k], std::move(record), renewed);
    if (request.progress != nullptr) ++request.progress->done;
  };
  for_each_number(mine.size(), one, static_cast<std::size_t>(request.threads));
  std::erase(missing, "");
  if (!missing.empty())
    throw CalculationError(
        fmt::format("{} of {} groups are not done, or their data have changed since: {}{}. Run their shards "
                    "again, then merge",
                    missing.size(), mine.size(), missing.front(), missing.size() > 1 ? ", ..." : ""));
  for (const CollectedGroup& group : study.groups) study.renewed += group.renewed;
  if (study.whole) {
    remove_others(request.out, archive.groups);
    write_tables(study);
  } else {
    study.notices.add("part-of-collection",
                      fmt::format("this is shard {} of {}: the tables are written when all shards are merged",
                                  request.shard, request.shards));
  }
  if (!study.passed_over.empty())
    study.notices.add("passed-over",
                      fmt::format("skipped, each with its reason: {} of data",
                                  counted(study.passed_over.size(), "file or set", "files or sets")));
  return study;
}

Answer answer(const CollectStudy& study, const AnswerOptions&) {
  Answer answer;
  *answer.json = plain_header("collect");
  Json& json = *answer.json;
  json["out"] = study.out.string();
  json["files"] = study.files;
  json["sets"] = study.sets;
  json["whole"] = study.whole;
  json["renewed"] = study.renewed;
  json["groups"] = Json::array();
  for (const CollectedGroup& group : study.groups) json["groups"].push_back(parsed_json(group.record));
  json["passed_over"] = Json::array();
  for (const PassedOver& one : study.passed_over)
    json["passed_over"].push_back({{"file", one.file}, {"reason", one.reason}});
  Table all = table_of(study);
  Table shown = all;
  constexpr std::size_t most = 40;
  if (shown.rows.size() > most) {
    shown.title += fmt::format(", the first {}{}", most, all_rows_are_written);
    shown.rows.resize(most);
  }
  answer.tables = {std::move(all)};
  answer.screen = {std::move(shown)};
  if (!study.passed_over.empty()) answer.tables.push_back(passed_over_table(study));
  const auto fitted = std::count_if(study.groups.begin(), study.groups.end(),
                                    [](const CollectedGroup& group) { return group.fitted; });
  answer.lines.push_back(fmt::format("{}, {}; fitted: {} of {} of substances, {} of them in this run",
                                     counted(study.files, "file"), counted(study.sets, "set"), fitted,
                                     counted(study.groups.size(), "group"), study.renewed));
  if (study.whole)
    answer.lines.push_back(
        fmt::format("wrote {}, pairs, reports and records below it", (study.out / "index.html").string()));
  answer.notices = study.notices;
  answer.no_figure = "a collection is a table; its reports hold the figures";
  return answer;
}

}  // namespace jampot
