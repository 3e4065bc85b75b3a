#include "name_index.hpp"

#include <algorithm>
#include <cctype>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

constexpr std::size_t ambiguous = static_cast<std::size_t>(-1);

// How far a key is from what was typed, in the order in which people expect matches: the key itself, its
// beginning, the beginning of one of its words, either of them misspelt, any part of it. Nothing where it is
// none of these.
std::optional<double> distance(const std::string& wanted, const std::string& key) {
  const std::string candidate = lower_case(key);
  if (candidate == wanted) return 0;
  if (candidate.starts_with(wanted)) return 1;
  const std::size_t most = wanted.size() < 4 ? 1 : 1 + wanted.size() / 4;
  const auto allowed = static_cast<double>(most);
  std::optional<double> best;
  const auto take = [&](double score) { best = std::min(score, best.value_or(score)); };
  for (std::size_t start = 0; start < candidate.size(); ++start) {
    const bool word = start == 0 || !std::isalnum(static_cast<unsigned char>(candidate[start - 1]));
    if (!word) continue;
    const std::string rest = candidate.substr(start);
    if (rest.starts_with(wanted)) take(2);
    if (wanted.size() < 4) continue;
    for (std::size_t size = wanted.size() - 1; size <= wanted.size() + 1 && size <= rest.size(); ++size) {
      const auto errors =
          static_cast<double>(edit_distance(wanted, std::string_view(rest).substr(0, size), most));
      if (errors <= allowed) take(2 + errors + (size < rest.size() ? 0.5 : 0));
    }
  }
  const auto errors = static_cast<double>(edit_distance(wanted, candidate, most));
  if (errors <= allowed) take(2 + errors);
  if (candidate.find(wanted) != std::string::npos) take(4);
  return best;
}

}  // namespace

NameIndex::NameIndex(const std::vector<SubstanceIdentity>& identities) : identities_(identities) {
  by_key_.reserve(5 * identities.size());
  for (std::size_t k = 0; k < identities.size(); ++k) {
    for (const std::string* key : {&identities[k].name, &identities[k].cas, &identities[k].formula})
      add(*key, k);
    for (const std::string& alias : identities[k].aliases) add(alias, k);
  }
}

void NameIndex::add(const std::string& key, std::size_t number) {
  if (key.empty()) return;  // a substance that a caller describes may have neither formula nor CAS number
  const auto [found, fresh] = by_key_.emplace(lower_case(key), number);
  if (!fresh && found->second != number) found->second = ambiguous;
}

std::optional<std::size_t> NameIndex::find(std::string_view text) const {
  const auto found = by_key_.find(lower_case(trimmed(text)));
  return found == by_key_.end() || found->second == ambiguous ? std::nullopt : std::optional(found->second);
}

std::vector<std::size_t> NameIndex::search(std::string_view text) const {
  const std::string wanted = lower_case(trimmed(text));
  if (wanted.empty()) return {};
  struct Scored {
    double distance;
    std::size_t number;
  };
  std::vector<Scored> scored;
  for (std::size_t k = 0; k < identities_.size(); ++k) {
    const SubstanceIdentity& one = identities_[k];
    std::optional<double> best = distance(wanted, one.name);
    const auto take = [&](std::optional<double> score) {
      if (score) best = std::min(*score, best.value_or(*score));
    };
    if (one.cas == wanted || lower_case(one.formula) == wanted) take(0);
    constexpr double by_another_name = 0.3;
    for (const std::string& alias : one.aliases) {
      if (const auto score = distance(wanted, alias)) take(*score + (*score > 0 ? by_another_name : 0));
    }
    if (best) scored.push_back({*best, k});
  }
  const auto begins_with_a_letter = [&](const Scored& one) {
    return std::isalpha(static_cast<unsigned char>(identities_[one.number].name.front())) != 0;
  };
  std::stable_sort(scored.begin(), scored.end(), [&](const Scored& a, const Scored& b) {
    if (a.distance != b.distance) return a.distance < b.distance;
    // Of equals those that begin with a letter: a locant or a parent name comes behind.
    return begins_with_a_letter(a) && !begins_with_a_letter(b);
  });
  // Where something fits well, what fits badly is noise.
  constexpr double part_of_a_name = 2.3, little_worse = 0.5;
  std::vector<std::size_t> matches;
  for (const Scored& entry : scored) {
    if (entry.distance > std::max(part_of_a_name, scored.front().distance + little_worse)) break;
    matches.push_back(entry.number);
  }
  return matches;
}

}  // namespace jampot
