#include "jampot/files/collection_files.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

// The sets of one pair, or of three substances, the best model first.
std::vector<ParameterCollection> sets_of(const fs::path& collection, const std::vector<std::string>& names,
                                         const Bank& bank) {
  std::vector<ParameterCollection> sets;
  const std::string name = collection_name(names);
  std::error_code failed;
  std::vector<fs::path> files{collection_pairs(collection, name)};
  for (const std::string& model : pair_model_names())
    files.push_back(collection_pairs(collection, name, model));
  for (const fs::path& file : files) {
    if (!fs::exists(file, failed)) continue;
    sets.emplace_back();
    read_pairs(file, sets.back(), bank);
  }
  return sets;
}

// Of every group of substances the set of one model; empty where a group has none of it.
std::vector<const ParameterCollection*> of_model(const std::vector<std::vector<ParameterCollection>>& groups,
                                                 const std::string& model) {
  std::vector<const ParameterCollection*> chosen;
  for (const auto& sets : groups) {
    const auto found = std::find_if(sets.begin(), sets.end(), [&](const ParameterCollection& set) {
      return set.all().front().model == model;
    });
    if (found == sets.end()) return {};
    chosen.push_back(&*found);
  }
  return chosen;
}

// The model that every group has and that is the best of most of them.
std::string best_model(const std::vector<std::vector<ParameterCollection>>& groups) {
  std::string best;
  long most = -1;
  for (const ParameterCollection& set : groups.front()) {
    const std::string& model = set.all().front().model;
    if (of_model(groups, model).empty()) continue;
    const long times = std::count_if(groups.begin(), groups.end(), [&](const auto& sets) {
      return sets.front().all().front().model == model;
    });
    if (times > most) {
      most = times;
      best = model;
    }
  }
  return best;
}

}  // namespace

bool is_collection(const fs::path& folder) {
  std::error_code failed;
  return fs::is_directory(folder / "records", failed) && fs::is_directory(folder / "pairs", failed);
}

std::string collection_name(std::vector<std::string> substances) {
  std::sort(substances.begin(), substances.end());
  std::string stem;
  for (const std::string& name : substances) {
    if (!stem.empty()) stem += "--";
    // What every system takes and no list of files parts.
    for (const char c : name) stem += std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '-' ? c : '_';
  }
  return stem;
}

fs::path collection_pairs(const fs::path& collection, const std::string& name) {
  return collection / "pairs" / (name + ".pairs.toml");
}

fs::path collection_pairs(const fs::path& collection, const std::string& name, const std::string& model) {
  return collection / "others" / fmt::format("{}.{}.pairs.toml", name, model);
}

void read_collection(const fs::path& collection, const std::vector<Substance>& substances,
                     const std::string& model, ParameterCollection& parameters, const Bank& bank) {
  if (!is_collection(collection))
    throw RequestError(
        fmt::format("{}: a folder of pair parameters is a collection, which `jampot collect` writes",
                    collection.string()));
  std::vector<std::string> names;
  for (const Substance& substance : substances) names.push_back(substance.name);
  std::vector<std::vector<ParameterCollection>> groups;
  bool all = true;
  for (std::size_t i = 0; i < names.size(); ++i) {
    for (std::size_t j = i + 1; j < names.size(); ++j) {
      auto sets = sets_of(collection, {names[i], names[j]}, bank);
      if (sets.empty())
        all = false;
      else
        groups.push_back(std::move(sets));
    }
  }
  if (!all) {
    auto whole = sets_of(collection, names, bank);
    if (names.size() > 2 && !whole.empty()) groups = {std::move(whole)};
  }
  if (groups.empty())
    throw RequestError(
        fmt::format("{}: the collection has no pair of {}", collection.string(), joined(names, ", ")));
  const std::string chosen = model.empty() ? best_model(groups) : model;
  for (const auto& sets : groups) {
    auto set = std::find_if(sets.begin(), sets.end(), [&](const ParameterCollection& one) {
      return one.all().front().model == chosen;
    });
    if (set == sets.end() && model.empty()) set = sets.begin();  // no model has them all: that is told
    if (set == sets.end()) continue;
    for (const PairParameters& pair : set->all()) parameters.add(pair);
  }
}

}  // namespace jampot
