// An archive of made-up measurements, for collections: a seeded choice of pairs of the bank, a hidden NRTL
// liquid for each, boiling points with noise of the stated size.
//   make_archive FOLDER SETS PAIRS POINTS SEED
#include <fmt/os.h>

#include <boost/random/mersenne_twister.hpp>
#include <boost/random/normal_distribution.hpp>
#include <boost/random/uniform_real_distribution.hpp>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <stdexcept>
#include <string>
#include <vector>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/bank.hpp"

namespace {

using namespace jampot;

using Generator = boost::random::mt19937_64;

double uniform(Generator& generator, double low, double high) {
  return boost::random::uniform_real_distribution<double>(low, high)(generator);
}

struct HiddenPair {
  Substance first, second;
  PairParameters parameters;
};

// Liquids that boil within 50 K of each other.
std::vector<HiddenPair> chosen_pairs(std::size_t count, Generator& generator) {
  std::vector<Substance> liquids;
  for (const Substance& substance : Bank::built_in().all()) {
    // A name with a comma would have to be quoted.
    if (!substance.vapour_pressure || substance.name.find(',') != std::string::npos) continue;
    const double Tb_K = substance.vapour_pressure->T_K(standard_atmosphere);
    if (Tb_K > 305 && Tb_K < 430 && substance.vapour_pressure->lowest_K() < Tb_K - 40)
      liquids.push_back(substance);
  }
  std::vector<HiddenPair> all;
  for (std::size_t i = 0; i < liquids.size(); ++i) {
    for (std::size_t j = i + 1; j < liquids.size(); ++j) {
      const double gap = liquids[i].vapour_pressure->T_K(standard_atmosphere) -
                         liquids[j].vapour_pressure->T_K(standard_atmosphere);
      if (std::abs(gap) < 50) all.push_back({liquids[i], liquids[j], {}});
    }
  }
  std::vector<HiddenPair> pairs;
  while (pairs.size() < count && !all.empty()) {
    const auto k = static_cast<std::size_t>(uniform(generator, 0, static_cast<double>(all.size()) - 1e-6));
    HiddenPair pair = all[k];
    all[k] = all.back();
    all.pop_back();
    pair.parameters.model = "nrtl";
    pair.parameters.between = {pair.first.name, pair.second.name};
    const double b12 = uniform(generator, -60, 320), b21 = uniform(generator, -60, 320);
    pair.parameters.terms["tau_12"].inverse_T = b12;
    pair.parameters.terms["tau_21"].inverse_T = b21;
    pair.parameters.terms["alpha"].constant = 0.3;
    pairs.push_back(std::move(pair));
  }
  return pairs;
}

void write_set(const std::string& file, const HiddenPair& pair, int points, bool isobaric,
               Generator& generator) {
  constexpr double u_T_K = 0.05, u_P = 0.0005, u_x = 0.002, u_y = 0.004;
  boost::random::normal_distribution<double> normal;
  ParameterCollection parameters;
  parameters.add(pair.parameters);
  Mixture mixture({pair.first, pair.second}, "nrtl", parameters);
  const double P_Pa = standard_atmosphere * (uniform(generator, 0, 1) < 0.7 ? 1 : 0.5);
  const double T_K = pair.first.vapour_pressure->T_K(standard_atmosphere) - uniform(generator, 5, 30);
  auto out = fmt::output_file(file);
  out.print("# made-up data: an archive for jampot collect\n# substances: {}, {}\n", pair.first.name,
            pair.second.name);
  out.print("# u(T): {} K\n# u(P): {} kPa\n# u(x): {}\n# u(y): {}\nT [K],P [kPa],x1,y1\n", u_T_K,
            u_P * P_Pa / 1000, u_x, u_y);
  for (int k = 1; k <= points; ++k) {
    const double x = (k - 0.5) / points;
    const VlePoint point = isobaric ? bubble_temperature(mixture, P_Pa, std::vector{x, 1 - x})
                                    : bubble_pressure(mixture, T_K, std::vector{x, 1 - x});
    const auto noisy = [&](double value, double u) { return value + u * normal(generator); };
    const auto inside = [](double value) { return std::min(std::max(value, 1e-4), 1 - 1e-4); };
    out.print("{:.3f},{:.4f},{:.5f},{:.5f}\n", noisy(point.T_K, u_T_K),
              noisy(point.P_Pa, u_P * point.P_Pa) / 1000, inside(noisy(x, u_x)),
              inside(noisy(point.y[0], u_y)));
  }
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 6) {
    std::fputs("make_archive FOLDER SETS PAIRS POINTS SEED\n", stderr);
    return 2;
  }
  try {
    const std::filesystem::path folder = argv[1];
    const auto sets = static_cast<std::size_t>(std::atoi(argv[2]));
    Generator generator(static_cast<unsigned>(std::atoi(argv[5])));
    const std::vector<HiddenPair> pairs =
        chosen_pairs(static_cast<std::size_t>(std::atoi(argv[3])), generator);
    for (std::size_t k = 0; k < sets; ++k) {
      const std::filesystem::path shelf = folder / fmt::format("shelf-{:02}", k % 20);
      std::filesystem::create_directories(shelf);
      write_set((shelf / fmt::format("set-{:04}.csv", k)).string(), pairs[k % pairs.size()],
                std::atoi(argv[4]), k % 3 != 2, generator);
    }
  } catch (const std::exception& error) {
    std::fprintf(stderr, "make_archive: %s\n", error.what());
    return 1;
  }
  return 0;
}
