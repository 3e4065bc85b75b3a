#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/thermoml.hpp"
#include "jampot/measured/assumed.hpp"
#include "jampot/phase/composition.hpp"
#include "thermoml_document.hpp"

namespace jampot {
namespace {

using thermoml::Block;
using thermoml::Column;
using thermoml::Quantity;
using thermoml::Role;
using thermoml::Row;
using thermoml::Value;

constexpr const char* liquid = "Liquid";
constexpr const char* gas = "Gas";
constexpr const char* one_liquid = "Liquid mixture 1";
constexpr const char* other_liquid = "Liquid mixture 2";

// Why a data set is of no use here.
struct PassedOver {
  std::string reason;
};

bool of_composition(Quantity quantity) {
  return quantity >= Quantity::mole_fraction && quantity <= Quantity::mass_ratio;
}

// A data set of the file as one of ours.
class BlockReader {
 public:
  BlockReader(const Block& block, const std::string& file, const Bank& bank)
      : block_(block), file_(file), bank_(bank) {
    data_.name = fmt::format("{}#{}", file, block.number);
  }

  // A set of kind lle with empty y holds one liquid only; `first_liquid` tells which.
  DataSet read() {
    find_substances();
    data_.kind = kind_of_columns();
    for (const Row& row : block_.rows) read_row(row);
    if (data_.points.empty()) throw PassedOver{"no row is complete"};
    if (vapour_liquid(data_.kind) && !by_property_) data_.kind = boiling_kind(data_.points);
    assumed_.add_notice(data_.name, data_.kind, data_.notices);
    return std::move(data_);
  }

  bool half() const { return data_half_; }
  bool first_liquid() const { return first_liquid_; }

 private:
  bool any(Quantity quantity, const char* phase = nullptr) const {
    return std::any_of(block_.columns.begin(), block_.columns.end(), [&](const Column& column) {
      return column.quantity == quantity && (!phase || column.phase == phase);
    });
  }

  bool composed(const char* phase) const {
    return std::any_of(block_.columns.begin(), block_.columns.end(), [&](const Column& column) {
      return of_composition(column.quantity) && column.component && column.phase == phase;
    });
  }

  void find_substances() {
    if (block_.components.size() < 2) throw PassedOver{"one substance alone"};
    for (const thermoml::Compound* compound : block_.components) {
      const Substance* found = compound->cas.empty() ? nullptr : bank_.find(compound->cas);
      for (const std::string& name : compound->names) {
        if (!found) found = bank_.find(name);
      }
      if (!found) {
        throw PassedOver{fmt::format("{} is not in the databank (`substance` adds a user-defined component)",
                                     compound->names.empty() ? compound->cas : compound->names.front())};
      }
      for (const Substance& other : data_.substances) {
        if (other.name == found->name) throw PassedOver{fmt::format("it names {} twice", found->name)};
      }
      data_.substances.push_back(*found);
    }
  }

  DataKind kind_of_columns() {
    for (const Column& column : block_.columns) {
      if (column.role != Role::property && column.quantity == Quantity::other)
        throw PassedOver{fmt::format("it depends on '{}'", column.name)};
    }
    if (const auto kind = value_kind()) return *kind;
    if (composed(one_liquid) || composed(other_liquid)) {
      if (composed(gas)) throw PassedOver{"three phases at once"};
      first_liquid_ = composed(one_liquid);
      data_half_ = !composed(one_liquid) || !composed(other_liquid);
      return DataKind::lle;
    }
    const Column* observed = nullptr;
    for (const Column& column : block_.columns) {
      const bool boils = column.quantity == Quantity::temperature || column.quantity == Quantity::pressure;
      if (column.role == Role::property && boils) observed = &column;
    }
    if (!observed && !composed(gas)) {
      const auto property = std::find_if(block_.columns.begin(), block_.columns.end(),
                                         [](const Column& column) { return column.role == Role::property; });
      throw PassedOver{
          property == block_.columns.end()
              ? "it holds no property"
              : fmt::format("'{}' is not a phase equilibrium that Jam Pot reads", property->name)};
    }
    if (!composed(liquid)) throw PassedOver{"the liquid was not analysed"};
    if (!any(Quantity::temperature) || !any(Quantity::pressure))
      throw PassedOver{"temperature or pressure is not stated"};
    by_property_ = observed != nullptr;
    const bool isobaric = observed && observed->quantity == Quantity::temperature;
    if (composed(gas)) return isobaric ? DataKind::txy : DataKind::pxy;
    return isobaric ? DataKind::tx : DataKind::px;
  }

