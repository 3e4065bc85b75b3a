#pragma once
// TOML with messages that name file, line and key; shared by the readers of our own files.
#include <toml++/toml.h>

#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/error.hpp"

namespace jampot {

class TomlReader {
 public:
  explicit TomlReader(std::string file) : file_(std::move(file)) {}

  const std::string& file() const { return file_; }

  /// @throws RequestError with the line where the text is not TOML.
  toml::table parse(std::string_view text) const;

  [[noreturn]] void fail(const toml::node& node, const std::string& what) const;

  /// Adds the place of `node` to a RequestError thrown inside.
  template <class Call>
  void at(const toml::node& node, Call&& call) const {
    try {
      call();
    } catch (const RequestError& error) {
      fail(node, error.what());
    }
  }

  /// @throws RequestError for a key that is not among `keys`, with the nearest of them.
  void allow(const toml::table& table, const std::vector<std::string>& keys) const;

  const toml::node& require(const toml::table& table, const std::string& key) const;
  std::string text_of(const toml::node& node, const std::string& key) const;
  /// A text of one line, not longer than a person writes.
  std::string line_of(const toml::node& node, const std::string& key) const;
  double number_of(const toml::node& node, const std::string& key) const;

 private:
  std::string file_;
};

/// A text in quotes as TOML writes it, and a number that reads back as the same floating-point number.
std::string toml_text(const std::string& text);
std::string toml_number(double value);

}  // namespace jampot
