#pragma once
// What a descent that ended says: the parts of a Fit, filled in one after the other.
#include "fit_problem.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

/// @throws RequestError where there are too few measured quantities for the parameters
void check_count(const Fit& result, std::size_t free, int measured);
void set_values(Fit& result, const ParameterPlan& plan, const Descent& best);
void set_covariance(Fit& result, const ParameterPlan& plan, const Eigen::MatrixXd& information);
void fill_residuals(Fit& result, const std::vector<DataSet>& sets, FitContext& context, const Descent& best);
void fill_rms(Fit& result, const std::vector<DataSet>& sets);
void fill_tests(Fit& result);
void fill_ranges(Fit& result);
void fill_liquids(Fit& result, const std::vector<DataSet>& sets, FitProblem& problem, const Descent& best);
double aicc(const Fit& fit, double k);
void set_intervals(Fit& result, const ParameterPlan& plan, FitProblem& problem, const Descent& best);
void follow_ties(Fit& result);

}  // namespace jampot
