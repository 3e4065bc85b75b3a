#pragma once
// What the studies of azeotropes and of residue curves say about singular points.
#include "jampot/study/azeotropes.hpp"

namespace jampot {

/// Of predicted liquids (UNIFAC, estimated pairs): homogeneous azeotropes so near a pure substance that the
/// error of predictions may make or unmake them.
void add_doubtful_predictions(const Mixture& mixture, const std::vector<SingularPoint>& points,
                              Notices& notices);

/// The first azeotrope written out: its boiling point (of each of its liquids), and that the vapour is the
/// liquid.
std::vector<std::string> azeotrope_working(Mixture& mixture, const SingularPoints& found);

}  // namespace jampot
