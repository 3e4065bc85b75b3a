// Fits a pair of NRTL, or of UNIQUAC where that cannot, to the handbook facts of every pair that has some,
// and writes those that meet them: data/pairs_from_facts.csv. Takes some minutes.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <future>
#include <optional>
#include <set>
#include <stdexcept>
#include <string>
#include <vector>

#include "jampot/known/from_facts.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"

using namespace jampot;

namespace {

std::string quoted(const std::string& name) {
  return name.find(',') == std::string::npos ? name : '"' + name + '"';
}

int failing_that_decide(const Mixture& mixture, const std::vector<HeldFact>& held) {
  int failing = 0;
  for (const HeldFact& one : held)
    failing += one.fact->grade != 'C' && held_against(mixture, *one.fact).fails();
  return failing;
}

// Whether it does better on facts of grades A and B than what was published of the pair for the same model.
bool before_print(const PairFromFacts& found) {
  const auto published = published_pairs(found.pair.model, found.pair.between[0], found.pair.between[1]);
  if (published.empty()) return false;
  const auto made = [&](const PairParameters& pair) {
    ParameterCollection collection;
    collection.add(pair);
    return Mixture(substances_named({pair.between[0], pair.between[1]}), pair.model, collection);
  };
  return failing_that_decide(made(found.pair), found.held) <
         failing_that_decide(made(published.front()), found.held);
}

// The lower triangle, row by row: of B12 and B21, or of A12, B12, A21, B21.
std::string covariance_of(const PairParameters& pair) {
  const std::size_t n = pair.fitted.size();
  const bool as_stored = (n == 2 || n == 4) && pair.fitted.front().term.ends_with("_12") &&
                         pair.fitted.back().term.ends_with("_21") && pair.covariance.size() == n * n;
  if (!as_stored) throw std::logic_error("a pair from facts has other coefficients than the table");
  std::vector<std::string> parts;
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t j = 0; j <= i; ++j) parts.push_back(fmt::format("{:.9g}", pair.covariance[i * n + j]));
  return fmt::format("{}", fmt::join(parts, "|"));
}

void write(const PairFromFacts& found) {
  const PairParameters& pair = found.pair;
  const auto& terms = description_of(pair.model).terms;
  const TemperatureFunction &first = pair.terms.at(terms.at(0).name),
                            &second = pair.terms.at(terms.at(1).name);
  const std::string alpha = found.alpha > 0 ? fmt::format("{:g}", found.alpha) : "";
  int failing = 0;
  for (const HeldFact& held : found.held) failing += held.fails();
  fmt::print("{},{},{},{:.6g},{:.6g},{:.6g},{:.6g},{},{:.2f},{:.2f},{},{},{},{},\"{}\"\n",
             quoted(pair.between[0]), quoted(pair.between[1]), pair.model, first.constant, first.inverse_T,
             second.constant, second.inverse_T, alpha, (*pair.T_range_K)[0], (*pair.T_range_K)[1],
             found.held.size(), failing, before_print(found) ? "yes" : "no", covariance_of(pair),
             pair.source);
}

}  // namespace

int main() {
  std::set<std::array<std::string, 2>> names;
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.substances.size() != 2) continue;
    std::array<std::string, 2> pair{fact.substances[0], fact.substances[1]};
    std::sort(pair.begin(), pair.end());
    names.insert(pair);
  }
  const std::vector<std::array<std::string, 2>> pairs(names.begin(), names.end());
  std::vector<std::optional<PairFromFacts>> found(pairs.size());
  const auto half = [&](std::size_t from) {
    for (std::size_t k = from; k < pairs.size(); k += 2) {
      for (const char* model : {"nrtl", "uniquac"}) {
        found[k] = pair_from_facts(Bank::built_in().require(pairs[k][0]),
                                   Bank::built_in().require(pairs[k][1]), model);
        if (!found[k] || found[k]->sound()) break;
      }
    }
  };
  auto other = std::async(std::launch::async, half, std::size_t{1});
  half(0);
  other.get();
  fmt::print(
      "# Pairs fitted to handbook facts, of NRTL (tau = A + B/T) and, where those cannot meet the facts, of\n"
      "# UNIQUAC (tau = exp(-A - B/T), sizes of the bank); written by bench/pairs_from_facts.cpp\n"
      "# Only those that meet every azeotrope, absence of one, miscibility and solubility of grade A or B\n"
      "first,second,model,A12,B12_K,A21,B21_K,alpha,low_K,high_K,facts,failing,before_print,covariance,"
      "source\n");
  for (const auto& one : found) {
    if (one && one->sound()) write(*one);
  }
}
