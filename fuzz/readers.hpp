#pragma once
// Every reader of what people type or download, under one face.
#include <map>
#include <string>
#include <string_view>

namespace jampot::fuzz {

/// Reads a text and looks at what came out. What is wrong with the text must end in a RequestError or a
/// CalculationError, which are taken; anything else is a fault of the reader.
using Reader = void (*)(std::string_view text);

/// All of them by name.
const std::map<std::string, Reader>& readers();

/// Runs one reader over a text; false where the text was refused.
bool read_or_refuse(Reader reader, std::string_view text);

}  // namespace jampot::fuzz
