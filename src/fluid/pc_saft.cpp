#include "jampot/fluid/pc_saft.hpp"

#include <fmt/format.h>

#include <cmath>

#include "density_roots.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"
#include "pc_saft_terms.hpp"

namespace jampot {
namespace {

constexpr double densest_packing =
    0.65;  // packing fraction well beyond any liquid, short of the close packing of 0.74

constexpr double cubic_angstrom_mol =
    avogadro * 1e-30;  // m3 of as many cubic angstroms as a mole has molecules

// Donors and acceptors of a scheme; a site that bonds with its like counts as both.
std::vector<pc_saft::Site> sites_of(std::size_t component, const Substance& substance) {
  using pc_saft::SiteKind;
  const std::string& scheme = substance.pc_saft->association_scheme;
  if (scheme.empty() || scheme == "none") return {};
  if (scheme == "1") return {{component, SiteKind::both, 1}};
  if (scheme == "2B") return {{component, SiteKind::donor, 1}, {component, SiteKind::acceptor, 1}};
  if (scheme == "3B") return {{component, SiteKind::donor, 1}, {component, SiteKind::acceptor, 2}};
  if (scheme == "4C") return {{component, SiteKind::donor, 2}, {component, SiteKind::acceptor, 2}};
  throw RequestError(
      fmt::format("association scheme '{}' of {}: there are 1, 2B, 3B and 4C", scheme, substance.name));
}

// Where every molecule has as many donors as acceptors, both have the same share of free sites: half the
// unknowns.
void join_alike_sites(pc_saft::Parameters& p) {
  std::vector<pc_saft::Site> joined;
  for (std::size_t a = 0; a < p.sites.size(); a += 2) {
    if (p.sites[a].kind == pc_saft::SiteKind::both || p.sites[a].number != p.sites[a + 1].number) return;
    joined.push_back({p.sites[a].component, pc_saft::SiteKind::both, p.sites[a].number, 2});
  }
  p.sites = std::move(joined);
}

}  // namespace

struct PcSaft::Parameters : pc_saft::Parameters {};
template <class S>
struct PcSaft::Work : pc_saft::Work<S> {
  using pc_saft::Work<S>::Work;
};
struct PcSaft::Dual : pc_saft::Work<pc_saft::Dual> {
  using pc_saft::Work<pc_saft::Dual>::Work;
};

PcSaft::PcSaft(const std::vector<Substance>& substances, const InteractionTable& interactions)
    : parameters_(std::make_unique<Parameters>()), scratch_(substances.size()) {
  std::vector<std::string> missing;
  for (const Substance& substance : substances) {
    if (!substance.pc_saft) missing.push_back(substance.name);
  }
  if (!missing.empty())
    throw CalculationError(fmt::format("PC-SAFT has no parameters for: {}", joined(missing, ", ")));
  pc_saft::Parameters& p = *parameters_;
  const std::size_t n = p.n = substances.size();
  p.k.resize(n * n);
  p.sigma3.resize(n * n);
  p.epsilon.resize(n * n);
  p.bond_volume.resize(n * n);
  p.bond_energy.resize(n * n);
  for (const Substance& substance : substances) {
    p.m.push_back(substance.pc_saft->segments);
    p.sigma.push_back(substance.pc_saft->diameter_A);
    for (const pc_saft::Site& site : sites_of(p.m.size() - 1, substance)) p.sites.push_back(site);
  }
  join_alike_sites(p);
  std::vector<std::string> zero;
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = 0; j < n; ++j) {
      const PcSaftParameters &a = *substances[i].pc_saft, &b = *substances[j].pc_saft;
      const std::size_t ij = i * n + j;
      if (i != j) {
        const auto given = interactions.find(substances[i].name, substances[j].name);
        const auto printed = published_pc_saft_interaction(substances[i].name, substances[j].name);
        p.k[ij] = given ? *given : printed ? printed->value : 0;
        if (!given && !printed && i < j)
          zero.push_back(fmt::format("{} - {}", substances[i].name, substances[j].name));
      }
      const double sigma = (a.diameter_A + b.diameter_A) / 2;
      p.sigma3[ij] = sigma * sigma * sigma;
      p.epsilon[ij] = std::sqrt(a.energy_K * b.energy_K) * (1 - p.k[ij]);
      p.bond_energy[ij] = (a.association_energy_K + b.association_energy_K) / 2;
      p.bond_volume[ij] = std::sqrt(a.association_volume * b.association_volume) *
                          std::pow(a.diameter_A * b.diameter_A, 1.5);  // kappa_ij sigma_ij^3
    }
  }
  if (!zero.empty()) {
    notices_.add(
        "no-interaction",
        fmt::format("no k_ij for {}: 0 is assumed, which suits only similar components", joined(zero, ", ")));
  }
  plain_ = std::make_unique<Work<double>>(p);
  dual_ = std::make_unique<Dual>(p);
}