  // A value of a liquid; one that may be infinitely dilute is so where every row has a pure solvent.
  std::optional<DataKind> value_kind() const {
    std::optional<DataKind> found;
    for (const Column& column : block_.columns) {
      if (column.quantity != Quantity::liquid_value) continue;
      for (const KindDescription* kind : liquid_value_kinds()) {
        if (lower_case(column.name) != lower_case(kind->value->thermoml_name)) continue;
        if (kind->value->dilute && !every_solvent_pure()) continue;
        if (!found) found = kind->kind;
      }
    }
    return found;
  }

  bool every_solvent_pure() const {
    return std::all_of(block_.rows.begin(), block_.rows.end(), [&](const Row& row) {
      double largest = 0;
      double sum = 0;
      for (const auto& [index, value] : row) {
        if (!of_composition(block_.columns[index].quantity)) continue;
        largest = std::max(largest, value.number);
        sum += value.number;
      }
      return largest == 1 || sum == 0;
    });
  }

  // A row that lacks something is left out, and that is said.
  void read_row(const Row& row) {
    DataPoint point;
    point.line = row.empty() ? block_.line : row.rbegin()->second.line;
    const bool whole = read_state(row, point) && read_measured_values(row, point);
    if (whole) {
      data_.points.push_back(std::move(point));
    } else {
      data_.notices.add("rows-passed-over", fmt::format("{}: incomplete rows were left out", data_.name));
    }
  }

  const Value* value(const Row& row, Quantity quantity) const {
    for (const auto& [column, value] : row) {
      if (block_.columns[column].quantity == quantity) return &value;
    }
    return nullptr;
  }

  double uncertainty(const Value& value, const char* quantity) {
    return value.uncertainty ? *value.uncertainty : assumed_.take(quantity, value.number);
  }

  Place place(const Value& value) const { return {file_, value.line, {}}; }

  bool read_state(const Row& row, DataPoint& point) {
    const Value* T = value(row, Quantity::temperature);
    if (!T) return false;
    if (!(T->number > 0)) throw RequestError(place(*T), "a temperature in K is positive");
    point.T_K = T->number;
    point.u_T_K = uncertainty(*T, "T");
    if (!vapour_liquid(data_.kind)) return true;
    const Value* P = value(row, Quantity::pressure);
    if (!P) return false;
    if (!(P->number > 0)) throw RequestError(place(*P), "a pressure is positive");
    point.P_Pa = P->number;
    point.u_P_Pa = uncertainty(*P, "P");
    return true;
  }

  bool read_measured_values(const Row& row, DataPoint& point) {
    switch (family_of(data_.kind)) {
      case DataFamily::two_liquids:
        return read_liquids(row, point);
      case DataFamily::liquid_value:
        return read_value(row, *describe(data_.kind).value, point);
      case DataFamily::boiling:
        if (!read_phase(row, liquid, "x", point.x, point.u_x)) return false;
        return !has_vapour(data_.kind) || read_phase(row, gas, "y", point.y, point.u_y);
    }
    return false;
  }

  // Where no uncertainty is stated, that of a dilute component is a part of its fraction.
  bool read_liquids(const Row& row, DataPoint& point) {
    if (data_half_) {
      if (!read_phase(row, first_liquid_ ? one_liquid : other_liquid, "x", point.x, point.u_x)) return false;
    } else if (!read_phase(row, one_liquid, "x", point.x, point.u_x) ||
               !read_phase(row, other_liquid, "x", point.y, point.u_y)) {
      return false;
    }
    for (double* u : {&point.u_x, &point.u_y}) {
      if (*u > 0 || (data_half_ && u == &point.u_y)) continue;
      *u = assumed_.take_of_liquids();
      point.relative_u_x = assumed_relative_of_liquids;
    }
    return true;
  }

  bool read_value(const Row& row, const LiquidValue& kind, DataPoint& point) {
    if (!read_phase(row, liquid, kind.dilute ? nullptr : "x", point.x, point.u_x))
      throw PassedOver{fmt::format("{} without its liquid", kind.thing)};
    if (kind.dilute)
      point.solvent =
          static_cast<std::size_t>(std::find(point.x.begin(), point.x.end(), 1.0) - point.x.begin());
    for (const auto& [column, value] : row) {
      if (block_.columns[column].quantity != Quantity::liquid_value) continue;
      if (kind.of_component) {
        if (!block_.columns[column].component)
          throw PassedOver{"it does not name the component of the activity coefficient"};
        point.solute = *block_.columns[column].component;
        if (kind.dilute && point.solute == point.solvent) continue;
      }
      if (kind.logarithmic && !(value.number > 0))
        throw RequestError(place(value), fmt::format("{} is positive", kind.thing));
      point.value = value.number;
      point.u_value = uncertainty(value, kind.column.data());
      return true;
    }
    return false;
  }

