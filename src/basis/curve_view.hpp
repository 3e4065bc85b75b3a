#pragma once
// A function of one variable as roots, minima and integrals take it.
#include <concepts>
#include <functional>
#include <type_traits>

namespace jampot {

/// Borrowed for one call and copied nowhere: what searches with it is compiled once, not for each function.
class CurveView {
 public:
  template <class Function>
  requires std::is_invocable_r_v<double, Function&, double> &&
      (!std::same_as<std::remove_cvref_t<Function>, CurveView>)
      // NOLINTNEXTLINE(google-explicit-constructor): any function will do
      CurveView(Function&& f)
      : call_(std::ref(f)) {}
  double operator()(double x) const { return call_(x); }

 private:
  std::function<double(double)> call_;
};

}  // namespace jampot
