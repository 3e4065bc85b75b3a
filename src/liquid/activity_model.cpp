#include "jampot/liquid/activity_model.hpp"

#include <stdexcept>

namespace jampot {

void ActivityModel::set_coefficient(std::size_t, Coefficient, double) {
  throw std::logic_error("this model has no adjustable terms");
}

double ActivityModel::third_derivative(std::span<const double>, std::span<const double>) const {
  throw std::logic_error("this model has no third derivative, which critical points need");
}

void ActivityModel::term_derivatives(std::span<const double>, std::span<double>) {}

void ActivityModel::gibbs_term_derivatives(std::span<const double>, std::span<double>, std::span<double>) {}

}  // namespace jampot
