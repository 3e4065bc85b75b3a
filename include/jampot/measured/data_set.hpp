#pragma once
// Measured data as the fit sees them: SI, every quantity with its standard uncertainty.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// What was measured. The first letter is the quantity that was observed while the other was held.
enum class DataKind { txy, pxy, tx, px };

/// "txy", "pxy", "tx" or "px".
std::string_view name_of(DataKind kind);
/// Whether the vapour was analysed.
constexpr bool has_vapour(DataKind kind) {
  return kind == DataKind::txy || kind == DataKind::pxy;
}
/// Whether the pressure was held and the temperature observed.
constexpr bool isobaric(DataKind kind) {
  return kind == DataKind::txy || kind == DataKind::tx;
}

/// One measured vapour-liquid equilibrium.
struct DataPoint {
  double T_K = 0, P_Pa = 0;
  std::vector<double> x, y;  ///< mole fractions; y is empty where the vapour was not analysed
  double u_T_K = 0, u_P_Pa = 0, u_x = 0, u_y = 0;  ///< standard uncertainties, all positive
  int line = 0;                                    ///< in its file; 0 where there is none

  /// A pure substance says nothing about the pair: it checks the vapour pressure only.
  bool is_pure() const;
};

struct DataSet {
  std::string name;  ///< the file it came from
  std::string source;
  DataKind kind = DataKind::txy;
  std::vector<Substance> substances;
  std::vector<DataPoint> points;
  Notices notices;
};

}  // namespace jampot
