// Makes the measured data of the demo. All of it is made up: hidden truths, seeded noise of the stated size.
//   make_measured FOLDER    writes the files that are committed in demo/measured; a test compares the two
#include <fmt/os.h>

#include <array>
#include <boost/random/mersenne_twister.hpp>
#include <boost/random/normal_distribution.hpp>
#include <cmath>
#include <string>

#include "hidden_truth.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"

namespace {

using namespace jampot;

/// A liquid that no local-composition model of two parameters describes: the Redlich-Kister series with three
/// terms, gE/(RT) = x1 x2 (A + B (x1 - x2) + C (x1 - x2)^2), temperature left out.
class RedlichKister final : public ActivityModel {
 public:
  explicit RedlichKister(std::array<double, 3> terms) : terms_(terms) {}
  std::string_view name() const override { return "redlich-kister"; }
  std::size_t size() const override { return 2; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<RedlichKister>(*this); }
  void set_temperature(double) override {}
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double>,
                std::span<double>) override {
    const auto [A, B, C] = terms_;
    const double d = x[0] - x[1], product = x[0] * x[1];
    const double g = product * (A + B * d + C * d * d);
    const double slope = -d * (A + B * d + C * d * d) + product * (2 * B + 4 * C * d);  // dg/dx1
    ln_gamma[0] = g + x[1] * slope;
    ln_gamma[1] = g - x[0] * slope;
  }

 private:
  std::array<double, 3> terms_;
};

struct Series {
  std::string file, title, hidden;
  unsigned seed;
};

void write(const std::string& folder, const Series& series, Mixture mixture) {
  boost::random::mt19937_64 generator(series.seed);
  boost::random::normal_distribution<double> normal;
  using hidden_truth::u_P_Pa, hidden_truth::u_T_K, hidden_truth::u_x, hidden_truth::u_y;

  auto out = fmt::output_file(folder + "/" + series.file);
  out.print("# made-up data: {}\n", series.title);
  out.print("# substances: {}, {}\n", mixture.substances()[0].name, mixture.substances()[1].name);
  out.print("# kind: txy\n");
  out.print("# source: made up by demo/make_measured.cpp, seed {}, from a hidden {}\n", series.seed,
            series.hidden);
  out.print("# u(T): {} K\n# u(P): {} kPa\n# u(x): {}\n# u(y): {}\n", u_T_K, u_P_Pa / 1000, u_x, u_y);
  out.print("T [degC], P [kPa], x1, y1\n");
  constexpr int points = 30;
  for (int k = 0; k < points; ++k) {
    const double x1 = 0.02 + 0.96 * k / (points - 1);
    const std::array<double, 2> x{x1, 1 - x1};
    const VlePoint point = bubble_temperature(mixture, standard_atmosphere, x);
    // Named one by one: the order in which arguments are evaluated is not fixed, the order of the noise must
    // be.
    const double T_C = point.T_K - celsius_zero + u_T_K * normal(generator);
    const double P_kPa = (standard_atmosphere + u_P_Pa * normal(generator)) / 1000;
    const double x_read = x1 + u_x * normal(generator);
    const double y_read = point.y[0] + u_y * normal(generator);
    out.print("{:.2f}, {:.2f}, {:.4f}, {:.4f}\n", T_C, P_kPa, x_read, y_read);
  }
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    fmt::print(stderr, "usage: make_measured FOLDER\n");
    return 2;
  }
  const auto substances = substances_named({"methyl tert-butyl ether", "methanol"});
  ParameterCollection hidden;
  hidden.add(hidden_truth::pair());
  write(argv[1], {"mtbe-methanol.csv", "Saltmarsh Botanicals, main line, solvent still", "NRTL pair", 20},
        Mixture(substances, "nrtl", hidden));
  write(argv[1],
        {"mtbe-methanol-second-still.csv", "Saltmarsh Botanicals, the same pair from the second still",
         "Redlich-Kister series", 21},
        Mixture(substances, std::make_unique<RedlichKister>(hidden_truth::second_still), {}));
}
