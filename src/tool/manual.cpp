#include "manual.hpp"

#include <fmt/format.h>

#include "jampot/basis/notice_kinds.hpp"
#include "jampot/basis/text.hpp"

namespace jampot::tool {
namespace {

// For troff: a backslash and a hyphen that is one stay what they are; a line does not begin a request.
std::string troff(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c == '\\') {
      out += "\\e";
    } else if (c == '-') {
      out += "\\-";
    } else {
      if ((c == '.' || c == '\'') && (out.empty() || out.back() == '\n')) out += "\\&";
      out += c;
    }
  }
  return out;
}

std::string one_command(const Command& command) {
  std::string text = fmt::format(".SS {}\n{}.\n", troff(command.name), troff(command.about));
  for (const Option& option : command.options) {
    if (option.is_argument()) text += fmt::format(".TP\n.I {}\n{}\n", troff(option.name), troff(option.help));
  }
  for (const Option& option : command.options) {
    if (option.is_argument()) continue;
    const std::string type = option.is_flag() ? "" : " \\fI" + troff(option.type) + "\\fR";
    text += fmt::format(".TP\n\\fB{}\\fR{}\n{}\n", troff(option.name), type, troff(option.help));
  }
  if (!command.footer.empty()) text += fmt::format(".PP\n.nf\n{}\n.fi\n", troff(command.footer));
  return text;
}

bool wants_file(const Option& option) {
  return option.type.starts_with("FILE") || option.type == "FOLDER" || option.type == "LIST";
}

}  // namespace

std::string manual_page(const Commands& commands, const std::string& version) {
  std::string text = fmt::format(
      ".TH JAMPOT 1 \"\" \"jampot {}\" \"User Commands\"\n.SH NAME\njampot \\- {}\n.SH SYNOPSIS\n.B "
      "jampot\n.I "
      "COMMAND\n[\\fIARGUMENT\\fR...] [\\fIOPTION\\fR...]\n.SH DESCRIPTION\n{}\n.SH COMMANDS\n",
      troff(version), troff(commands.about), troff(commands.footer));
  for (const Command& command : commands.list) text += one_command(command);
  text +=
      ".SH EXIT STATUS\n.TP\n.B 0\ndone\n.TP\n.B 1\nthe calculation cannot be done; the message says "
      "why\n.TP\n.B "
      "2\nthe request or a file is wrong; the message says where\n";
  return text;
}

std::string bash_completion(const Commands& commands) {
  std::vector<std::string> names;
  std::string cases, files;
  for (const Command& command : commands.list) {
    names.push_back(command.name);
    std::vector<std::string> options{"--help"};
    for (const Option& option : command.options) {
      if (option.is_argument()) continue;
      options.push_back(option.name);
      options.insert(options.end(), option.aliases.begin(), option.aliases.end());
      if (wants_file(option))
        files += fmt::format("    {}:{}) COMPREPLY=($(compgen -f -- \"$word\")); return ;;\n", command.name,
                             option.name);
    }
    cases += fmt::format("    {}) words=\"{}\" ;;\n", command.name, joined(options, " "));
  }
  return fmt::format(
      "# bash completion of jampot, made by 'jampot help bash'\n_jampot() {{\n"
      "  local word=${{COMP_WORDS[COMP_CWORD]}} before=${{COMP_WORDS[COMP_CWORD-1]}} "
      "command=${{COMP_WORDS[1]}} words\n"
      "  COMPREPLY=()\n"
      "  if [ \"$COMP_CWORD\" -eq 1 ]; then COMPREPLY=($(compgen -W \"{}\" -- \"$word\")); return; fi\n"
      "  case $command:$before in\n{}  esac\n"
      "  case $command in\n{}    *) return ;;\n  esac\n"
      "  case $word in\n    -*) COMPREPLY=($(compgen -W \"$words\" -- \"$word\")) ;;\n"
      "    *) COMPREPLY=($(compgen -f -- \"$word\")) ;;\n  esac\n}}\n"
      "complete -o filenames -F _jampot jampot\n",
      joined(names, " "), files, cases);
}

std::string list_of_notices() {
  std::string page =
      "# Notices\n\nWritten by `jampot help notices`. A notice travels with a result: on the screen, in the "
      "JSON, on the figure.\nIts code stays the same from version to version; a program can act on it.\n\n"
      "- note: good to know.\n- doubt: the result may be off.\n- serious: the result should not be used "
      "without a second look.\n\n| code | weight | about | meaning |\n|---|---|---|---|\n";
  for (const NoticeKind& kind : notice_kinds())
    page += fmt::format("| `{}` | {} | {} | {} |\n", kind.code, name_of(kind.severity), kind.subject,
                        kind.meaning);
  return page;
}

}  // namespace jampot::tool