PcSaft::PcSaft(const PcSaft& other)
    : EquationOfState(other),
      parameters_(std::make_unique<Parameters>(*other.parameters_)),
      plain_(std::make_unique<Work<double>>(*parameters_)),
      dual_(std::make_unique<Dual>(*parameters_)),
      scratch_(other.size()) {}

PcSaft::~PcSaft() = default;

std::size_t PcSaft::size() const {
  return parameters_->n;
}

double PcSaft::k(std::size_t i, std::size_t j) const {
  return parameters_->k[i * size() + j];
}

double PcSaft::diameter_A(std::size_t i, double T_K) const {
  return pc_saft::diameter(*parameters_, i, T_K);
}

double PcSaft::packing_fraction(double T_K, double v_m3_mol, std::span<const double> x) const {
  double sum = 0;
  for (std::size_t i = 0; i < size(); ++i) sum += x[i] * parameters_->m[i] * std::pow(diameter_A(i, T_K), 3);
  return pc_saft::pi / 6 * sum * cubic_angstrom_mol / v_m3_mol;
}

std::vector<PcSaft::FreeSites> PcSaft::free_sites() const {
  static const std::array<const char*, 3> kinds{"donor", "acceptor", "both"};
  std::vector<FreeSites> list;
  for (std::size_t a = 0; a < parameters_->sites.size(); ++a) {
    const pc_saft::Site& site = parameters_->sites[a];
    list.push_back({site.component, static_cast<int>(site.number),
                    site.copies == 2 ? "donor and acceptor" : kinds[static_cast<std::size_t>(site.kind)],
                    plain_->X[a]});
  }
  return list;
}

// First derivatives are written out; one dual number carried through them gives a column of second ones.
void PcSaft::evaluate(double T_K, double V_m3, std::span<const double> n, HelmholtzWanted wanted,
                      Helmholtz& out) {
  const pc_saft::Parameters& p = *parameters_;
  const double v = V_m3 / cubic_angstrom_mol;
  plain_->n.assign(n.begin(), n.end());
  pc_saft::gradient(p, *plain_, T_K, v, nullptr);
  out.F = plain_->F;
  out.V = plain_->F_v / cubic_angstrom_mol;
  out.T = plain_->F_T;
  std::copy(plain_->F_n.begin(), plain_->F_n.end(), out.i.begin());

  const auto along = [&](double dT, double dv, std::size_t component) {
    for (std::size_t i = 0; i < p.n; ++i) dual_->n[i] = pc_saft::Dual(n[i]);
    if (component < p.n) dual_->n[component].v[0] = 1;
    pc_saft::Dual T(T_K), volume(v);
    T.v[0] = dT;
    volume.v[0] = dv;
    pc_saft::gradient(p, *dual_, T, volume, &plain_->X);
  };
  const std::size_t none = p.n;
  if (wanted.V) {
    along(0, 1, none);
    out.VV = dual_->F_v.v[0] / (cubic_angstrom_mol * cubic_angstrom_mol);
    for (std::size_t i = 0; i < p.n; ++i) out.iV[i] = dual_->F_n[i].v[0] / cubic_angstrom_mol;
  }
  if (wanted.T || wanted.TT) {
    along(1, 0, none);
    out.TV = dual_->F_v.v[0] / cubic_angstrom_mol;
    out.TT = dual_->F_T.v[0];
    for (std::size_t i = 0; i < p.n; ++i) out.iT[i] = dual_->F_n[i].v[0];
  }
  for (std::size_t j = 0; wanted.composition && j < p.n; ++j) {
    along(0, 0, j);
    for (std::size_t i = 0; i < p.n; ++i) out.ij[i * p.n + j] = dual_->F_n[i].v[0];
  }
}

