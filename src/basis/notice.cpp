#include "jampot/basis/notice.hpp"

#include <algorithm>

namespace jampot {

void Notices::add(std::string code, std::string text) {
  Notice notice{std::move(code), std::move(text)};
  if (std::find(list_.begin(), list_.end(), notice) == list_.end()) list_.push_back(std::move(notice));
}

void Notices::add(const Notices& others) {
  for (const Notice& notice : others) add(notice.code, notice.text);
}

bool Notices::has(const std::string& code) const {
  return std::any_of(list_.begin(), list_.end(), [&](const Notice& notice) { return notice.code == code; });
}

}  // namespace jampot
