#include "markup.hpp"

#include <fmt/format.h>

#include <cctype>

#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

std::string html_text(std::string_view text) {
  std::string out;
  for (const char c : readable(text)) {
    switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      case '"':
        out += "&quot;";
        break;
      case '\'':
        out += "&#39;";
        break;
      default:
        out += c;
    }
  }
  return out;
}

std::string markdown_text(std::string_view text) {
  // Any of these may stand behind a backslash (CommonMark 0.30, section 2.4); only those that can begin
  // something get one, so that the text stays readable as it is.
  constexpr std::string_view anywhere = "\\`*_[]<>|~&$", first_of_line = "#+-=:";
  std::string out;
  bool at_start = true, number = false;
  const std::string whole = readable(text);
  for (std::size_t k = 0; k < whole.size(); ++k) {
    const char c = whole[k];
    const bool blank_next =
        k + 1 == whole.size() || std::isspace(static_cast<unsigned char>(whole[k + 1])) != 0;
    if (at_start && (c == ' ' || c == '\t')) continue;  // four blanks would begin a block of code
    const bool digit = std::isdigit(static_cast<unsigned char>(c)) != 0;
    if (anywhere.find(c) != std::string_view::npos ||
        (at_start && first_of_line.find(c) != std::string_view::npos) ||
        (number && blank_next && (c == '.' || c == ')')))  // "1. " would begin a list
      out += '\\';
    out += c;
    number = digit && (at_start || number);
    at_start = c == '\n' || c == '\r';
  }
  return out;
}

std::string latex_text(std::string_view text) {
  std::string out;
  for (const char c : readable(text)) {
    switch (c) {
      case '\\':
        out += "\\textbackslash{}";
        break;
      case '~':
        out += "\\textasciitilde{}";
        break;
      case '^':
        out += "\\textasciicircum{}";
        break;
      case '<':
        out += "\\textless{}";
        break;
      case '>':
        out += "\\textgreater{}";
        break;
      case '|':
        out += "\\textbar{}";
        break;
      case '&':
      case '%':
      case '$':
      case '#':
      case '_':
      case '{':
      case '}':
        out += '\\';
        out += c;
        break;
      default:
        out += c;
    }
  }
  return out;
}

std::string script_json(std::string_view json) {
  std::string out;
  for (const char c : readable(json)) {
    if (c == '<' || c == '>' || c == '&') {
      out += c == '<' ? "\\u003c" : c == '>' ? "\\u003e" : "\\u0026";
    } else {
      out += c;
    }
  }
  return out;
}

std::string link_to(std::string_view file_name) {
  constexpr std::string_view plain = "-._~/";
  std::string out;
  for (const char c : file_name) {
    const auto byte = static_cast<unsigned char>(c);
    out += std::isalnum(byte) != 0 || plain.find(c) != std::string_view::npos ? std::string(1, c)
                                                                              : fmt::format("%{:02X}", byte);
  }
  return out;
}

}  // namespace jampot
