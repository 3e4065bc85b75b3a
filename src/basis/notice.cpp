#include "jampot/basis/notice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <regex>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

// A text cut at its numbers. Digits of names ("1-butanol", "1,2-ethanediol") are no numbers.
struct Cut {
  std::vector<std::string> words, numbers;
};

Cut cut(const std::string& text) {
  static const std::regex number(
      "(^|[ (])(-?[0-9]+(?:[.][0-9]+)?(?:e[-+]?[0-9]+)?)(?=$|[ );:%]|[,.](?:$| ))");
  Cut parts;
  std::size_t from = 0;
  for (std::sregex_iterator match(text.begin(), text.end(), number), none; match != none; ++match) {
    const auto at = static_cast<std::size_t>(match->position(2));
    parts.words.push_back(text.substr(from, at - from));
    parts.numbers.push_back(match->str(2));
    from = at + match->str(2).size();
  }
  parts.words.push_back(text.substr(from));
  return parts;
}

// One sentence for all of these, if they differ in one number alone.
std::optional<std::string> together(const std::vector<std::string>& texts) {
  const Cut first = cut(texts.front());
  std::optional<std::size_t> place;
  std::vector<std::string> values;
  for (const std::string& text : texts) {
    const Cut other = cut(text);
    if (other.words != first.words) return std::nullopt;
    for (std::size_t k = 0; k < first.numbers.size(); ++k) {
      if (other.numbers[k] == first.numbers[k]) continue;
      if (place && *place != k) return std::nullopt;
      place = k;
    }
  }
  if (!place) return std::nullopt;
  for (const std::string& text : texts) values.push_back(cut(text).numbers[*place]);
  constexpr std::size_t listed = 4;
  const auto [least, most] = std::minmax_element(
      values.begin(), values.end(), [](const auto& a, const auto& b) { return std::stod(a) < std::stod(b); });
  const std::string said = values.size() > listed
                               ? fmt::format("{} to {} ({} times)", *least, *most, values.size())
                               : joined({values.begin(), values.end() - 1}, ", ") + " and " + values.back();
  std::string sentence;
  for (std::size_t k = 0; k < first.words.size(); ++k) {
    sentence += first.words[k];
    if (k < first.numbers.size()) sentence += k == *place ? said : first.numbers[k];
  }
  return sentence;
}

}  // namespace

Notices::Notices() = default;
Notices::Notices(const Notices&) = default;
Notices::Notices(Notices&&) noexcept = default;
Notices& Notices::operator=(const Notices&) = default;
Notices& Notices::operator=(Notices&&) noexcept = default;
Notices::~Notices() = default;

void Notices::add(std::string code, std::string text) {
  for (std::size_t k = 0; k < list_.size(); ++k) {
    if (list_[k].code != code) continue;
    if (std::find(said_[k].begin(), said_[k].end(), text) != said_[k].end()) return;
    std::vector<std::string> both = said_[k];
    both.push_back(text);
    if (const auto sentence = together(both)) {
      list_[k].text = *sentence;
      said_[k] = std::move(both);
      return;
    }
  }
  said_.push_back({text});
  list_.push_back({std::move(code), std::move(text)});
}

void Notices::add(const Notices& others) {
  for (std::size_t k = 0; k < others.list_.size(); ++k) {
    for (const std::string& text : others.said_[k]) add(others.list_[k].code, text);
  }
}

bool Notices::has(const std::string& code) const {
  return std::any_of(list_.begin(), list_.end(), [&](const Notice& notice) { return notice.code == code; });
}

}  // namespace jampot
