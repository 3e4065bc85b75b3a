#include "jampot/phase/phase.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/liquid/henry.hpp"
#include "jampot/phase/saturation_correction.hpp"

namespace jampot {
namespace {

// ln(Psat/Pa) of what stays in the liquid: its share of any vapour is zero to all digits.
constexpr double non_volatile = -400;

}  // namespace

void IdealGas::do_evaluate(double, double, std::span<const double>, Wanted wanted, PhaseValues& out) {
  std::fill(out.ln_phi.begin(), out.ln_phi.end(), 0.0);
  if (wanted.T) std::fill(out.dT.begin(), out.dT.end(), 0.0);
  if (wanted.ln_P) std::fill(out.dln_P.begin(), out.dln_P.end(), 0.0);
  if (wanted.composition) std::fill(out.dn.begin(), out.dn.end(), 0.0);
}

ActivityLiquid::ActivityLiquid(const std::vector<Substance>& substances, std::unique_ptr<ActivityModel> model,
                               std::unique_ptr<SaturationCorrection> correction)
    : model_(std::move(model)),
      correction_(std::move(correction)),
      ln_Psat_(substances.size()),
      dln_Psat_(substances.size()) {
  const auto* henry = dynamic_cast<const HenrySolution*>(model_.get());
  for (std::size_t i = 0; i < substances.size(); ++i) {
    // Of a solute after Henry's law the model holds the whole fugacity.
    solute_.push_back(henry != nullptr && henry->is_solute(i));
    vapour_pressures_.push_back(solute_.back() ? std::nullopt : substances[i].vapour_pressure);
  }
}

ActivityLiquid::ActivityLiquid(const ActivityLiquid& other)
    : Phase(other),
      vapour_pressures_(other.vapour_pressures_),
      solute_(other.solute_),
      model_(other.model_->clone()),
      correction_(other.correction_ ? std::make_unique<SaturationCorrection>(*other.correction_) : nullptr),
      ln_Psat_(other.ln_Psat_.size()),
      dln_Psat_(other.dln_Psat_.size()) {}

ActivityLiquid::~ActivityLiquid() = default;

const SaturationCorrection* ActivityLiquid::correction(double T_K) {
  set_temperature(T_K);
  return correction_.get();
}

void ActivityLiquid::set_temperature(double T_K) {
  model_->set_temperature(T_K);  // sees for itself whether anything changed
  if (T_K == T_K_) return;
  T_K_ = T_K;
  for (std::size_t i = 0; i < ln_Psat_.size(); ++i)
    ln_Psat_[i] = solute_[i] ? 0 : vapour_pressures_[i] ? vapour_pressures_[i]->ln_P(T_K) : non_volatile;
  if (!correction_) return;
  for (std::size_t i = 0; i < ln_Psat_.size(); ++i)
    dln_Psat_[i] = vapour_pressures_[i] ? vapour_pressures_[i]->dln_P_dT(T_K) : 0;
  correction_->set_temperature(T_K, ln_Psat_, dln_Psat_);
}

void ActivityLiquid::do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                                 PhaseValues& out) {
  set_temperature(T_K);
  model_->evaluate(w, out.ln_phi, wanted.T ? std::span(out.dT) : std::span<double>(),
                   wanted.composition ? std::span(out.dn) : std::span<double>());
  const double ln_P = std::log(P_Pa);
  for (std::size_t i = 0; i < ln_Psat_.size(); ++i) {
    out.ln_phi[i] += ln_Psat_[i] - ln_P;
    if (wanted.T && vapour_pressures_[i]) out.dT[i] += vapour_pressures_[i]->dln_P_dT(T_K);
    if (wanted.ln_P) out.dln_P[i] = -1;
    if (!correction_ || !vapour_pressures_[i]) continue;
    out.ln_phi[i] += correction_->ln(i, P_Pa);
    if (wanted.T) out.dT[i] += correction_->dT(i, P_Pa);
    if (wanted.ln_P) out.dln_P[i] += correction_->dln_P(i, P_Pa);
  }
}

void MixingLiquid::do_evaluate(double T_K, double, std::span<const double> w, Wanted wanted,
                               PhaseValues& out) {
  model_->set_temperature(T_K);
  model_->evaluate(w, out.ln_phi, wanted.T ? std::span(out.dT) : std::span<double>(),
                   wanted.composition ? std::span(out.dn) : std::span<double>());
  if (wanted.ln_P) std::fill(out.dln_P.begin(), out.dln_P.end(), 0.0);
}

}  // namespace jampot
