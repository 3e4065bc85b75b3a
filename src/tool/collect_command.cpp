// collect: an archive of measured data, made into a collection of pair parameters.
#include <fmt/format.h>

#include <charconv>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/collection/collect.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct CollectWords {
  std::string folder, out, models = "wilson, nrtl, uniquac", shard;
  std::vector<std::string> substance_files;
  int folds = 5, threads = 0;
  double limit = 300;
  bool merge = false;
  PresentationOptions presentation;
};

// "3/40"
void read_shard(const std::string& text, CollectRequest& request) {
  if (text.empty()) return;
  const char* const end = text.data() + text.size();
  const auto first = std::from_chars(text.data(), end, request.shard);
  const bool slash = first.ec == std::errc() && first.ptr != end && *first.ptr == '/';
  const auto second = slash ? std::from_chars(first.ptr + 1, end, request.shards) : first;
  if (!slash || second.ec != std::errc() || second.ptr != end)
    throw RequestError(fmt::format("--shard '{}': expected a part and their number, as 3/40", text));
}

}  // namespace

void add_collect(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<CollectWords>();
  Command& command =
      tool.add("collect", "Fit a whole archive of measured data and write a collection of pair parameters");
  command
      .option("FOLDER", words->folder, "FOLDER",
              "Measured data: every .csv and .xml (ThermoML) file in it and below")
      .needed();
  command.option("--out", words->out, "FOLDER", "The collection, which --parameters of every command takes")
      .needed();
  command.option("--models", words->models, "LIST",
                 "Models to fit and rank (default \"wilson, nrtl, uniquac\")");
  command.option("--folds", words->folds, "NUMBER", "Folds of the cross validation (default 5)");
  command.option("--limit", words->limit, "SECONDS", "Time limit for one group of substances (default 300)");
  command.option("--threads", words->threads, "NUMBER", "How many cores are used (default: all)");
  command.option("--shard", words->shard, "PART",
                 "Work on one shard of the groups, as 3/40, for several machines");
  command.flag("--merge", words->merge, "Merge the results of all shards and write the tables");
  add_substance_files(command, words->substance_files);
  add_presentation(command, words->presentation, false);
  command.footer =
      "A second run works out only what has changed.\n"
      "Example ('jampot demo' writes the made-up data):\n  jampot collect jampot-demo --out mine.collection";
  answers(command, words->presentation, presenter, [words, &presenter](const Presentation& presentation) {
    const auto bank = bank_with(words->substance_files);
    CollectRequest request{words->folder, words->out};
    request.models = split(words->models, ',');
    request.folds = words->folds;
    request.most_s = words->limit;
    request.threads = words->threads;
    request.merge = words->merge;
    request.bank = bank.get();
    read_shard(words->shard, request);
    Progress progress;
    const ProgressLine line("groups of substances", progress, presenter.shows_progress());
    request.progress = &progress;
    return answer(study(request), {presentation.units});
  });
}

}  // namespace jampot::tool
