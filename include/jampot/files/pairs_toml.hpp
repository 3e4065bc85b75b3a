#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// Reads pair parameters (docs/files.md describes the form) into `collection`. Names are those of the bank or
/// aliases.
/// @throws RequestError naming file, line and key, what was expected and the nearest right thing.
void read_pairs(const std::filesystem::path& path, ParameterCollection& collection,
                const Bank& bank = Bank::built_in());

/// The same from text; `file` is used in messages and as source where the text states none.
void parse_pairs(std::string_view text, const std::string& file, ParameterCollection& collection,
                 const Bank& bank = Bank::built_in());

/// A fit as a pairs file: values to full precision, standard errors, correlation, ranges, data and
/// statistics. Without date, so that two runs give the same text.
std::string pairs_text(const Fit& fit);

/// Pairs of one model as a pairs file: an estimate, or a set converted from print.
std::string pairs_text(const std::vector<PairParameters>& pairs);

}  // namespace jampot
