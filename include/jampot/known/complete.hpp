#pragma once
// Where the pairs of a mixture come from: files first, then print, then the facts of handbooks, then (on
// request) a prediction.
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/regression/estimate.hpp"

namespace jampot {

/// What to do about a pair that neither a file nor the built-in collection has.
enum class MissingPairs {
  refuse,
  known,     ///< fitted now to the handbook facts of the pair; where there are none, estimated
  estimate,  ///< fitted to a prediction
  ideal      ///< without interaction
};
/// @throws RequestError naming them
MissingPairs parse_missing_pairs(const std::string& text);

/// The pairs that `model` needs for these substances: those in `given`, else the published one that comes
/// first, else that of the collection fitted to handbook facts (NRTL), else by `policy`. A pair that stays
/// missing is left out, and making the mixture will refuse it by name.
/// @param notices is told of every pair fitted to facts, every estimate and every pair taken as ideal
ParameterCollection complete_pairs(const std::string& model, const std::vector<Substance>& substances,
                                   const ParameterCollection& given, MissingPairs policy,
                                   const EstimateOptions& options, Notices& notices);

}  // namespace jampot
