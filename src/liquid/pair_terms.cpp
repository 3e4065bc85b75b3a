#include "jampot/liquid/pair_terms.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

void check(std::string_view model, const PairParameters& pair, const std::vector<std::string_view>& names) {
  const auto place = [&] {
    return fmt::format("{} parameters for {} and {} ({})", model, pair.between[0], pair.between[1],
                       pair.source);
  };
  for (const std::string_view name : names) {
    if (!pair.terms.contains(std::string(name))) {
      throw RequestError(fmt::format("{}: '{}' is missing", place(), name));
    }
  }
  for (const auto& [name, function] : pair.terms) {
    if (std::find(names.begin(), names.end(), name) == names.end()) {
      throw RequestError(
          fmt::format("{}: '{}' is not a term of it; it has {}", place(), name, joined(names, ", ")));
    }
  }
}

}  // namespace

std::vector<ModelTerm> pair_terms(std::string_view model, std::size_t size,
                                  const std::vector<PairParameters>& pairs,
                                  const std::vector<std::string_view>& names) {
  std::vector<ModelTerm> terms;
  std::size_t p = 0;
  for (std::size_t i = 0; i < size; ++i) {
    for (std::size_t j = i + 1; j < size; ++j, ++p) {
      check(model, pairs.at(p), names);
      for (const std::string_view name : names) {
        terms.push_back({i, j, std::string(name), pairs[p].terms.at(std::string(name))});
      }
    }
  }
  return terms;
}

}  // namespace jampot
