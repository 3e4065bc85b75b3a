#pragma once
// PC-SAFT: chains of spheres that attract and, where they have the sites, associate.
#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/fluid/interaction_table.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Perturbed-chain SAFT: hard chain, dispersion, association.
///
/// Sources: J. Gross, G. Sadowski, Ind. Eng. Chem. Res. 40 (2001) 1244-1260 (chain and dispersion) and 41
/// (2002) 5510-5515 (association); strength between unlike sites by J. P. Wolbach, S. I. Sandler, Ind. Eng.
/// Chem. Res. 37 (1998) 2917-2928; sites as numbered by S. H. Huang, M. Radosz, Ind. Eng. Chem. Res. 29
/// (1990) 2284-2294: 1 (one site that bonds with its like), 2B, 3B, 4C.
class PcSaft final : public EquationOfState {
 public:
  /// k_ij between the dispersion energies: from `interactions`, else published, else 0 with a notice.
  /// @throws CalculationError naming every substance without parameters
  explicit PcSaft(const std::vector<Substance>& substances, const InteractionTable& interactions = {});
  /// A copy with a state of its own.
  PcSaft(const PcSaft& other);
  PcSaft& operator=(const PcSaft&) = delete;
  ~PcSaft() override;

  std::string_view name() const override { return "pc-saft"; }
  std::size_t size() const override;
  std::unique_ptr<EquationOfState> clone() const override { return std::make_unique<PcSaft>(*this); }
  void evaluate(double T_K, double V_m3, std::span<const double> n, HelmholtzWanted wanted,
                Helmholtz& out) override;
  VolumeRoots volumes(double T_K, double P_Pa, std::span<const double> x) override;
  std::optional<VolumeRoot> outermost_volume(double T_K, double P_Pa, std::span<const double> x,
                                             bool thin) override;
  bool vapour_like(double T_K, double v_m3_mol, std::span<const double> x) override;

  // For those who want to see the calculation (--working).
  /// Binary interaction parameter.
  double k(std::size_t i, std::size_t j) const;
  double diameter_A(std::size_t i, double T_K) const;  ///< temperature-dependent segment diameter
  /// Share of space that the segments fill, zeta_3.
  double packing_fraction(double T_K, double v_m3_mol, std::span<const double> x) const;
  /// A density step of the last `volumes`: packing fraction and pressure.
  struct Step {
    double packing_fraction,  ///< packing fraction tried
        P_Pa;                 ///< pressure there, Pa
  };
  /// How the density was found last.
  const std::vector<Step>& steps() const { return steps_; }
  /// Share of the sites of each kind that are not bonded, at the state of the last `evaluate`.
  struct FreeSites {
    std::size_t component;  ///< its number
    int number;             ///< of such sites on a molecule
    std::string kind;       ///< "donor", "acceptor" or "both"
    double share;           ///< share of its sites that is not bonded
  };
  /// Of the state evaluated last.
  std::vector<FreeSites> free_sites() const;

 private:
  struct Parameters;
  template <class S>
  struct Work;
  VolumeRoot root_at(double density, double T_K, double P_Pa, std::span<const double> x);
  double pressure(double T_K, double density, std::span<const double> x, double* slope);

  std::unique_ptr<Parameters> parameters_;
  std::unique_ptr<Work<double>> plain_;
  struct Dual;
  std::unique_ptr<Dual> dual_;
  Helmholtz scratch_;
  std::vector<Step> steps_;
};

/// Published k_ij of PC-SAFT between two substances, with its source.
struct PublishedInteraction {
  double value;        ///< k_ij
  std::string source;  ///< where the values come from
  char grade;          ///< A to D, how well the source is established
};
std::optional<PublishedInteraction> published_pc_saft_interaction(const std::string& first,
                                                                  const std::string& second);

}  // namespace jampot
