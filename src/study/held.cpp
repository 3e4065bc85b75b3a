#include "jampot/study/held.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"

namespace jampot {

void demand_count(const char* what, double wanted, double most) {
  if (wanted > most)
    throw RequestError(fmt::format("{:.0f} {} are too many for one request; at most {:.0f} are calculated",
                                   wanted, what, most));
}

}  // namespace jampot
