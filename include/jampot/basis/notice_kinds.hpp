#pragma once
// Every notice there is: its code, how much it matters, what it is about.
#include <string_view>
#include <vector>

namespace jampot {

/// How much a notice matters.
enum class Severity {
  note,    ///< good to know
  doubt,   ///< the result may be off
  serious  ///< the result should not be used without a second look
};
/// "note", "doubt" or "serious".
std::string_view name_of(Severity severity);

/// A code of a Notice and what it stands for.
struct NoticeKind {
  std::string_view code;               ///< short name
  Severity severity = Severity::note;  ///< how much it matters
  std::string_view subject;            ///< "fit", "vapour", "data" ...
  std::string_view meaning;            ///< one sentence without its point
};

/// All of them, by code. Codes stay the same from version to version (docs/notices.md).
const std::vector<NoticeKind>& notice_kinds();

/// The kind of a code, or nullptr.
const NoticeKind* notice_kind(std::string_view code);

}  // namespace jampot
