#pragma once
// What a descent that ended says: the parts of a Fit, filled in one after the other.
#include "fit_task.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

/// @throws RequestError where there are too few measured quantities for the parameters
void check_count(const Fit& result, std::size_t free, int measured);
void set_values(Fit& result, const ParameterPlan& plan, const Descent& best);
/// What the covariance of unit weights is multiplied with: 1 where the stated uncertainties are taken as
/// known.
double scale_of(const Fit& fit);
void set_covariance(Fit& result, const ParameterPlan& plan, const Eigen::MatrixXd& information);
void fill_residuals(Fit& result, const std::vector<DataSet>& sets, FitContext& context, const Descent& best);
/// Standardised deviations of a row from the model as it stands.
void standardise(FitContext& context, ResidualRow& row);
void fill_rms(Fit& result, const std::vector<DataSet>& sets);
void fill_tests(Fit& result);
void fill_ranges(Fit& result);
void fill_liquids(Fit& result, const std::vector<DataSet>& sets, FitProblem& problem, const Descent& best);
/// Where boiling points were measured again.
void fill_lack_of_fit(Fit& result);
double aicc(const Fit& fit, double k);
/// Symmetric ones, or from profiles where the options ask for them; they reach to every other minimum that is
/// as low as chance allows.
void set_intervals(Fit& result, const FitTask& task, const Descent& best, const std::vector<Descent>& rivals);
/// Rows far off the model, and how they read right. @pre fill_influence
void find_wrong_rows(Fit& result, const FitTask& task, FitProblem& problem, const Descent& best);
void follow_ties(Fit& result);
/// The joint region of the first two fitted parameters by the likelihood, where the options ask for it.
void fill_region(Fit& result, const FitTask& task, const Descent& best);

}  // namespace jampot
