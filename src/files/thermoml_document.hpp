#pragma once
// A ThermoML file as columns and rows of numbers in SI, before it is asked what they mean.
#include <map>
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

struct Document {
  std::string source;               ///< from the citation
  std::vector<Compound> compounds;  ///< the blocks point into it
  std::vector<Block> blocks;
};

/// @throws RequestError naming the line
Document read_document(std::string_view text, const std::string& file);

}  // namespace jampot::thermoml
