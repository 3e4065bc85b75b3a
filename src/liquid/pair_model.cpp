#include "jampot/liquid/pair_model.hpp"

#include <algorithm>

namespace jampot {

void PairModel::set_coefficient(std::size_t term, Coefficient coefficient, double value) {
  terms_.at(term).function[coefficient] = value;
  changed_ = true;
}

bool PairModel::moves_to(double T_K) {
  if (T_K == T_K_ && !changed_) return false;
  T_K_ = T_K;
  if (changed_) {
    with_log_ = std::any_of(terms_.begin(), terms_.end(),
                            [](const ModelTerm& term) { return term.function.log_T != 0; });
  }
  changed_ = false;
  return true;
}

}  // namespace jampot
