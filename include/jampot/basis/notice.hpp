#pragma once
// A notice is a doubt that travels with a result: a correlation outside its range, a fit that invents a
// split.
#include <string>
#include <vector>

namespace jampot {

/// One doubt: `code` is for programs and stays the same, `text` is a sentence a person can act on.
struct Notice {
  std::string code;  ///< short name, listed in docs/notices.md
  std::string text;  ///< one sentence for the reader
  /// Same code and same text.
  bool operator==(const Notice&) const = default;
};

/// The notices of one result, each kept once. Those of one code that differ in a single number, as the same
/// doubt at several temperatures does, are one notice with all its numbers.
class Notices {
 public:
  Notices();                                     ///< none
  Notices(const Notices& other);                 ///< all of them
  Notices(Notices&& other) noexcept;             ///< takes them over
  Notices& operator=(const Notices& other);      ///< all of them
  Notices& operator=(Notices&& other) noexcept;  ///< takes them over
  ~Notices();                                    ///< with all of them

  /// Adds what is not there yet.
  void add(std::string code, std::string text);
  /// Adds what is not there yet.
  void add(const Notices& others);
  /// True where a notice of this code is there.
  bool has(const std::string& code) const;
  /// True where there is none.
  bool empty() const { return list_.empty(); }
  /// First notice.
  auto begin() const { return list_.begin(); }
  /// Past the last notice.
  auto end() const { return list_.end(); }

 private:
  std::vector<Notice> list_;
  std::vector<std::vector<std::string>> said_;  ///< of each, the texts that it stands for
};

}  // namespace jampot
