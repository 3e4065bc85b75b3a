#pragma once
// Kinds of measured data: what each is called, what counts in it and, of a value of a liquid, how a model
// gives it. Readers, writers, residuals and tables ask here, so that a kind is one source file and two lines.
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/quantity.hpp"

namespace jampot {

class ActivityModel;
struct DataPoint;

/// What was measured. Of vapour-liquid equilibria the first letter is the quantity that was observed while
/// the other was held.
enum class DataKind {
  txy,
  pxy,
  tx,
  px,
  lle,             ///< two liquids in equilibrium: mutual solubilities, tie lines
  gamma_inf,       ///< limiting activity coefficients
  gamma,           ///< activity coefficients at a composition
  excess_enthalpy  ///< molar excess enthalpies of liquids
};

/// What the points of a kind are. A `switch` over it has no `default`, so that a new one is found by the
/// compiler.
enum class DataFamily {
  boiling,      ///< T, P, x and perhaps y
  two_liquids,  ///< T and two compositions
  liquid_value  ///< T, a composition and one number
};

/// A number of a liquid by the model, with its derivatives.
struct ModelValue {
  double value = 0;  ///< of a logarithmic kind the logarithm
  /// With the value of each term of the model and with its derivative by T: `value` changes by the sum of
  /// by_term[t] d(term t) + by_term_dT[t] d(dterm t/dT). Filled where asked for.
  std::vector<double> by_term,     ///< derivatives with each term
      by_term_dT;                  ///< derivatives with the slope of each term
  std::vector<double> scratch[3];  ///< room to compute in
};

/// A kind whose points are one number of a liquid each.
struct LiquidValue {
  std::string_view column{};                ///< of a CSV file, "hE"; its uncertainty stands in u(hE)
  std::string_view json_key{};              ///< "hE_J_mol"
  Dimension dimension = Dimension::number;  ///< of the value
  std::string_view unit{};    ///< in which it is written and shown; the SI unit; empty of a number
  std::string_view thing{};   ///< "an activity coefficient"
  std::string_view format{};  ///< of the number in tables, "{:.4g}"
  bool of_component = false;  ///< the number belongs to one component, `DataPoint::solute`
  bool dilute = false;        ///< infinitely dilute in the pure `DataPoint::solvent`
  bool logarithmic = false;   ///< positive; compared by its logarithm
  /// Standard uncertainty where none is stated: a part of the value, and at least this much.
  double assumed_part = 0,           ///< assumed uncertainty, as part of the value
      assumed_least = 0;             ///< and at least this
  std::string_view assumed_text{};   ///< the same in words
  std::string_view thermoml_name{},  ///< name of the property in that standard
      thermoml_group{};              ///< of the property in that standard
  double thermoml_scale = 1;         ///< SI for one of its unit
  void (*evaluate)(ActivityModel& model, const DataPoint& point, bool derivatives, ModelValue& out) =
      nullptr;  ///< the value of a model at a point, with derivatives if they are wanted

  /// What the model gives at a point, as it was measured. @param model  of as many components as the point
  double by_model(ActivityModel& model, const DataPoint& point) const;
};

/// One kind in words and rules.
struct KindDescription {
  DataKind kind = DataKind::txy;  ///< the kind
  std::string_view name{};  ///< "txy", "pxy", "tx", "px", "lle", "gamma-inf", "gamma" or "excess-enthalpy"
  DataFamily family = DataFamily::boiling;        ///< what kind of equilibrium it is
  bool has_vapour = false;                        ///< the vapour was analysed
  bool isobaric = false;                          ///< the pressure was held and the temperature observed
  std::vector<std::string_view> uncertainties{};  ///< that weigh, as their columns are called: "u(T)"
  const LiquidValue* value = nullptr;             ///< of the family `liquid_value`, else null
};

const KindDescription& describe(DataKind kind);
/// All, in the order of the enumeration.
std::span<const KindDescription> data_kinds();
/// The kinds of the family `liquid_value`.
std::vector<const KindDescription*> liquid_value_kinds();

inline std::string_view name_of(DataKind kind) {
  return describe(kind).name;
}
inline DataFamily family_of(DataKind kind) {
  return describe(kind).family;
}
/// Whether a vapour is involved.
inline bool vapour_liquid(DataKind kind) {
  return family_of(kind) == DataFamily::boiling;
}
/// Whether the vapour was analysed.
inline bool has_vapour(DataKind kind) {
  return describe(kind).has_vapour;
}
/// Whether the pressure was held and the temperature observed.
inline bool isobaric(DataKind kind) {
  return describe(kind).isobaric;
}

}  // namespace jampot
