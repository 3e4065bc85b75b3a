#include "jampot/collection/archive.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/collection_files.hpp"
#include "jampot/files/measured.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

bool hidden(const fs::path& path) {
  return path.filename().string().starts_with(".");
}

void find_files(const fs::path& folder, std::vector<fs::path>& files, std::vector<PassedOver>& passed_over,
                const fs::path& top) {
  std::error_code failed;
  const fs::directory_iterator entries(folder, failed);
  if (failed) {
    const std::string reason = "the folder cannot be read: " + system_reason(failed.value());
    if (folder == top) throw RequestError(folder.string() + ": " + reason);
    passed_over.push_back({fs::relative(folder, top).string(), reason});
    return;
  }
  for (const auto& entry : entries) {
    if (hidden(entry.path())) continue;
    if (entry.is_directory(failed) && !entry.is_symlink(failed)) {
      if (!is_collection(entry.path()))  // its tables are no data
        find_files(entry.path(), files, passed_over, top);
      continue;
    }
    const std::string ending = lower_case(entry.path().extension().string());
    if (entry.is_regular_file(failed) && (ending == ".csv" || ending == ".xml"))
      files.push_back(entry.path());
  }
}

// Substances in the order of their names, and the fractions of every point likewise.
DataSet sorted_by_name(DataSet set) {
  const std::size_t n = set.substances.size();
  std::vector<std::size_t> order(n);
  for (std::size_t i = 0; i < n; ++i) order[i] = i;
  std::sort(order.begin(), order.end(),
            [&](std::size_t a, std::size_t b) { return set.substances[a].name < set.substances[b].name; });
  std::vector<std::size_t> place(n);
  for (std::size_t i = 0; i < n; ++i) place[order[i]] = i;
  const auto exchanged = [&](auto& list) {
    if (list.size() != n) return;
    auto sorted = list;
    for (std::size_t i = 0; i < n; ++i) sorted[i] = list[order[i]];
    list = std::move(sorted);
  };
  exchanged(set.substances);
  for (DataPoint& point : set.points) {
    exchanged(point.x);
    exchanged(point.y);
    if (point.solute == point.solvent) continue;  // it has none
    point.solute = place[point.solute];
    point.solvent = place[point.solvent];
  }
  return set;
}

std::string reason_against(const DataSet& set) {
  constexpr std::size_t most = 3;
  if (set.points.empty()) return "it has no points";
  if (set.substances.size() < 2) return "it is about one substance";
  if (set.substances.size() > most)
    return fmt::format("it is about {} substances; pairs and triples are fitted", set.substances.size());
  return {};
}

}  // namespace

std::uint64_t checksum(std::string_view text, std::uint64_t before) {
  for (const char c : text) {
    before ^= static_cast<unsigned char>(c);
    before *= 0x100000001b3;
  }
  return before;
}

Archive read_archive(const fs::path& folder, const Bank& bank) {
  Archive archive;
  std::vector<fs::path> files;
  find_files(folder, files, archive.passed_over, folder);
  std::sort(files.begin(), files.end());
  if (files.empty())
    throw RequestError(
        fmt::format("{}: there is no .csv or .xml file in this folder or below", folder.string()));
  std::map<std::vector<std::string>, ArchiveGroup> groups;
  for (const fs::path& file : files) {
    const std::string name = fs::relative(file, folder).generic_string();
    ++archive.files;
    std::vector<DataSet> sets;
    std::uint64_t of_file = 0;
    try {
      of_file = checksum(read_file(file));
      sets = read_measured_file(file, bank);
    } catch (const std::runtime_error& error) {
      std::string reason = error.what();
      if (reason.starts_with(file.string())) reason = reason.substr(file.string().size());
      const std::size_t begin = reason.find_first_not_of(": ");
      archive.passed_over.push_back({name, begin == std::string::npos ? reason : reason.substr(begin)});
      continue;
    }
    for (std::size_t k = 0; k < sets.size(); ++k) {
      DataSet set = sorted_by_name(std::move(sets[k]));
      set.name = sets.size() == 1 ? name : fmt::format("{}#{}", name, k + 1);
      if (const std::string reason = reason_against(set); !reason.empty()) {
        archive.passed_over.push_back({set.name, reason});
        continue;
      }
      std::vector<std::string> names;
      for (const Substance& substance : set.substances) names.push_back(substance.name);
      ArchiveGroup& group = groups[names];
      group.substances = names;
      group.content = checksum(fmt::format("{} {:016x}", set.name, of_file),
                               group.sets.empty() ? checksum("") : group.content);
      group.sets.push_back(std::move(set));
      ++archive.sets;
    }
  }
  for (auto& [names, group] : groups) {
    group.name = collection_name(names);
    if (!archive.groups.empty() && archive.groups.back().name == group.name)
      archive.passed_over.push_back({group.sets.front().name, "its substances have the file name of others"});
    else
      archive.groups.push_back(std::move(group));
  }
  std::sort(archive.passed_over.begin(), archive.passed_over.end(),
            [](const PassedOver& a, const PassedOver& b) { return a.file < b.file; });
  return archive;
}

}  // namespace jampot
