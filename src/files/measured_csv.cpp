#include "jampot/files/measured_csv.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <optional>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/measured/assumed.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

// The uncertainties that can be stated: of the coordinates, and of every value of a liquid.
std::vector<std::string> uncertainty_keys() {
  std::vector<std::string> keys{"u(T)", "u(P)", "u(x)", "u(y)", "u(w)"};
  for (const KindDescription* kind : liquid_value_kinds()) {
    std::string key = fmt::format("u({})", kind->value->column);
    if (std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(std::move(key));
  }
  return keys;
}

std::vector<std::string> comment_keys() {
  std::vector<std::string> keys{"substances", "kind", "source", "title", "T", "P"};
  for (std::string& key : uncertainty_keys()) keys.push_back(std::move(key));
  return keys;
}

struct Comment {
  int line;
  std::string value;
};

// Adds the place to a message about a quantity or a name.
template <class Call>
auto at_place(const Place& place, Call&& call) {
  try {
    return call();
  } catch (const RequestError& error) {
    throw RequestError(place, error.what());
  }
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& file, const Bank& bank)
      : table_(text, file), file_(file), bank_(bank) {}

  DataSet read() {
    read_comments();
    data_.name = file_;
    if (const auto source = comments_.find("source"); source != comments_.end())
      data_.source = source->second.value;
    read_substances();
    read_header();
    if (table_.rows() == 0) throw RequestError(table_.header_place(), "the table has a header but no rows");
    for (std::size_t row = 0; row < table_.rows(); ++row) data_.points.push_back(read_point(row));
    decide_kind();
    assumed_.add_notice(file_, data_.kind, data_.notices);
    tell_unused();
    return std::move(data_);
  }

 private:
  struct Column {
    std::string name, unit;
  };

  void read_comments() {
    const std::vector<std::string> keys = comment_keys();
    for (const CsvComment& comment : table_.comments()) {
      const std::size_t colon = comment.text.find(':');
      if (colon == std::string::npos) continue;
      const std::string key(trimmed(std::string_view(comment.text).substr(0, colon)));
      if (std::find(keys.begin(), keys.end(), key) != keys.end()) {
        comments_[key] = {comment.line,
                          std::string(trimmed(std::string_view(comment.text).substr(colon + 1)))};
        continue;
      }
      // A remark may hold a colon; a key with one letter wrong is not a remark.
      for (const std::string& known : keys) {
        if (known.size() > 1 && edit_distance(lower_case(key), lower_case(known)) <= 1) {
          throw RequestError({file_, comment.line, {}},
                             fmt::format("'{}' is not a key. Did you mean '{}'?", key, known));
        }
      }
    }
  }

  void read_substances() {
    const auto found = comments_.find("substances");
    if (found == comments_.end()) {
      throw RequestError({file_, 0, {}}, "the line '# substances: NAME, NAME' is missing");
    }
    const Place place{file_, found->second.line, {}};
    for (const std::string& name : names_in(found->second.value))
      data_.substances.push_back(at_place(place, [&] { return bank_.require(name); }));
    if (data_.substances.size() < 2)
      throw RequestError(place, "expected at least two substances, separated by commas");
    for (std::size_t i = 0; i < data_.substances.size(); ++i) {
      for (std::size_t j = i + 1; j < data_.substances.size(); ++j) {
        if (data_.substances[i].name == data_.substances[j].name) {
          throw RequestError(place, fmt::format("{} is named twice", data_.substances[i].name));
        }
      }
    }
  }

  // "1,4-dioxane, water": of the pieces between commas as many as make a name together; a name may also stand
  // in double quotes.
  std::vector<std::string> names_in(const std::string& text) const {
    std::vector<std::string> names;
    const std::vector<std::string> pieces = split(text, ',');
    for (std::size_t from = 0; from < pieces.size();) {
      std::size_t count = 1;
      std::string name = pieces[from];
      if (name.starts_with('"')) {
        while ((name.size() < 2 || !name.ends_with('"')) && from + count < pieces.size())
          name += "," + pieces[from + count++];
        name = name.substr(1, name.size() - (name.size() > 1 && name.ends_with('"') ? 2 : 1));
      } else {
        constexpr std::size_t most_pieces = 6;  // "1,2,3,4-tetrahydronaphthalene"
        for (std::size_t more = std::min(most_pieces, pieces.size() - from); more > 1; --more) {
          std::string longer = pieces[from];
          for (std::size_t k = 1; k < more; ++k) longer += "," + pieces[from + k];
          if (bank_.find(longer) == nullptr) continue;
          name = longer;
          count = more;
          break;
        }
      }
      names.push_back(std::move(name));
      from += count;
    }
    return names;
  }

  std::vector<std::string> allowed_columns() const {
    std::vector<std::string> names{"T", "P"};
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) names.push_back(fmt::format("x{}", i));
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) names.push_back(fmt::format("y{}", i));
    for (const char* phase : {"alpha", "beta"}) {
      for (const char* letter : {"x", "w"}) {
        for (std::size_t i = 1; i <= data_.substances.size(); ++i)
          names.push_back(fmt::format("{}{}_{}", letter, i, phase));
      }
    }
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) names.push_back(fmt::format("w{}", i));
    if (data_.substances.size() == 2) names.insert(names.end(), {"m1", "m2"});
    for (const KindDescription* kind : liquid_value_kinds()) {
      const std::string name(kind->value->column);
      if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
    }
    names.insert(names.end(), {"solute", "solvent", "component"});
    for (std::string& key : uncertainty_keys()) names.push_back(std::move(key));
    names.push_back("exclude");
    return names;
  }

  static Dimension dimension_of(const std::string& name) {
    if (name == "T" || name == "u(T)") return Dimension::temperature;
    if (name == "P" || name == "u(P)") return Dimension::pressure;
    if (name == "m1" || name == "m2") return Dimension::molality;
    if (name == "solute" || name == "solvent" || name == "component" || name == "exclude")
      return Dimension::number;
    for (const KindDescription* kind : liquid_value_kinds()) {
      if (name == kind->value->column || name == fmt::format("u({})", kind->value->column))
        return kind->value->dimension;
    }
    return Dimension::fraction;
  }

  // "x(methanol)", as tables are written: "x2". Others stay as they are.
  std::string numbered(const std::string& name) const {
    const std::size_t open = name.find('('), close = name.rfind(')');
    if (open != 1 || close == std::string::npos ||
        std::string_view("xywm").find(name[0]) == std::string::npos)
      return name;
    const Substance* meant = bank_.find(name.substr(2, close - 2));
    for (std::size_t i = 0; meant != nullptr && i < data_.substances.size(); ++i) {
      if (data_.substances[i].name == meant->name)
        return fmt::format("{}{}{}", name[0], i + 1, name.substr(close + 1));
    }
    return name;
  }

  void read_header() {
    const std::vector<std::string> allowed = allowed_columns();
    for (const std::string& title : table_.header()) {
      Column column;
      const std::size_t bracket = title.find('[');
      column.name = numbered(std::string(trimmed(std::string_view(title).substr(0, bracket))));
      Place place = table_.header_place();
      place.column = title;
      if (bracket != std::string::npos) {
        if (title.back() != ']') throw RequestError(place, "the bracket around the unit is not closed");
        column.unit = title.substr(bracket + 1, title.size() - bracket - 2);
      }
      if (std::find(allowed.begin(), allowed.end(), column.name) == allowed.end()) {
        throw RequestError(place, fmt::format("'{}' is not a column; there are {}.{}", column.name,
                                              joined(allowed, ", "), did_you_mean(column.name, allowed)));
      }
      const Dimension dimension = dimension_of(column.name);
      if (column.unit.empty() && dimension != Dimension::fraction && dimension != Dimension::number) {
        throw RequestError(place, fmt::format("a {} needs its unit in brackets, as in '{} [{}]'",
                                              name_of(dimension), column.name, example_unit(dimension)));
      }
      at_place(place,
               [&] { return to_si(1, column.unit, dimension); });  // the unit is known and of the right kind
      for (const Column& other : columns_) {
        if (other.name == column.name)
          throw RequestError(place, fmt::format("there are two columns '{}'", column.name));
      }
      columns_.push_back(column);
    }
    find_kind_of_columns();
    for (const char* name : {"T", "P"}) {
      if (*name == 'P' && liquid_only_) continue;
      if (!column(name) && !comments_.contains(name)) {
        throw RequestError(
            table_.header_place(),
            fmt::format("no column '{0} [{1}]' and no line '# {0}: VALUE {1}' that holds for all rows", name,
                        name[0] == 'T' ? "degC" : "kPa"));
      }
    }
    if (!liquid_only_) {
      has_y_ =
          std::any_of(columns_.begin(), columns_.end(), [](const Column& c) { return c.name[0] == 'y'; });
      if (has_y_) require_fractions("y", "");
    }
  }

  static const char* example_unit(Dimension dimension) {
    switch (dimension) {
      case Dimension::temperature:
        return "degC";
      case Dimension::molar_energy:
        return "J/mol";
      case Dimension::molality:
        return "mol/kg";
      default:
        return "kPa";
    }
  }

  // Two liquids, limiting coefficients and enthalpies show by their columns.
  void find_kind_of_columns() {
    const auto any = [&](const std::string& part) {
      return std::any_of(columns_.begin(), columns_.end(),
                         [&](const Column& c) { return c.name.find(part) != std::string::npos; });
    };
    const auto stated = comments_.find("kind");
    const bool two_liquids =
        stated != comments_.end() && (stated->second.value == "lle" || stated->second.value == "tie-lines");
    if (two_liquids && !any("_alpha") && !any("_beta"))
      throw RequestError(
          table_.header_place(),
          "two liquids in equilibrium need the columns x1_alpha, ... and x1_beta, ... (or w1_alpha, ...)");
    if (any("_alpha") || any("_beta")) {
      liquid_only_ = DataKind::lle;
      mass_ = column("w1_alpha") || column("w2_alpha");
      require_fractions(mass_ ? "w" : "x", "_alpha");
      require_fractions(mass_ ? "w" : "x", "_beta");
    } else {
      mass_ = column("w1") || (column("w2") && data_.substances.size() == 2);
      molality_ = column("m1") ? column("m1") : column("m2");
      const bool composed = molality_ || column(mass_ ? "w1" : "x1") || column(mass_ ? "w2" : "x2");
      for (const KindDescription* kind : liquid_value_kinds()) {
        if (!column(std::string(kind->value->column)) || kind->value->dilute == composed) continue;
        liquid_only_ = kind->kind;
        break;
      }
      value_ = liquid_only_ ? describe(*liquid_only_).value : nullptr;
      if (value_ && value_->of_component) require_component();
      if (!molality_ && !(value_ && value_->dilute)) require_fractions(mass_ ? "w" : "x", "");
    }
  }

  // Whose activity coefficient it is, and of a limiting one in what.
  void require_component() const {
    const char* name = value_->dilute ? "solute" : "component";
    if (!column(name))
      throw RequestError(table_.header_place(),
                         fmt::format("{} activity coefficients need the column '{}'",
                                     value_->dilute ? "limiting" : "at a composition,", name));
    if (value_->dilute && !column("solvent") && data_.substances.size() > 2)
      throw RequestError(table_.header_place(),
                         "with more than two substances the column 'solvent' is needed");
  }

  // All fractions of a phase but at most one.
  void require_fractions(const std::string& phase, const std::string& which) {
    std::vector<std::string> missing;
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) {
      const std::string name = fmt::format("{}{}{}", phase, i, which);
      if (!column(name)) missing.push_back(name);
    }
    if (missing.size() <= 1) return;
    throw RequestError(
        table_.header_place(),
        fmt::format("no column '{}' ({} fraction of {})", missing.front(), phase == "w" ? "mass" : "mole",
                    data_.substances[static_cast<std::size_t>(missing.front()[1] - '1')].name));
  }

  std::optional<std::size_t> column(const std::string& name) const {
    for (std::size_t k = 0; k < columns_.size(); ++k) {
      if (columns_[k].name == name) return k;
    }
    return std::nullopt;
  }

  double value(std::size_t row, const std::string& name) {
    const Dimension dimension = dimension_of(name);
    if (const auto k = column(name)) {
      const double si = to_si(table_.number(row, *k), columns_[*k].unit, dimension);
      if (dimension != Dimension::fraction && !(si > 0)) {
        throw RequestError(table_.place(row, *k), fmt::format("'{}' is not a possible {}",
                                                              table_.text(row, *k), name_of(dimension)));
      }
      return si;
    }
    const Comment& comment = comments_.at(name);
    return at_place({file_, comment.line, name}, [&] { return parse_quantity(comment.value, dimension); });
  }

  // Mole fractions of the liquid (or one of two), from whatever the columns hold.
  std::vector<double> liquid(std::size_t row, const std::string& which) {
    if (molality_) return from_molality(row);
    const std::vector<double> given = fractions(row, mass_ ? "w" : "x", which);
    return mass_ ? mole_fractions(given, data_.substances) : given;
  }

  // Moles of the one in a kilogram of the other.
  std::vector<double> from_molality(std::size_t row) {
    const std::size_t solute = columns_[*molality_].name == "m1" ? 0 : 1;
    const double m = to_si(table_.number(row, *molality_), columns_[*molality_].unit, Dimension::molality);
    if (!(m >= 0)) throw RequestError(table_.place(row, *molality_), "a molality is not negative");
    return from_mole_ratio(m * data_.substances[1 - solute].molar_mass_kg_mol, solute);
  }

  std::vector<double> fractions(std::size_t row, const std::string& phase, const std::string& which) {
    const std::size_t n = data_.substances.size();
    std::vector<double> result(n);
    std::optional<std::size_t> rest;
    double sum = 0;
    Place place;
    for (std::size_t i = 0; i < n; ++i) {
      const auto k = column(fmt::format("{}{}{}", phase, i + 1, which));
      if (!k) {
        rest = i;
        continue;
      }
      result[i] = to_si(table_.number(row, *k), columns_[*k].unit, Dimension::fraction);
      place = table_.place(row, *k);
      if (!(result[i] >= 0 && result[i] <= 1)) {
        const bool percent = result[i] > 1 && result[i] <= 100;
        throw RequestError(
            place,
            fmt::format("a {} fraction lies in 0..1, found {}{}", phase == "w" ? "mass" : "mole",
                        table_.text(row, *k),
                        percent ? fmt::format(". If the column is in percent, its header is '{}{}{} [%]'",
                                              phase, i + 1, which)
                                : ""));
      }
      sum += result[i];
    }
    constexpr double rounding = 2e-3;  // printed digits
    if (sum > 1 + rounding || (!rest && sum < 1 - rounding)) {
      throw RequestError(place, fmt::format("the {} fractions of this row sum to {:.6g}",
                                            phase == "w" ? "mass" : "mole", sum));
    }
    if (rest) {
      result[*rest] = std::max(0.0, 1 - sum);
    } else {
      for (double& fraction : result) fraction /= sum;
    }
    return result;
  }

  // A percentage is of the measured value, whatever the quantity.
  double relative(const Place& place, const std::string& name, double percent, double measured) const {
    if (name == "T")
      throw RequestError(place,
                         "a percentage of a temperature depends on the zero of its scale; state it in K");
    constexpr double least_fraction = 1e-6;  // of a fraction measured as zero nothing can be a part
    const bool fraction = dimension_of(name) == Dimension::fraction;
    return percent / 100 * (fraction ? std::max(std::abs(measured), least_fraction) : std::abs(measured));
  }

  double uncertainty(std::size_t row, const std::string& name, double measured) {
    const std::string key = "u(" + name + ")";
    const Dimension dimension = dimension_of(name);
    double si = 0;
    Place place;
    if (const auto k = column(key)) {
      place = table_.place(row, *k);
      si = columns_[*k].unit == "%" ? relative(place, name, table_.number(row, *k), measured)
                                    : difference_to_si(table_.number(row, *k), columns_[*k].unit, dimension);
    } else if (const auto comment = comments_.find(key); comment != comments_.end()) {
      place = {file_, comment->second.line, key};
      const std::string& text = comment->second.value;
      si = at_place(place, [&] {
        return text.ends_with('%')
                   ? relative(place, name, 100 * parse_quantity(text, Dimension::fraction), measured)
                   : parse_difference(text, dimension);
      });
    } else {
      return assumed_.take(name, measured);
    }
    constexpr double possible = 0.5;
    if (dimension == Dimension::fraction && si > possible)
      throw RequestError(
          place,
          fmt::format("an uncertainty of {} is larger than any fraction; as a percentage write \"{} %\"", si,
                      si));
    if (!(si > 0)) {
      throw RequestError(
          place, "a standard uncertainty is positive; for a quantity taken as exact state a small one");
    }
    return si;
  }

  DataPoint read_point(std::size_t row) {
    DataPoint point;
    point.line = table_.place(row, 0).line;
    if (const auto k = column("exclude")) point.excluded = table_.text(row, *k);
    point.T_K = value(row, "T");
    if (liquid_only_) {
      read_liquid_point(row, point);
      return point;
    }
    point.P_Pa = value(row, "P");
    point.x = liquid(row, "");
    if (has_y_) point.y = fractions(row, "y", "");
    point.u_T_K = uncertainty(row, "T", point.T_K);
    point.u_P_Pa = uncertainty(row, "P", point.P_Pa);
    point.u_x = liquid_uncertainty(row, point.x);
    if (has_y_) point.u_y = uncertainty(row, "y", smallest(point.y));
    return point;
  }

  double liquid_uncertainty(std::size_t row, const std::vector<double>& x) {
    const bool in_mass = column("u(w)") || comments_.contains("u(w)");
    if (!in_mass) return uncertainty(row, "x", smallest(x));
    return mole_fraction_uncertainty(uncertainty(row, "w", smallest(mass_fractions(x, data_.substances))), x,
                                     data_.substances);
  }

  // The fraction of which a percentage is meant: that of the component there is least of.
  static double smallest(const std::vector<double>& fractions) {
    double least = 1;
    for (const double fraction : fractions) {
      if (fraction > 0) least = std::min(least, fraction);
    }
    return least;
  }

  // Of two liquids, each with its own composition. A percentage is of every fraction by itself.
  void two_liquids_uncertainty(std::size_t row, DataPoint& point) {
    for (const char* key : {"u(x)", "u(w)"}) {
      const auto comment = comments_.find(key);
      const auto k = column(key);
      const bool percent =
          k ? columns_[*k].unit == "%" : comment != comments_.end() && comment->second.value.ends_with('%');
      if (!percent) continue;
      const Place place = k ? table_.place(row, *k) : Place{file_, comment->second.line, key};
      point.relative_u_x = at_place(place, [&] {
        return k ? table_.number(row, *k) / 100 : parse_quantity(comment->second.value, Dimension::fraction);
      });
      if (!(point.relative_u_x > 0 && point.relative_u_x < 1))
        throw RequestError(place, "a standard uncertainty lies above 0 and below 100 %");
      point.u_x = point.u_y = point.relative_u_x;  // of the largest fraction there can be
      return;
    }
    if (column("u(x)") || column("u(w)") || comments_.contains("u(x)") || comments_.contains("u(w)")) {
      point.u_x = liquid_uncertainty(row, point.x);
      point.u_y = liquid_uncertainty(row, point.y);
      return;
    }
    point.u_x = point.u_y = assumed_.take_of_liquids();
    point.relative_u_x = assumed_relative_of_liquids;
  }

  // Uncertainties that no equation of this kind of data uses.
  void tell_unused() {
    const std::vector<std::string_view>& used = describe(data_.kind).uncertainties;
    std::vector<std::string> unused;
    for (const std::string& key : uncertainty_keys()) {
      if ((column(key) || comments_.contains(key)) && std::find(used.begin(), used.end(), key) == used.end())
        unused.push_back(key);
    }
    if (unused.empty()) return;
    data_.notices.add("uncertainty-unused",
                      fmt::format("{} states {}, which nothing uses: the weight of {} data comes from {}",
                                  file_, joined(unused, ", "), name_of(data_.kind), joined(used, ", ")));
  }

  void read_liquid_point(std::size_t row, DataPoint& point) {
    point.u_T_K = uncertainty(row, "T", point.T_K);
    if (value_) return read_value(row, point);
    point.x = liquid(row, "_alpha");
    point.y = liquid(row, "_beta");
    two_liquids_uncertainty(row, point);
  }

  void read_value(std::size_t row, DataPoint& point) {
    if (value_->of_component) point.solute = component(row, value_->dilute ? "solute" : "component");
    if (value_->dilute) {
      point.solvent = column("solvent") ? component(row, "solvent") : 1 - point.solute;
      if (point.solute == point.solvent)
        throw RequestError(table_.place(row, 0), "solute and solvent are the same substance");
      point.x.assign(data_.substances.size(), 0.0);
      point.x[point.solvent] = 1;
    } else {
      point.x = liquid(row, "");
      point.u_x = liquid_uncertainty(row, point.x);
    }
    const std::string name(value_->column);
    const std::size_t k = *column(name);
    point.value = to_si(table_.number(row, k), columns_[k].unit, value_->dimension);
    if (value_->logarithmic && !(point.value > 0))
      throw RequestError(table_.place(row, k), fmt::format("{} is positive", value_->thing));
    point.u_value = uncertainty(row, name, point.value);
  }

  // The number of the substance that a row names.
  std::size_t component(std::size_t row, const char* name) {
    const std::string_view text = table_.text(row, *column(name));
    const Place place = table_.place(row, *column(name));
    const std::string wanted = at_place(place, [&] { return bank_.require(text).name; });
    for (std::size_t i = 0; i < data_.substances.size(); ++i) {
      if (data_.substances[i].name == wanted) return i;
    }
    throw RequestError(place, fmt::format("{} is not one of the substances of this file", wanted));
  }

  // Isobaric where the pressure hardly moves, isothermal where the temperature does not.
  void decide_kind() {
    if (liquid_only_) {
      data_.kind = *liquid_only_;
      const auto kind = comments_.find("kind");
      const std::string alias = kind == comments_.end()             ? ""
                                : kind->second.value == "tie-lines" ? "lle"
                                                                    : kind->second.value;
      if (!alias.empty() && alias != name_of(data_.kind)) {
        throw RequestError({file_, kind->second.line, {}},
                           fmt::format("the kind '{}' contradicts the columns, which are those of {}",
                                       kind->second.value, name_of(data_.kind)));
      }
      return;
    }
    const auto stated = comments_.find("kind");
    if (stated == comments_.end()) {
      data_.kind = boiling_kind(data_.points);
      return;
    }
    const Place place{file_, stated->second.line, {}};
    if (stated->second.value == "boiling-elevation") {
      // The kind itself says that what has no vapour pressure stays in the liquid.
      for (Substance& substance : data_.substances)
        substance.non_volatile = substance.non_volatile || !substance.vapour_pressure;
      data_.kind = has_y_ ? DataKind::txy : DataKind::tx;
      return;
    }
    std::vector<std::string> names;
    for (const KindDescription& kind : data_kinds()) {
      names.emplace_back(kind.name);
      if (stated->second.value == kind.name) data_.kind = kind.kind;
    }
    names.insert(names.end(), {"tie-lines", "boiling-elevation"});
    const auto found = std::find(names.begin(), names.end(), stated->second.value);
    if (found == names.end()) {
      throw RequestError(place,
                         fmt::format("'{}' is not a kind of data; there are {}.{}", stated->second.value,
                                     joined(names, ", "), did_you_mean(stated->second.value, names)));
    }
    if (*found == "tie-lines" || !vapour_liquid(data_.kind)) {
      throw RequestError(
          place,
          fmt::format("the kind '{}' contradicts the columns, which are those of a boiling liquid", *found));
    }
    if (has_vapour(data_.kind) != has_y_) {
      throw RequestError(place, fmt::format("the kind '{}' contradicts the columns: there is {} column y1",
                                            *found, has_y_ ? "a" : "no"));
    }
  }

  CsvTable table_;
  std::string file_;
  const Bank& bank_;
  std::map<std::string, Comment> comments_;
  std::vector<Column> columns_;
  bool has_y_ = false, mass_ = false;
  std::optional<std::size_t> molality_;  ///< its column
  std::optional<DataKind> liquid_only_;  ///< a kind without a vapour
  const LiquidValue* value_ = nullptr;   ///< of a kind of one number
  DataSet data_;
  AssumedUncertainties assumed_;
};

}  // namespace

DataSet parse_measured(std::string_view text, const std::string& file, const Bank& bank) {
  return Reader(text, file, bank).read();
}

DataSet read_measured(const std::filesystem::path& path, const Bank& bank) {
  return parse_measured(read_file(path), path.string(), bank);
}

}  // namespace jampot
