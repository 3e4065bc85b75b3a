#include "jampot/phase/feed.hpp"

#include <fmt/format.h>

#include <cmath>
#include <numeric>
#include <optional>

#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

bool is_flow(Dimension dimension) {
  return dimension == Dimension::molar_flow || dimension == Dimension::mass_flow;
}

bool is_mass(Dimension dimension) {
  return dimension == Dimension::mass || dimension == Dimension::mass_flow;
}

struct Sized {
  double value;
  Dimension dimension;
};

Sized read_amount(std::string_view text, const std::string& of) {
  const Dimension dimension =
      dimension_of(text, {Dimension::mass_flow, Dimension::molar_flow, Dimension::mass, Dimension::amount});
  const double value = parse_quantity(text, dimension);
  if (!(value >= 0)) throw RequestError(fmt::format("the amount of {} is negative: '{}'", of, trimmed(text)));
  return {value, dimension};
}

std::vector<NamedValue> entries(std::string_view text, const std::vector<Substance>& substances) {
  std::vector<NamedValue> list = named_values(text);
  for (const NamedValue& entry : list) {
    if (!entry.has_value)
      throw RequestError(fmt::format("'{}' in the feed: expected NAME=AMOUNT, as in \"{}=1000 kg/h\"",
                                     shortened(entry.name), substances[0].name));
  }
  return list;
}

// A fraction, not an amount: a number alone or with a percent sign.
bool plain(const std::string& value) {
  try {
    parse_quantity(value, Dimension::fraction);
    return true;
  } catch (const RequestError&) {
    return false;
  }
}

// Fractions, with or without an amount of the whole.
Feed from_fractions(std::string_view text, std::string_view amount, const std::vector<Substance>& substances,
                    Basis basis) {
  Feed feed;
  feed.n = parse_composition(text, substances, basis);
  if (amount.empty()) return feed;
  const Sized whole = read_amount(amount, "the feed");
  if (!(whole.value > 0)) throw RequestError("the amount of the feed is zero");
  feed.sized = true;
  feed.flows = is_flow(whole.dimension);
  double moles = whole.value;
  if (is_mass(whole.dimension)) {
    double molar_mass = 0;
    for (std::size_t i = 0; i < substances.size(); ++i)
      molar_mass += feed.n[i] * substances[i].molar_mass_kg_mol;
    moles /= molar_mass;
  }
  for (double& value : feed.n) value *= moles;
  return feed;
}

}  // namespace

Feed feed_of_moles(std::vector<double> n, bool flows) {
  double sum = 0;
  for (const double amount : n) {
    if (!(amount >= 0) || !std::isfinite(amount))
      throw RequestError("an amount of a feed is negative, or none");
    sum += amount;
  }
  if (!(sum > 0)) throw RequestError("the feed is empty");
  return {std::move(n), flows, true};
}

Feed feed_of_masses(const std::vector<double>& m_kg, const std::vector<Substance>& substances, bool flows) {
  if (m_kg.size() != substances.size())
    throw RequestError(
        fmt::format("the feed has {} masses; there are {} substances", m_kg.size(), substances.size()));
  std::vector<double> n;
  for (std::size_t i = 0; i < m_kg.size(); ++i) n.push_back(m_kg[i] / substances[i].molar_mass_kg_mol);
  return feed_of_moles(std::move(n), flows);
}

double Feed::total() const {
  return std::accumulate(n.begin(), n.end(), 0.0);
}

std::vector<double> Feed::fractions() const {
  std::vector<double> x = n;
  const double sum = total();
  for (double& value : x) value /= sum;
  return x;
}

Feed parse_feed(std::string_view text, std::string_view amount, const std::vector<Substance>& substances,
                Basis basis) {
  const std::vector<NamedValue> given = entries(text, substances);
  bool fractions = true;
  for (const NamedValue& entry : given) fractions = fractions && plain(entry.value);
  if (fractions) return from_fractions(text, amount, substances, basis);
  if (!amount.empty())
    throw RequestError("the feed already has amounts; a total amount is for a feed in fractions");
  std::vector<std::optional<double>> n(substances.size());
  std::optional<bool> flows;
  for (const NamedValue& entry : given) {
    const std::size_t i = member_named(entry.name, substances);
    if (n[i]) throw RequestError(fmt::format("{} is given twice in the feed", substances[i].name));
    const Sized sized = read_amount(entry.value, substances[i].name);
    if (flows && *flows != is_flow(sized.dimension))
      throw RequestError("the feed mixes amounts and flows; give all of them per time or none");
    flows = is_flow(sized.dimension);
    n[i] = sized.value / (is_mass(sized.dimension) ? substances[i].molar_mass_kg_mol : 1);
  }
  Feed feed;
  feed.sized = true;
  feed.flows = flows.value_or(false);
  for (std::size_t i = 0; i < n.size(); ++i) {
    if (!n[i])
      throw RequestError(fmt::format("the feed does not mention {0}; if there is none, write \"{0}=0 {1}\"",
                                     substances[i].name, feed.flows ? "kg/h" : "kg"));
    feed.n.push_back(*n[i]);
  }
  if (!(feed.total() > 0)) throw RequestError("the feed is empty");
  return feed;
}

}  // namespace jampot
