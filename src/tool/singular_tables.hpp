#pragma once
// Singular points in tables, JSON and sentences.
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/files/json_results.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot::tool {

/// "ethanol + water", by short names.
std::string members_of(const SingularPoint& point, const std::vector<Substance>& substances);
/// "pure", "homogeneous" or "heterogeneous".
std::string kind_of(const SingularPoint& point);
Json to_json(const SingularPoint& point, double P_Pa, const std::vector<Substance>& substances);
/// Of predicted liquids (UNIFAC, estimated pairs): homogeneous azeotropes so near a pure substance that the
/// error of predictions may make or unmake them.
void add_doubtful_predictions(const Mixture& mixture, const std::vector<SingularPoint>& points,
                              Notices& notices);
/// The first azeotrope written out: its boiling point (of each of its liquids), and that the vapour is the
/// liquid.
std::vector<std::string> azeotrope_working(Mixture& mixture, const SingularPoints& found);
/// "index balance met (2 of 2)".
std::string balance_of(const SingularPoints& found);

}  // namespace jampot::tool