double PcSaft::pressure(double T_K, double density, std::span<const double> x, double* slope) {
  HelmholtzWanted wanted;
  wanted.V = slope != nullptr;
  evaluate(T_K, 1 / density, x, wanted, scratch_);
  const double RT = gas_constant * T_K;
  if (slope != nullptr) *slope = RT * (scratch_.VV / (density * density) + 1);
  return RT * (density - scratch_.V);
}

VolumeRoot PcSaft::root_at(double density, double T_K, double P_Pa, std::span<const double> x) {
  VolumeRoot root;
  root.v_m3_mol = 1 / density;
  root.Z = P_Pa / (density * gas_constant * T_K);
  evaluate(T_K, root.v_m3_mol, x, {}, scratch_);
  root.gibbs = scratch_.F + root.Z - 1 - std::log(root.Z);
  return root;
}

std::optional<VolumeRoot> PcSaft::outermost_volume(double T_K, double P_Pa, std::span<const double> x,
                                                   bool thin) {
  const double most = densest_packing / packing_fraction(T_K, 1, x);
  const auto P = [&](double density, double* slope) { return pressure(T_K, density, x, slope); };
  const auto density =
      thin ? density_from_thin(P, P_Pa, gas_constant * T_K, most) : density_from_dense(P, P_Pa, most);
  // The branch on this side may not reach the pressure: then the other one is the only one.
  if (!density) return EquationOfState::outermost_volume(T_K, P_Pa, x, thin);
  return root_at(*density, T_K, P_Pa, x);
}

VolumeRoots PcSaft::volumes(double T_K, double P_Pa, std::span<const double> x) {
  steps_.clear();
  const double unit = packing_fraction(T_K, 1, x);  // packing fraction of one mole in a cubic metre
  const auto P = [&](double density, double* slope) {
    const double value = pressure(T_K, density, x, slope);
    steps_.push_back({density * unit, value});
    return value;
  };
  VolumeRoots roots;
  for (const double density : density_roots(P, P_Pa, gas_constant * T_K, densest_packing / unit))
    roots.add(root_at(density, T_K, P_Pa, x));
  return roots;
}

bool PcSaft::vapour_like(double T_K, double v_m3_mol, std::span<const double> x) {
  constexpr double critical = 0.13;  // packing fraction of chains of usual length at the critical point
  return packing_fraction(T_K, v_m3_mol, x) < critical;
}

std::optional<PublishedInteraction> published_pc_saft_interaction(const std::string& first,
                                                                  const std::string& second) {
  static const CsvTable table(jampot_data::pc_saft_interactions_csv(), "pc_saft_interactions.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const std::string_view a = table.text(row, table.column("first")),
                           b = table.text(row, table.column("second"));
    if (!((a == first && b == second) || (a == second && b == first))) continue;
    return PublishedInteraction{table.number(row, table.column("k_ij")),
                                std::string(table.text(row, table.column("source"))),
                                table.text(row, table.column("grade")).front()};
  }
  return std::nullopt;
}

}  // namespace jampot
