#pragma once
#include <fmt/format.h>

#include <cstddef>

#include "jampot/basis/error.hpp"

namespace jampot {

// Of many states component by component. @throws RequestError
inline void demand_states(std::size_t fractions, std::size_t results, std::size_t components,
                          std::size_t states) {
  if (fractions != components * states || results != fractions)
    throw RequestError(
        fmt::format("{} fractions and {} results for {} states of {} substances: expected {} of both",
                    fractions, results, states, components, components * states));
}

}  // namespace jampot