  // Mole fractions of a phase from whatever the file has; false where a row lacks more than one of them.
  // Without a `letter` they are exact.
  bool read_phase(const Row& row, const char* phase, const char* letter, std::vector<double>& x,
                  double& u_x) {
    const std::size_t n = data_.substances.size();
    std::vector<const Value*> given(n, nullptr);
    std::optional<Quantity> quantity;
    for (const auto& [index, value] : row) {
      const Column& column = block_.columns[index];
      if (!of_composition(column.quantity) || column.phase != phase || !column.component) continue;
      if (quantity && *quantity != column.quantity)
        throw PassedOver{"fractions of different kinds in one phase"};
      quantity = column.quantity;
      given[*column.component] = &value;
    }
    if (!quantity) return false;
    const bool fractions = *quantity == Quantity::mole_fraction || *quantity == Quantity::mass_fraction;
    if (!fractions) return read_ratio(given, *quantity, x, u_x);
    const auto missing = std::count(given.begin(), given.end(), nullptr);
    if (missing > 1) return false;
    x.assign(n, 0);
    double sum = 0, u = 0;
    const Value* last = nullptr;
    for (std::size_t i = 0; i < n; ++i) {
      if (!given[i]) continue;
      last = given[i];
      x[i] = last->number;
      if (!(x[i] >= 0 && x[i] <= 1))
        throw RequestError(place(*last), fmt::format("a fraction lies in 0..1, found {}", x[i]));
      sum += x[i];
      if (letter && (last->uncertainty || family_of(data_.kind) != DataFamily::two_liquids))
        u = std::max(u, uncertainty(*last, letter));
    }
    constexpr double rounding = 2e-3;  // printed digits
    if (sum > 1 + rounding || (missing == 0 && sum < 1 - rounding))
      throw RequestError(place(*last), fmt::format("the fractions of this row sum to {:.6g}", sum));
    for (std::size_t i = 0; i < n; ++i) {
      if (!given[i])
        x[i] = std::max(0.0, 1 - sum);
      else if (missing == 0 || sum > 1)
        x[i] /= sum;
    }
    u_x = u;
    if (*quantity == Quantity::mass_fraction) {
      x = mole_fractions(x, data_.substances);
      u_x = mole_fraction_uncertainty(u, x, data_.substances);
    }
    return true;
  }

  // Molalities and ratios, of two substances.
  bool read_ratio(const std::vector<const Value*>& given, Quantity quantity, std::vector<double>& x,
                  double& u_x) {
    if (given.size() != 2) throw PassedOver{"a molality or ratio among more than two substances"};
    const std::size_t solute = given[0] ? 0 : 1;
    const Value& value = *given[solute];
    if (!(value.number >= 0)) throw RequestError(place(value), "a molality or ratio is not negative");
    const double M_solute = data_.substances[solute].molar_mass_kg_mol;
    const double M_solvent = data_.substances[1 - solute].molar_mass_kg_mol;
    const double to_moles = quantity == Quantity::molality     ? M_solvent
                            : quantity == Quantity::mass_ratio ? M_solvent / M_solute
                                                               : 1;
    const double ratio = to_moles * value.number;
    x = from_mole_ratio(ratio, solute);
    // dx = d ratio / (1 + ratio)^2
    if (value.uncertainty) {
      u_x = to_moles * *value.uncertainty / ((1 + ratio) * (1 + ratio));
    } else if (family_of(data_.kind) != DataFamily::two_liquids) {
      u_x = uncertainty({x[solute], {}, value.line}, "x");
    }
    return true;
  }

