#include "xml_pieces.hpp"

#include <expat.h>
#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"

namespace jampot {
namespace {

std::string_view without_prefix(std::string_view name) {
  const std::size_t colon = name.find(':');
  return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

}  // namespace

struct XmlPieces::Parser {
  XML_Parser expat = XML_ParserCreate(nullptr);
  ~Parser() { XML_ParserFree(expat); }
};

// An exception may not pass through expat: it is kept until the parser has returned.
struct XmlPieces::Handlers {
  template <class Call>
  static void guarded(XmlPieces& pieces, const Call& call) {
    try {
      call();
    } catch (...) {
      pieces.failed_ = std::current_exception();
      XML_StopParser(pieces.parser_->expat, XML_FALSE);
    }
  }
  static void begin(void* data, const XML_Char* name, const XML_Char**) {
    auto& pieces = *static_cast<XmlPieces*>(data);
    guarded(pieces, [&] { pieces.begin(name); });
  }
  static void end(void* data, const XML_Char* name) {
    auto& pieces = *static_cast<XmlPieces*>(data);
    guarded(pieces, [&] { pieces.end(name); });
  }
};

XmlPieces::XmlPieces(std::string file, std::string root, std::function<void(const Element&)> take)
    : file_(std::move(file)),
      root_(std::move(root)),
      take_(std::move(take)),
      parser_(std::make_unique<Parser>()) {
  XML_SetUserData(parser_->expat, this);
  XML_SetElementHandler(parser_->expat, Handlers::begin, Handlers::end);
}

XmlPieces::~XmlPieces() = default;

void XmlPieces::begin(std::string_view name) {
  if (depth_ == 0 && without_prefix(name) != root_) {
    throw RequestError({file_, static_cast<int>(XML_GetCurrentLineNumber(parser_->expat)), {}},
                       fmt::format("expected one element '{}'; this is '{}'", root_, shortened(name, 60)));
  }
  if (depth_ == 1) {
    element_ = XML_GetCurrentByteIndex(parser_->expat);
    element_line_ = static_cast<int>(XML_GetCurrentLineNumber(parser_->expat));
  }
  ++depth_;
}

void XmlPieces::end(std::string_view name) {
  if (--depth_ != 1) return;
  const long long last = XML_GetCurrentByteIndex(parser_->expat) + XML_GetCurrentByteCount(parser_->expat);
  const std::string_view text = std::string_view(held_).substr(static_cast<std::size_t>(element_ - offset_),
                                                               static_cast<std::size_t>(last - element_));
  element_ = -1;
  take_({without_prefix(name), text, element_line_});
}

// Up to the end of a tag, so that no character is cut.
void XmlPieces::feed(std::string_view bytes) {
  const std::size_t end = bytes.rfind('>');
  if (end == std::string_view::npos) {
    unread_ += bytes;
    return;
  }
  unread_ += bytes.substr(0, end + 1);
  parse(unread_, false);
  unread_ = bytes.substr(end + 1);
}

void XmlPieces::finish() {
  parse(unread_, true);
}

void XmlPieces::parse(std::string_view bytes, bool last) {
  int line = 0;
  if (const std::string why = unreadable(bytes, Lines::several, &line); !why.empty())
    throw RequestError({file_, lines_ + line, {}}, why);
  lines_ += static_cast<int>(std::count(bytes.begin(), bytes.end(), '\n'));
  held_ += bytes;
  const bool well =
      XML_Parse(parser_->expat, bytes.data(), static_cast<int>(bytes.size()), last) == XML_STATUS_OK;
  if (failed_) std::rethrow_exception(failed_);
  if (!well) {
    throw RequestError(
        {file_, static_cast<int>(XML_GetCurrentLineNumber(parser_->expat)), {}},
        fmt::format("this is no well-formed XML: {}", XML_ErrorString(XML_GetErrorCode(parser_->expat))));
  }
  // A '>' within an attribute cuts a tag, of which the parser then keeps the beginning: so must we.
  const std::size_t done =
      element_ < 0 ? std::min(held_.rfind('<'), held_.size()) : static_cast<std::size_t>(element_ - offset_);
  offset_ += static_cast<long long>(done);
  held_.erase(0, done);
}

}  // namespace jampot
