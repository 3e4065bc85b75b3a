#include "jampot/study/regress.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

// Of the first data set: the one that says whether the azeotrope is sought at a pressure or at a temperature.
double mean_held(const Fit& fit, Sought sought) {
  double sum = 0;
  int count = 0;
  for (const ResidualRow& row : fit.residuals) {
    if (!row.used() || row.set != 0) continue;
    sum += sought == Sought::temperature ? row.measured.P_Pa : row.measured.T_K;
    ++count;
  }
  return sum / count;
}

}  // namespace

std::optional<FittedAzeotropes> fitted_azeotropes(const Fit& fit) {
  const auto first = std::find_if(fit.residuals.begin(), fit.residuals.end(),
                                  [](const ResidualRow& row) { return row.used(); });
  const bool of_first_set = std::any_of(fit.residuals.begin(), fit.residuals.end(),
                                        [](const ResidualRow& row) { return row.set == 0 && row.used(); });
  if (fit.substances.size() != 2 || !of_first_set) return std::nullopt;
  for (const Substance& substance : fit.substances) {
    if (!substance.vapour_pressure) return std::nullopt;  // what does not boil has no azeotrope
  }
  const Sought sought = fit.isobaric[first->set] ? Sought::temperature : Sought::pressure;
  Mixture mixture = fit.mixture();
  const double held = mean_held(fit, sought);
  FittedAzeotropes result{sought == Sought::temperature ? txy(mixture, held) : pxy(mixture, held), {}, {}};
  for (const Azeotrope& azeotrope : result.curve.azeotropes) {
    const bool known = !azeotrope.heterogeneous;
    result.uncertainties.push_back(known ? azeotrope_uncertainty(fit, sought, azeotrope)
                                         : AzeotropeUncertainty{});
    result.shifts.push_back(known ? azeotrope_shifts(fit, sought, azeotrope) : std::vector<AzeotropeShift>());
  }
  return result;
}

namespace {

void demand_models(const RegressRequest& request) {
  const FitOptions& options = request.options;
  for (const std::string& model : request.models) terms_for_fit(model);  // refuses an unknown word
  if (request.models.empty()) throw RequestError("there is no model to fit");
  // What only one of several models has cannot be held or released in all of them.
  if (request.models.size() > 1 &&
      (!options.hold.empty() || !options.release.empty() || !options.tie.empty())) {
    throw RequestError(fmt::format(
        "`hold`, `release` and `tie` belong to one model; with {} give none, or fit them one by one",
        request.models.front()));
  }
  if (request.folds < 2) throw RequestError("`folds`: expected at least 2");
}

// How other models do, where that needs no further choice.
std::vector<RankedFit> beside(const RegressRequest& request, const Fit& best) {
  const FitOptions& options = request.options;
  std::vector<RankedFit> list;
  const bool plain = options.hold.empty() && options.release.empty() && options.tie.empty();
  if (!plain || best.substances.size() != 2) return list;
  for (const std::string& model : pair_model_names()) {
    if (model == best.options.model) continue;
    FitOptions other = options;
    other.model = model;
    try {
      list.push_back({.fit = fit(request.sets, other), .verdict = "for comparison"});
      list.back().aicc_above_best = list.back().fit.aicc - best.aicc;
    } catch (const std::runtime_error&) {
      continue;  // lacks a molecular size, or does not converge
    }
  }
  return list;
}

}  // namespace

MixtureSpec mixture_of(const Fit& fit) {
  MixtureSpec spec;
  spec.substances = fit.substances;
  spec.liquid = fit.options.model;
  spec.vapour = fit.options.vapour;
  for (PairParameters& pair : fit.pairs()) spec.parameters.add(std::move(pair));
  return spec;
}

namespace {

std::optional<AveragedAzeotrope> averaged(const RegressStudy& study) {
  if (study.fits.size() < 2) return std::nullopt;
  AveragedAzeotrope mean;
  double x1 = 0, T_K = 0, P_Pa = 0;  // second moments
  for (std::size_t k = 0; k < study.fits.size(); ++k) {
    const auto& found = study.azeotropes[k];
    if (!found || found->curve.azeotropes.size() != 1 || found->curve.azeotropes[0].heterogeneous)
      return std::nullopt;
    const Azeotrope& azeotrope = found->curve.azeotropes[0];
    const AzeotropeUncertainty& u = found->uncertainties[0];
    const double weight = study.fits[k].weight;
    const auto add = [&](double value, double uncertainty, double& sum, double& squares) {
      sum += weight * value;
      squares += weight * (value * value + uncertainty * uncertainty);
    };
    add(azeotrope.x1, u.u_x1, mean.x1, x1);
    add(azeotrope.T_K, u.u_T_K, mean.T_K, T_K);
    add(azeotrope.P_Pa, u.u_P_Pa, mean.P_Pa, P_Pa);
    ++mean.models;
  }
  const bool T_sought = study.azeotropes.front()->curve.sought == Sought::temperature;
  const auto spread = [](double squares, double value) {
    return std::sqrt(std::max(0.0, squares - value * value));
  };
  mean.u_x1 = spread(x1, mean.x1);
  mean.u_T_K = T_sought ? spread(T_K, mean.T_K) : 0;
  mean.u_P_Pa = T_sought ? 0 : spread(P_Pa, mean.P_Pa);
  return mean;
}

}  // namespace

RegressStudy study(const RegressRequest& request) {
  demand_models(request);
  RegressStudy study;
  study.sets = request.sets;
  if (request.models.size() > 1) {
    study.fits = rank_models(request.sets, request.options, request.models, request.folds);
  } else {
    FitOptions options = request.options;
    options.model = request.models.front();
    study.fits.push_back({.fit = fit(request.sets, options)});
    if (request.others_beside) study.beside = beside(request, study.best());
  }
  for (const RankedFit& one : study.fits) study.azeotropes.push_back(fitted_azeotropes(one.fit));
  study.averaged = averaged(study);
  study.notices = study.best().notices;
  return study;
}

}  // namespace jampot
