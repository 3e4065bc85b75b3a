#pragma once
// A large XML text, taken apart into the elements below its root while it is read: no more than one of them
// is held.
#include <exception>
#include <functional>
#include <memory>
#include <string>
#include <string_view>

namespace jampot {

class XmlPieces {
 public:
  /// An element below the root, as it stands in the text.
  struct Element {
    std::string_view name;  ///< without the prefix of its namespace
    std::string_view text;
    int line = 1;  ///< where it begins
  };

  /// @param root what the root must be called, without prefix; `take` gets each element below it in turn
  XmlPieces(std::string file, std::string root, std::function<void(const Element&)> take);
  ~XmlPieces();
  XmlPieces(const XmlPieces&) = delete;
  XmlPieces& operator=(const XmlPieces&) = delete;

  /// The next bytes, cut anywhere.
  /// @throws RequestError with the line where the text is not readable, no well-formed XML or has another
  /// root; what `take` throws
  void feed(std::string_view bytes);
  /// After the last bytes. @throws as `feed`
  void finish();

 private:
  struct Handlers;
  void parse(std::string_view bytes, bool last);
  void begin(std::string_view name);
  void end(std::string_view name);

  std::string file_, root_;
  std::function<void(const Element&)> take_;
  struct Parser;
  std::unique_ptr<Parser> parser_;
  std::string unread_;    ///< came in, not yet parsed
  int lines_ = 0;         ///< ended in what was parsed
  std::string held_;      ///< from the beginning of the open element on
  long long offset_ = 0;  ///< of `held_` in the text
  long long element_ = -1;
  int element_line_ = 1, depth_ = 0;
  std::exception_ptr failed_;
};

}  // namespace jampot
