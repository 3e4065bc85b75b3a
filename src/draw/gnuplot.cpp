#include "gnuplot.hpp"

#include <fmt/format.h>

#include <cctype>
#include <cstdlib>
#include <pugixml.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/files/program.hpp"

namespace jampot {
namespace {

constexpr double longest_drawing_s = 60;

// Where programs, fonts and temporary files are, and nothing else that could change a figure; the time zone
// stands in a PDF.
std::vector<std::string> environment() {
  std::vector<std::string> list{"TZ=UTC", "LC_ALL=C.UTF-8"};
  for (const char* name :
       {"PATH", "HOME", "TMPDIR", "XDG_CACHE_HOME", "FONTCONFIG_FILE", "FONTCONFIG_PATH"}) {
    if (const char* const value = std::getenv(name)) list.push_back(fmt::format("{}={}", name, value));
  }
  return list;
}

bool is_whole(const std::string& picture, std::string_view ending) {
  using namespace std::string_view_literals;
  if (ending == ".png")
    return picture.starts_with("\x89PNG\r\n\x1A\n") && picture.ends_with("IEND\xAE\x42\x60\x82");
  if (ending == ".pdf") return picture.starts_with("%PDF-") && trimmed(picture).ends_with("%%EOF");
  pugi::xml_document document;
  return document.load_buffer(picture.data(), picture.size()) &&
         document.document_element().name() == "svg"sv;
}

}  // namespace

std::string gnuplot_text(std::string_view text) {
  // Units as print has them, wherever the text comes from.
  std::string shown(readable(text, Lines::one));
  const std::string plain_degree = "degC", degree = printed_unit(plain_degree);
  for (std::size_t at = shown.find(plain_degree); at != std::string::npos;
       at = shown.find(plain_degree, at + degree.size()))
    shown.replace(at, plain_degree.size(), degree);
  // Only what cannot mean anything stands there as it is. (Single quotes would do for the rest, were not a
  // doubled quote at the beginning of a text taken for an empty one by gnuplot 5.4.)
  constexpr std::string_view harmless = " .,:;()+-/=";
  std::string out = "\"";
  bool after_number = false;
  for (const char c : shown) {
    const auto byte = static_cast<unsigned char>(c);
    // gnuplot reads as many digits as follow, so a digit behind such a number is written as one too.
    const bool plain = byte >= 0x80 || harmless.find(c) != std::string_view::npos ||
                       (std::isalnum(byte) != 0 && !(after_number && std::isdigit(byte) != 0));
    out += plain ? std::string(1, c) : fmt::format("\\{:03o}", byte);
    after_number = !plain;
  }
  return out + "\"";
}

std::string run_gnuplot(const std::string& script, std::string_view ending) {
  ProgramOutput drawn = run_program({"gnuplot", "-d"}, script, {longest_drawing_s, environment()});
  if (!drawn.found)
    throw CalculationError("gnuplot is not installed; figures need it (Debian package gnuplot-nox)");
  if (drawn.out_of_time)
    throw CalculationError(fmt::format("the figure was not drawn within {} seconds", longest_drawing_s));
  if (drawn.interrupted) throw CalculationError("drawing was interrupted");
  if (drawn.status != 0 || !is_whole(drawn.out, ending)) {
    throw CalculationError(fmt::format("gnuplot could not draw the figure{}",
                                       drawn.status == 0
                                           ? "; what it wrote is no whole picture"
                                           : fmt::format(" (its exit status is {})", drawn.status)));
  }
  return std::move(drawn.out);
}

}  // namespace jampot