  const Block& block_;
  const std::string& file_;
  const Bank& bank_;
  DataSet data_;
  AssumedUncertainties assumed_;
  bool by_property_ = false, data_half_ = false, first_liquid_ = false;
};

// Both liquids of a pair where two sets hold one each at the same temperatures, else nothing.
std::optional<DataSet> together(const DataSet& one, const DataSet& other) {
  constexpr double same_K = 0.02;
  if (one.substances.size() != 2 || one.points.size() != other.points.size()) return std::nullopt;
  const bool turned = one.substances[0].name == other.substances[1].name &&
                      one.substances[1].name == other.substances[0].name;
  if (!turned && (one.substances[0].name != other.substances[0].name ||
                  one.substances[1].name != other.substances[1].name))
    return std::nullopt;
  DataSet both = one;
  for (DataPoint& point : both.points) {
    const auto match = std::find_if(
        other.points.begin(), other.points.end(),
        [&](const DataPoint& candidate) { return std::abs(candidate.T_K - point.T_K) < same_K; });
    if (match == other.points.end()) return std::nullopt;
    point.y = match->x;
    if (turned) std::swap(point.y[0], point.y[1]);
    point.u_y = match->u_x;
    point.relative_u_x = std::max(point.relative_u_x, match->relative_u_x);
  }
  both.name = one.name + "+" + other.name.substr(other.name.rfind('#') + 1);
  both.notices.add(other.notices);
  return both;
}

// Data sets as they come, and why others are passed over.
class Gatherer {
 public:
  Gatherer(const std::string& file, const Bank& bank)
      : file_(file), bank_(bank), document_(file, [this](Block&& block) { take(block); }) {}

  void feed(std::string_view bytes) { document_.feed(bytes); }

  ThermoML finish() {
    document_.finish();
    join_halves();
    std::vector<std::string> told;
    for (const auto& [reason, numbers] : reasons_)
      told.push_back(
          fmt::format("data set{} {}: {}", numbers.size() > 1 ? "s" : "", listed(numbers), reason));
    if (result_.sets.empty()) {
      throw RequestError({file_, 0, {}},
                         fmt::format("no phase equilibrium of two or more substances was found{}{}",
                                     told.empty() ? "" : "; ", joined(told, "; ")));
    }
    for (const std::string& text_of_one : told)
      result_.notices.add("data-passed-over", fmt::format("{}, {}", file_, text_of_one));
    return std::move(result_);
  }

 private:
  // Of hundreds the first few.
  static std::string listed(const std::vector<std::string>& numbers) {
    constexpr std::size_t most = 30;
    if (numbers.size() <= most) return joined(numbers, ", ");
    return fmt::format("{} and {} more", joined({numbers.begin(), numbers.begin() + most}, ", "),
                       numbers.size() - most);
  }

  void pass_over(const std::string& reason, const std::string& number) {
    const auto known = std::find_if(reasons_.begin(), reasons_.end(),
                                    [&](const auto& entry) { return entry.first == reason; });
    if (known == reasons_.end())
      reasons_.push_back({reason, {number}});
    else
      known->second.push_back(number);
  }

  void take(const Block& block) {
    BlockReader reader(block, file_, bank_);
    try {
      DataSet set = reader.read();
      set.source = document_.source();
      (!reader.half()          ? result_.sets
       : reader.first_liquid() ? first_halves_
                               : second_halves_)
          .push_back(std::move(set));
    } catch (const PassedOver& passed) {
      pass_over(passed.reason, block.number);
    }
  }

  void join_halves() {
    std::vector<DataSet> alone;
    for (const DataSet& one : first_halves_) {
      std::optional<DataSet> both;
      for (auto other = second_halves_.begin(); other != second_halves_.end(); ++other) {
        if (!(both = together(one, *other))) continue;
        second_halves_.erase(other);
        break;
      }
      if (both)
        result_.sets.push_back(std::move(*both));
      else
        alone.push_back(one);
    }
    alone.insert(alone.end(), second_halves_.begin(), second_halves_.end());
    for (const DataSet& half : alone)
      pass_over("one of two liquids, without the other at the same temperatures",
                half.name.substr(half.name.rfind('#') + 1));
  }

  const std::string file_;
  const Bank& bank_;
  thermoml::DocumentReader document_;
  ThermoML result_;
  std::vector<DataSet> first_halves_, second_halves_;
  std::vector<std::pair<std::string, std::vector<std::string>>>
      reasons_;  ///< and the data sets they hold for
};

}  // namespace

ThermoML parse_thermoml(std::string_view text, const std::string& file, const Bank& bank) {
  Gatherer gatherer(file, bank);
  gatherer.feed(text);
  return gatherer.finish();
}

ThermoML read_thermoml(const std::filesystem::path& path, const Bank& bank) {
  Gatherer gatherer(path.string(), bank);
  read_in_pieces(path, largest_thermoml_bytes, [&](std::string_view piece) { gatherer.feed(piece); });
  return gatherer.finish();
}

}  // namespace jampot
