#include "jampot/study/fugacity.hpp"

#include <cmath>

#include "fluid_working.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/study/held.hpp"

namespace jampot {
namespace {

void add_roots(EquationOfState& model, double T_K, double P_Pa, const std::vector<double>& x,
               std::vector<FugacityRoot>& list) {
  FluidState state(x.size());
  const auto roots = model.volumes(T_K, P_Pa, x);
  for (const VolumeRoot& root : roots) {
    FugacityRoot one{T_K, P_Pa, x, {}, roots.size() != 2, &root == &roots.stable(), 0, 0, {}, 0, 0};
    one.phase = !one.only                                  ? (&root == &roots.front() ? "liquid" : "vapour")
                : model.vapour_like(T_K, root.v_m3_mol, x) ? "gas"
                                                           : "dense";
    fluid_state(model, T_K, root.v_m3_mol, x, false, state, P_Pa);
    one.Z = state.Z;
    one.v_m3_mol = state.v_m3_mol;
    for (const double ln_phi : state.ln_phi) one.phi.push_back(std::exp(ln_phi));
    one.h_residual_J_mol = state.h_residual_J_mol;
    one.s_residual_J_mol_K = state.s_residual_J_mol_K;
    list.push_back(std::move(one));
  }
}

}  // namespace

FugacityStudy study(const FugacityRequest& request) {
  FugacityStudy study;
  study.substances = request.substances;
  std::vector<std::vector<double>> compositions = request.compositions;
  if (request.substances.size() == 1) compositions = {{1.0}};
  if (compositions.empty() || request.T_K.empty() || request.P_Pa.empty() || request.equations.empty())
    throw RequestError("fugacities need an equation, a composition, a temperature and a pressure");
  demand_count("states",
               static_cast<double>(compositions.size() * request.T_K.size()) *
                   static_cast<double>(request.P_Pa.size()),
               most_states);
  std::vector<std::shared_ptr<EquationOfState>> models;
  for (const std::string& name : request.equations)
    models.push_back(make_equation(name, request.substances, request.interactions, request.translated));
  for (const auto& model : models) {
    for (const Notice& notice : model->notices()) {
      if (!study.notices.has(notice.code)) study.notices.add(notice.code, notice.text);
    }
    FugacityByEquation result{std::string(model->name()), {}};
    for (const auto& x : compositions) {
      for (const double T_K : request.T_K) {
        for (const double P_Pa : request.P_Pa) add_roots(*model, T_K, P_Pa, x, result.roots);
      }
    }
    study.results.push_back(std::move(result));
  }
  study.first = models.front();
  if (request.working)
    study.working = fluid_working(*study.first, study.substances, request.T_K.front(), request.P_Pa.front(),
                                  compositions.front());
  return study;
}

}  // namespace jampot
