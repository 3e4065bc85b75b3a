#pragma once
// Singular points in JSON and sentences.
#include "jampot/files/json_results.hpp"
#include "jampot/study/azeotropes.hpp"

namespace jampot {

Json to_json(const SingularPoint& point, double P_Pa, const std::vector<Substance>& substances);
/// "index balance met (2 of 2)".
std::string balance_of(const SingularPoints& found);

}  // namespace jampot
