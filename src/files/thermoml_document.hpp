#pragma once
// A ThermoML file as columns and rows of numbers in SI, before it is asked what they mean.
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jampot::thermoml {

enum class Quantity {
  temperature,
  pressure,
  mole_fraction,
  mass_fraction,
  molality,
  mole_ratio,  ///< of one substance to the other of two
  mass_ratio,
  liquid_value,  ///< a property that some kind of data knows (measured/data_kind.hpp)
  other
};

enum class Role { constraint, variable, property };

struct Column {
  Role role = Role::property;
  Quantity quantity = Quantity::other;
  std::string name;                      ///< as the file has it
  std::string phase;                     ///< "Liquid", "Gas", "Liquid mixture 1"
  std::optional<std::size_t> component;  ///< among those of the data set
};

struct Value {
  double number = 0;                  ///< SI
  std::optional<double> uncertainty;  ///< standard, SI
  int line = 0;
};

/// The values of a row by the number of their column; constraints are in every row.
using Row = std::map<std::size_t, Value>;

struct Compound {
  std::string key;                 ///< what the data sets call it by
  std::string cas;                 ///< with its hyphens; empty where there is none
  std::vector<std::string> names;  ///< best first
};

struct Block {
  std::string number;
  int line = 0;
  std::vector<const Compound*> components;
  std::vector<Column> columns;
  std::vector<Row> rows;
};

/// Reads a file piece by piece and hands over each data set when it is whole; compounds and citation, which
/// stand before the data sets, are kept.
class DocumentReader {
 public:
  /// @param take gets each data set; its compounds live as long as the reader
  DocumentReader(std::string file, std::function<void(Block&&)> take);
  ~DocumentReader();

  /// The next bytes, cut anywhere. @throws RequestError naming the line
  void feed(std::string_view bytes);
  /// After the last bytes. @throws as `feed`
  void finish();
  /// From the citation.
  const std::string& source() const;

 private:
  class Reader;
  std::unique_ptr<Reader> reader_;
};

}  // namespace jampot::thermoml
