#pragma once
// Temperature and pressure: one is held, the other sought.

namespace jampot {

/// Which of T and P is sought.
enum class Sought { temperature, pressure };

}  // namespace jampot
