#include "jampot/files/measured_csv.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

const std::vector<std::string> comment_keys{"substances", "kind", "source", "title", "T",
                                            "P",          "u(T)", "u(P)",   "u(x)",  "u(y)"};

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
    return std::move(data_);
  }

 private:
  struct Column {
    std::string name, unit;
  };

  void read_comments() {
    for (const CsvComment& comment : table_.comments()) {
      const std::size_t colon = comment.text.find(':');
      if (colon == std::string::npos) continue;
      const std::string key(trimmed(std::string_view(comment.text).substr(0, colon)));
      if (std::find(comment_keys.begin(), comment_keys.end(), key) != comment_keys.end()) {
        comments_[key] = {comment.line,
                          std::string(trimmed(std::string_view(comment.text).substr(colon + 1)))};
        continue;
      }
      // A remark may hold a colon; a key with one letter wrong is not a remark.
      for (const std::string& known : comment_keys) {
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
      throw RequestError({file_, 0, {}}, "no line '# substances: NAME, NAME' says what was measured");
    }
    const Place place{file_, found->second.line, {}};
    for (const std::string& name : split(found->second.value, ',')) {
      data_.substances.push_back(at_place(place, [&] { return bank_.require(name); }));
    }
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

  std::vector<std::string> allowed_columns() const {
    std::vector<std::string> names{"T", "P"};
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) names.push_back(fmt::format("x{}", i));
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) names.push_back(fmt::format("y{}", i));
    names.insert(names.end(), {"u(T)", "u(P)", "u(x)", "u(y)"});
    return names;
  }

  static Dimension dimension_of(const std::string& name) {
    if (name == "T" || name == "u(T)") return Dimension::temperature;
    if (name == "P" || name == "u(P)") return Dimension::pressure;
    return Dimension::fraction;
  }

  void read_header() {
    const std::vector<std::string> allowed = allowed_columns();
    for (const std::string& title : table_.header()) {
      Column column;
      const std::size_t bracket = title.find('[');
      column.name = std::string(trimmed(std::string_view(title).substr(0, bracket)));
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
      if (column.unit.empty() && dimension != Dimension::fraction) {
        throw RequestError(place,
                           fmt::format("a {} needs its unit in brackets, as in '{} [{}]'", name_of(dimension),
                                       column.name, dimension == Dimension::temperature ? "degC" : "kPa"));
      }
      at_place(place,
               [&] { return to_si(1, column.unit, dimension); });  // the unit is known and of the right kind
      for (const Column& other : columns_) {
        if (other.name == column.name)
          throw RequestError(place, fmt::format("there are two columns '{}'", column.name));
      }
      columns_.push_back(column);
    }
    require_fractions("x");
    for (const char* name : {"T", "P"}) {
      if (!column(name) && !comments_.contains(name)) {
        throw RequestError(
            table_.header_place(),
            fmt::format("no column '{0} [{1}]' and no line '# {0}: VALUE {1}' that holds for all rows", name,
                        name[0] == 'T' ? "degC" : "kPa"));
      }
    }
    has_y_ = std::any_of(columns_.begin(), columns_.end(), [](const Column& c) { return c.name[0] == 'y'; });
    if (has_y_) require_fractions("y");
  }

  // All fractions of a phase but at most one.
  void require_fractions(const std::string& phase) {
    std::vector<std::string> missing;
    for (std::size_t i = 1; i <= data_.substances.size(); ++i) {
      if (!column(fmt::format("{}{}", phase, i))) missing.push_back(fmt::format("{}{}", phase, i));
    }
    if (missing.size() <= 1) return;
    throw RequestError(
        table_.header_place(),
        fmt::format("no column '{}' (mole fraction of {})", missing.front(),
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

  std::vector<double> fractions(std::size_t row, const std::string& phase) {
    const std::size_t n = data_.substances.size();
    std::vector<double> result(n);
    std::optional<std::size_t> rest;
    double sum = 0;
    Place place;
    for (std::size_t i = 0; i < n; ++i) {
      const auto k = column(fmt::format("{}{}", phase, i + 1));
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
            fmt::format(
                "a mole fraction lies in 0..1, found {}{}", table_.text(row, *k),
                percent ? fmt::format(". If the column is in percent, its header is '{}{} [%]'", phase, i + 1)
                        : ""));
      }
      sum += result[i];
    }
    constexpr double rounding = 2e-3;  // printed digits
    if (sum > 1 + rounding || (!rest && sum < 1 - rounding)) {
      throw RequestError(place, fmt::format("the mole fractions of this row sum to {:.6g}", sum));
    }
    if (rest) {
      result[*rest] = std::max(0.0, 1 - sum);
    } else {
      for (double& fraction : result) fraction /= sum;
    }
    return result;
  }

  double uncertainty(std::size_t row, const std::string& name, double assumed,
                     const std::string& assumed_text) {
    const std::string key = "u(" + name + ")";
    const Dimension dimension = dimension_of(name);
    double si = 0;
    Place place;
    if (const auto k = column(key)) {
      si = difference_to_si(table_.number(row, *k), columns_[*k].unit, dimension);
      place = table_.place(row, *k);
    } else if (const auto comment = comments_.find(key); comment != comments_.end()) {
      place = {file_, comment->second.line, key};
      si = at_place(place, [&] { return parse_difference(comment->second.value, dimension); });
    } else {
      data_.notices.add(
          "uncertainty-assumed",
          fmt::format("{} does not state {}; {} was assumed. Weights, standard errors and chi-square rest "
                      "on it",
                      file_, key, assumed_text));
      return assumed;
    }
    if (!(si > 0)) {
      throw RequestError(
          place, "a standard uncertainty is positive; for a quantity taken as exact state a small one");
    }
    return si;
  }

  DataPoint read_point(std::size_t row) {
    DataPoint point;
    point.line = table_.place(row, 0).line;
    point.T_K = value(row, "T");
    point.P_Pa = value(row, "P");
    point.x = fractions(row, "x");
    if (has_y_) point.y = fractions(row, "y");
    point.u_T_K = uncertainty(row, "T", 0.1, "0.1 K");
    point.u_P_Pa = uncertainty(row, "P", 0.005 * point.P_Pa, "0.5 % of the pressure");
    point.u_x = uncertainty(row, "x", 0.003, "0.003");
    if (has_y_) point.u_y = uncertainty(row, "y", 0.01, "0.01");
    return point;
  }

  // Isobaric where the pressure hardly moves, isothermal where the temperature does not.
  void decide_kind() {
    double P_low = HUGE_VAL, P_high = 0, T_low = HUGE_VAL, T_high = 0;
    for (const DataPoint& point : data_.points) {
      P_low = std::min(P_low, point.P_Pa);
      P_high = std::max(P_high, point.P_Pa);
      T_low = std::min(T_low, point.T_K);
      T_high = std::max(T_high, point.T_K);
    }
    const auto stated = comments_.find("kind");
    if (stated == comments_.end()) {
      const bool isobaric_data = P_high / P_low - 1 < 0.02 || T_high - T_low > 1;
      data_.kind =
          isobaric_data ? (has_y_ ? DataKind::txy : DataKind::tx) : (has_y_ ? DataKind::pxy : DataKind::px);
      return;
    }
    const Place place{file_, stated->second.line, {}};
    const std::vector<std::string> kinds{"txy", "pxy", "tx", "px"};
    const auto found = std::find(kinds.begin(), kinds.end(), stated->second.value);
    if (found == kinds.end()) {
      throw RequestError(place,
                         fmt::format("'{}' is not a kind of data; there are {}.{}", stated->second.value,
                                     joined(kinds, ", "), did_you_mean(stated->second.value, kinds)));
    }
    data_.kind = static_cast<DataKind>(found - kinds.begin());
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
  bool has_y_ = false;
  DataSet data_;
};

}  // namespace

DataSet parse_measured(std::string_view text, const std::string& file, const Bank& bank) {
  return Reader(text, file, bank).read();
}

DataSet read_measured(const std::filesystem::path& path, const Bank& bank) {
  return parse_measured(read_file(path), path.string(), bank);
}

}  // namespace jampot
