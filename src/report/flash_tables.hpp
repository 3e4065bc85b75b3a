#pragma once
// Flashed feeds in tables and JSON.
#include "jampot/report/answer.hpp"
#include "jampot/study/flash.hpp"

namespace jampot {

/// Two tables of all cases (states and phases); of a single one also the amounts of every substance in every
/// phase.
std::vector<Table> flash_tables(const std::vector<FlashCase>& cases, const std::vector<Substance>& substances,
                                Basis basis);
Json to_json(const FlashCase& flash, const std::vector<Substance>& substances);

}  // namespace jampot
