#include "readers.hpp"

#include <cmath>
#include <cstdlib>
#include <span>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/files/job_toml.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/files/thermoml.hpp"
#include "jampot/liquid/henry.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/group_contributions.hpp"
#include "jampot/substance/unifac_division.hpp"
#include "jampot/substance/vapour_pressure_equation.hpp"

namespace jampot::fuzz {
namespace {

// What a reader lets through must be usable: a wrong number is as bad as a crash.
void demand(bool condition) {
  if (!condition) std::abort();
}

void demand_fractions(std::span<const double> x) {
  double sum = 0;
  for (const double value : x) {
    demand(value >= 0 && value <= 1 + 1e-9);
    sum += value;
  }
  demand(x.empty() || std::abs(sum - 1) < 1e-6);
}

void demand_sound(const DataSet& set) {
  demand(!set.points.empty() && set.substances.size() >= 2);
  for (const DataPoint& point : set.points) {
    demand(std::isfinite(point.T_K) && point.T_K > 0 && point.u_T_K > 0);
    if (vapour_liquid(set.kind)) demand(std::isfinite(point.P_Pa) && point.P_Pa > 0 && point.u_P_Pa > 0);
    demand(std::isfinite(point.value) && std::isfinite(point.u_value));
    demand_fractions(point.x);
    demand_fractions(point.y);
  }
}

const std::vector<Substance>& three() {
  static const std::vector<Substance> substances = substances_named({"ethyl acetate", "ethanol", "water"});
  return substances;
}

void quantity(std::string_view text) {
  for (const Dimension dimension : {Dimension::temperature, Dimension::pressure, Dimension::fraction,
                                    Dimension::molar_energy, Dimension::mass_flow, Dimension::number}) {
    try {
      for (const double value : parse_quantities(text, dimension)) demand(std::isfinite(value));
    } catch (const RequestError&) {  // of another dimension
    }
    try {
      demand(std::isfinite(parse_quantity(text, dimension)));
    } catch (const RequestError&) {
    }
    try {
      demand(std::isfinite(parse_difference(text, dimension)));
    } catch (const RequestError&) {
    }
  }
  parse_display_units(text);
}

void composition(std::string_view text) {
  for (const Basis basis : {Basis::mole, Basis::mass})
    demand_fractions(parse_composition(text, three(), basis));
}

void feed(std::string_view text) {
  const Feed feed = parse_feed(text, "", three(), Basis::mole);
  for (const double n : feed.n) demand(std::isfinite(n) && n >= 0);
  demand(feed.total() > 0);
  demand_fractions(feed.fractions());
}

void henry(std::string_view text) {
  demand(std::isfinite(parse_henry(text, three()).ln_H(300)));
}

void groups(std::string_view text) {
  try {
    demand(!parse_groups(text).empty());
  } catch (const RequestError&) {
  }
  for (const UnifacTable table : {UnifacTable::vle, UnifacTable::lle, UnifacTable::dortmund}) {
    for (const GroupCount& group : UnifacGroups::of(table).parse(text)) demand(group.count > 0);
  }
}

void smiles(std::string_view text) {
  const Molecule molecule = parse_smiles(text);
  demand(!molecule.atoms.empty() && !molecule.formula().empty());
  divide_into_unifac_groups(molecule);
}

void vapour_pressure_equation(std::string_view text) {
  parse_vapour_pressure_equation(text);
}

void measured_csv(std::string_view text) {
  demand_sound(parse_measured(text, "f.csv"));
}

void thermoml(std::string_view text) {
  for (const DataSet& set : parse_thermoml(text, "f.xml").sets) demand_sound(set);
}

void pairs_toml(std::string_view text) {
  ParameterCollection collection;
  parse_pairs(text, "f.pairs.toml", collection);
  for (const PairParameters& pair : collection.all()) {
    for (const auto& [name, function] : pair.terms) demand(std::isfinite(function.value(300)));
  }
}

void substance_toml(std::string_view text) {
  const DefinedSubstance defined = parse_substance(text, "f.substance.toml");
  demand(defined.substance.molar_mass_kg_mol > 0);
}

void job_toml(std::string_view text) {
  demand(!parse_job(text, "f.job.toml").steps.empty());
}

void mixture_toml(std::string_view text) {
  parse_mixture_file(text, "f.mixture.toml");
}

void csv_table(std::string_view text) {
  const CsvTable table(text, "f.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) table.text(row, 0);
}

}  // namespace

const std::map<std::string, Reader>& readers() {
  static const std::map<std::string, Reader> all{{"quantity", quantity},
                                                 {"composition", composition},
                                                 {"feed", feed},
                                                 {"henry", henry},
                                                 {"groups", groups},
                                                 {"smiles", smiles},
                                                 {"vapour_pressure_equation", vapour_pressure_equation},
                                                 {"csv_table", csv_table},
                                                 {"measured_csv", measured_csv},
                                                 {"thermoml", thermoml},
                                                 {"pairs_toml", pairs_toml},
                                                 {"substance_toml", substance_toml},
                                                 {"job_toml", job_toml},
                                                 {"mixture_toml", mixture_toml}};
  return all;
}

bool read_or_refuse(Reader reader, std::string_view text) {
  try {
    reader(text);
    return true;
  } catch (const RequestError&) {
    return false;
  } catch (const CalculationError&) {
    return false;
  }
}

}  // namespace jampot::fuzz
