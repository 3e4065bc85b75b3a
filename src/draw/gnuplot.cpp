#include "gnuplot.hpp"

#include <fmt/format.h>

#include <algorithm>
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

// SVGs one after the other, each with its XML declaration in front.
std::vector<std::string> parted(const std::string& svgs) {
  constexpr std::string_view declaration = "<?xml";
  std::vector<std::string> parts;
  for (std::size_t at = svgs.find(declaration); at != std::string::npos;) {
    const std::size_t next = svgs.find(declaration, at + declaration.size());
    parts.push_back(svgs.substr(at, next == std::string::npos ? next : next - at));
    at = next;
  }
  return parts;
}

// The groups of an SVG that hold nothing: the pens of the figure before.
std::string without_empty_groups(const std::string& svg) {
  constexpr std::string_view opening = "<g ", closing = "</g>\n";
  std::string kept;
  kept.reserve(svg.size());
  for (std::size_t at = 0; at < svg.size();) {
    const std::size_t end = std::min(svg.find('\n', at), svg.size() - 1) + 1;
    const std::string_view line(svg.data() + at, end - at);
    const bool empty = line.starts_with(opening) && line.ends_with(">\n") &&
                       std::string_view(svg).substr(end).starts_with(closing);
    if (!empty) kept += line;
    at = empty ? end + closing.size() : end;
  }
  return kept;
}

std::string picture_of(const std::string& script, double most_s) {
  ProgramOutput drawn = run_program({"gnuplot", "-d"}, script, {most_s, environment()});
  if (!drawn.found)
    throw CalculationError("gnuplot is not installed; figures need it (Debian package gnuplot-nox)");
  if (drawn.out_of_time)
    throw CalculationError(fmt::format("the figure was not drawn within {} seconds", most_s));
  if (drawn.interrupted) throw CalculationError("drawing was interrupted");
  if (drawn.status != 0)
    throw CalculationError(
        fmt::format("gnuplot could not draw the figure (its exit status is {})", drawn.status));
  return std::move(drawn.out);
}

[[noreturn]] void not_whole() {
  throw CalculationError("gnuplot could not draw the figure; what it wrote is no whole picture");
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
  std::string picture = picture_of(script, longest_drawing_s);
  if (!is_whole(picture, ending)) not_whole();
  return ending == ".svg" ? without_empty_groups(picture) : picture;
}

std::vector<std::string> run_gnuplot(const std::vector<std::string>& scripts) {
  if (scripts.empty()) return {};
  const double count = static_cast<double>(scripts.size());
  std::vector<std::string> pictures =
      parted(picture_of(joined(scripts, "reset\n"), count * longest_drawing_s));
  const auto whole = [](const std::string& picture) { return is_whole(picture, ".svg"); };
  if (pictures.size() != scripts.size() || !std::all_of(pictures.begin(), pictures.end(), whole)) not_whole();
  for (std::string& picture : pictures) picture = without_empty_groups(picture);
  return pictures;
}

}  // namespace jampot
