#pragma once
// Measured data as the fit sees them: SI, every quantity with its standard uncertainty.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/measured/data_kind.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// One measured point.
struct DataPoint {
  double T_K = 0,  ///< temperature, K
      P_Pa = 0;    ///< pressure, Pa; 0 where no vapour is involved
  /// Mole fractions of liquid and vapour; y is empty where the vapour was not analysed. Of two liquids x is
  /// the one and y the other; of a limiting activity coefficient x is the pure solvent.
  std::vector<double> x,    ///< mole fractions of the liquid
      y;                    ///< mole fractions of the vapour
  double u_T_K = 0,         ///< standard uncertainty of the temperature, K
      u_P_Pa = 0,           ///< standard uncertainty of the pressure, Pa
      u_x = 0,              ///< standard uncertainty of each x
      u_y = 0;              ///< standard uncertainty of each y
  int line = 0;             ///< in its file; 0 where there is none
  double value = 0,         ///< the number of a liquid, in SI
      u_value = 0;          ///< its standard uncertainty
  std::size_t solute = 0;   ///< whose activity coefficient it is
  std::size_t solvent = 0;  ///< of a limiting activity coefficient
  std::string excluded{};   ///< why the point is not used; empty: it is
  /// Of two liquids: where it is not 0, the uncertainty of a fraction is at most this part of it, so that a
  /// dilute component keeps its measured value. `u_of_fraction` says what that makes.
  double relative_u_x = 0;

  /// True where it is not excluded.
  bool used() const { return excluded.empty(); }
  /// A pure substance says nothing about the pair: it checks the vapour pressure only.
  bool is_pure() const;
  /// Numbers of the components that are there at all, in either phase.
  std::vector<std::size_t> present() const;
};

/// Measured points of one kind about the same substances.
struct DataSet {
  std::string name;                   ///< the file it came from
  std::string source;                 ///< citation or name of the file
  DataKind kind = DataKind::txy;      ///< what was measured
  std::vector<Substance> substances;  ///< in the order of the columns
  std::vector<DataPoint> points;      ///< in the order of the file
  Notices notices;                    ///< what the reader must know

  DataSet();                                     ///< with nothing set
  DataSet(const DataSet& other);                 ///< copied member by member
  DataSet(DataSet&& other) noexcept;             ///< moved member by member
  DataSet& operator=(const DataSet& other);      ///< copied member by member
  DataSet& operator=(DataSet&& other) noexcept;  ///< moved member by member
  ~DataSet();                                    ///< member by member
};

/// Refuses points that cannot be used: another number of fractions than substances, numbers that are none, a
/// temperature or pressure that is not positive, fractions outside 0..1, and, where uncertainties count, one
/// that is not positive. @throws RequestError naming the point, its line and the quantity
void demand_points(const DataSet& set, bool with_uncertainties = false);

/// Standard uncertainty of one fraction of a liquid: `u`, but not more than the part `relative` of the
/// fraction where that is not 0. Of a fraction measured as zero: `u`.
double u_of_fraction(double fraction, double u, double relative);

/// ln of the activity coefficient that a boiling point with its vapour says of component i with an ideal
/// vapour, ln(y_i P / (x_i Psat_i)). x_i and y_i are positive and the substance has a vapour pressure.
double ln_gamma_of(const DataPoint& point, const std::vector<Substance>& substances, std::size_t i);

/// The kind of data about boiling liquids, from the points: isobaric where the pressure hardly moves (2 %) or
/// the temperature moves at all (1 K), else isothermal; with vapour where it was analysed.
DataKind boiling_kind(const std::vector<DataPoint>& points);

/// The sets as if all were about the substances of all of them together, in the order in which they first
/// appear: a quantity that was not measured is absent from its points.
std::vector<DataSet> with_common_substances(const std::vector<DataSet>& sets);

}  // namespace jampot
