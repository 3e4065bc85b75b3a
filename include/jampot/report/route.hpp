#pragma once
// The routes through a residue curve map told.
#include "jampot/report/residue.hpp"
#include "jampot/study/route.hpp"

namespace jampot {

/// The first route in sentences, all of them as streams; drawn: the map with the balance lines of the first.
/// Looks are those of a residue curve map.
Answer answer(const RouteStudy& study, const ResidueAnswerOptions& options = {});

}  // namespace jampot
