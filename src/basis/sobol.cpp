#include "sobol.hpp"

#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>

namespace jampot {

struct SobolSequence::Generator {
  boost::random::sobol numbers;
  boost::random::uniform_01<double> uniform{};
};

SobolSequence::SobolSequence(std::size_t dimensions)
    : generator_(std::make_unique<Generator>(Generator{boost::random::sobol(dimensions)})) {}
SobolSequence::~SobolSequence() = default;
SobolSequence::SobolSequence(SobolSequence&&) noexcept = default;
SobolSequence& SobolSequence::operator=(SobolSequence&&) noexcept = default;

double SobolSequence::next() {
  return generator_->uniform(generator_->numbers);
}

}  // namespace jampot
