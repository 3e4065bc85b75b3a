#pragma once
// Texts in pages: the one place in which each form of page gets its escapes.
#include <string>
#include <string_view>

namespace jampot {

/// As text or as the value of an attribute of HTML or XML.
std::string html_text(std::string_view text);

/// As text of Markdown (CommonMark, also in a cell of a table): nothing in it is markup, HTML or a link.
std::string markdown_text(std::string_view text);

/// As text of LaTeX: nothing in it is a command; units and signs stay what they are.
std::string latex_text(std::string_view text);

/// JSON as the content of a script element: nothing in it ends the element or begins a comment.
std::string script_json(std::string_view json);

/// The name of a file as a relative link: everything but letters, digits and "-._~" as %XX.
std::string link_to(std::string_view file_name);

}  // namespace jampot
