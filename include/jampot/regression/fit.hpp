#pragma once
// Pair parameters from measured vapour-liquid equilibria, with the statistics that say how far to trust them.
#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "jampot/basis/matrix.hpp"
#include "jampot/basis/notice.hpp"
#include "jampot/basis/progress.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/regression/known_point.hpp"
#include "jampot/regression/statistics.hpp"

namespace jampot {

/// What is minimised.
enum class Objective {
  /// Errors in variables: every measured T, P, x and y may be wrong by its uncertainty; the sum of squared,
  /// weighted
  /// adjustments to all of them is least, with the equilibrium equations exact at the adjusted points.
  /// Source: T. F. Anderson, D. S. Abrams, E. A. Grens, AIChE J. 24 (1978) 20-29.
  maximum_likelihood,
  bubble_pressure,     ///< squared relative deviations of the bubble pressure at measured T and x
  bubble_temperature,  ///< squared deviations of the bubble temperature at measured P and x
};

std::string_view name_of(Objective objective);
/// @throws RequestError naming the objectives there are.
Objective parse_objective(std::string_view text);

/// Whether 95 % intervals come from profiles of the objective, which take some hundred small fits.
enum class Profiles {
  never,           ///< symmetric ones, from the standard errors
  when_nonlinear,  ///< where alpha is fitted too
  always
};

/// What is known of a parameter beside the data: it is weighed like one more measured value.
struct Prior {
  std::string name;  ///< of a term, "alpha" (in every pair), or of one parameter, "tau_12.inverse_T"
  double value = 0;  ///< expected value
  double u = 0;      ///< standard uncertainty, positive
};

/// Between which values a parameter is sought; named as a prior is.
struct Bound {
  std::string name;  ///< of the parameter
  double low = 0,    ///< least value
      high = 0;      ///< largest value
};

/// What standard errors and intervals rest on under maximum likelihood.
enum class Errors {
  stated,   ///< on the uncertainties as stated
  scatter,  ///< on the scatter: where chi-square exceeds its degrees of freedom, they grow by the root of the
            ///< ratio
  sets      ///< on the scatter of each data set: where a set's chi-square exceeds its degrees of freedom, its
            ///< uncertainties grow by the root of the ratio, and with them its weight among the others falls
};

/// "stated", "scatter" or "sets". @throws RequestError naming them
std::string_view name_of(Errors errors);
Errors parse_errors(std::string_view text);

/// Which vapour pressures of the pure substances a fit takes.
enum class PurePressures {
  bank,  ///< as the substances have them
  own,   ///< scaled so that they meet the pure points among the data
  fit    ///< scaled by factors that are fitted too, each known beforehand to `FitOptions::u_pure`
};

/// What is fitted, and how.
struct FitOptions {
  std::string model = "nrtl";                           ///< name of the model
  Objective objective = Objective::maximum_likelihood;  ///< what is minimised
  VapourChoice vapour;  ///< beside which boiling points are computed; the parameters belong to it
  /// Coefficients of the temperature dependence to fit, for each term that follows T.
  std::vector<Coefficient> form{Coefficient::inverse_T};
  std::map<std::string, double> hold;  ///< terms held at a value, e.g. {"alpha", 0.2}
  std::vector<std::string> release;    ///< terms fitted though they are held by default, e.g. "alpha"
  /// Terms that share their coefficients with another, e.g. {"tau_21", "tau_12"}; a term tied to itself,
  /// {"alpha", "alpha"}, is one for all pairs of a multicomponent fit.
  std::map<std::string, std::string> tie;
  std::vector<Prior> priors;        ///< expectations of parameters
  std::vector<Bound> bounds{};      ///< limits of parameters
  std::vector<KnownPoint> known{};  ///< special points to meet, each weighed by its uncertainty
  /// Every set of boiling points may be off as a whole: by an offset of its thermometer or, relative, of its
  /// gauge, fitted with this standard uncertainty known beforehand. 0: none.
  double u_offset_T_K = 0,  ///< spread of the thermometers of the sets, K; 0: none
      u_offset_P = 0;       ///< spread of their gauges, relative; 0: none
  /// Two substances: only parameters with which the model has one liquid at all temperatures of the data.
  bool no_split = false;
  Errors errors = Errors::stated;            ///< where standard errors come from
  PurePressures pure = PurePressures::bank;  ///< whose vapour pressures
  double u_pure = 0.005;  ///< relative standard uncertainty of the vapour pressures, where they are fitted
  /// Huber's loss: beyond three standard uncertainties a point pulls no harder than there. Standard errors
  /// and chi-square then mean less, and a notice says so.
  bool robust = false;
  Profiles profiles = Profiles::never;  ///< when intervals come from profiles
  bool region = false;  ///< also the joint 95 % region of the first two parameters, some hundred small fits
  Progress* progress = nullptr;  ///< counts descents and profiles, where somebody watches
  std::stop_token stop{};        ///< once asked for, the fit ends soon with a CalculationError
  /// So many descents; 0: until the lowest minimum was reached three times from different places, 16 at least
  /// and 200 at most. They begin at an almost ideal liquid, where alpha is fitted go up a ladder of alphas
  /// held, then follow a Sobol sequence.
  int starts = 0;
};

/// One number of the model after the fit.
struct FittedParameter {
  std::string name;  ///< "tau_12.inverse_T", "alpha"; of a multicomponent fit "ethanol - water: alpha"
  std::string term;  ///< name of the term
  std::size_t term_index = 0;                       ///< in ActivityModel::terms()
  Coefficient coefficient = Coefficient::constant;  ///< which coefficient of its function of temperature
  double value = 0;                                 ///< the estimate
  bool held = false;                                ///< true where it was not adjusted
  std::optional<std::size_t> tied_to;  ///< number in Fit::parameters of the one whose value this one takes
  /// True where it was adjusted on its own.
  bool is_free() const { return !held && !tied_to; }
  bool at_bound = false;  ///< true where it ended at a limit
  /// One standard deviation; 0 where held. Under maximum likelihood it takes the stated uncertainties as
  /// known.
  double std_error = 0;
  /// 95 % interval: normal where the stated uncertainties are taken as known, Student's t where the scatter
  /// sets the scale; from profiles where FitOptions::profiles asks
  /// for them.
  double low = 0,         ///< lower end of the interval
      high = 0;           ///< upper end of the interval
  bool profiled = false;  ///< true where the interval comes from a profile
};

/// What a point means to the fit, to first order at the solution.
struct Influence {
  /// How far its own measurement decides what the model says there: from 0 to the number of its quantities.
  /// All together make up the number of fitted parameters.
  double leverage = 0;
  /// Cook's distance: how far the fitted parameters move when the point is left out, in units of their
  /// covariance, over their number. Source: R. D. Cook, Technometrics 19 (1977) 15-18.
  double cook = 0;
  std::vector<double> change{};  ///< of the free parameters when the point is left out
};

/// One measured point against the fitted model.
struct ResidualRow {
  std::size_t set = 0;  ///< number of the data set
  DataPoint measured;   ///< the measured point
  bool pure = false;    ///< a pure substance: not part of the fit
  /// True where the point took part.
  bool used() const { return !pure && measured.excluded.empty(); }
  /// The model at measured x and P (isobaric) or x and T (isothermal): what a diagram shows at that
  /// composition.
  double T_K = 0,         ///< of the model, K
      P_Pa = 0;           ///< of the model, Pa
  std::vector<double> y;  ///< of the model
  /// The point after adjustment (maximum likelihood only; otherwise as measured).
  DataPoint adjusted;
  /// Deviations of ln P and of y_1.. from the model at measured T and x, divided by their standard
  /// uncertainty, to which the uncertainties of T, P, x and y all contribute. About 1 in size where all is
  /// well.
  double standardised_P = 0;
  std::vector<double> standardised_y;  ///< residuals of y over their uncertainty
  double chi_square = 0;               ///< what the point adds to the objective; 0 where it is not used
  Influence influence{};               ///< what the fit would be without it
  /// Root of the sum of squares of the standardised deviations from the fit as it would be without this
  /// point.
  double distance_without = 0;
  /// How the row would agree with the others, as "liquid and vapour exchanged"; empty where it agrees or
  /// nothing helps. Of two components with an analysed vapour.
  std::string reads_right{};
};

/// One measured point of a liquid alone against the fitted model.
struct LiquidRow {
  std::size_t set = 0;                  ///< number of its set
  DataKind kind = DataKind::gamma_inf;  ///< what was measured
  /// True where two liquids were measured.
  bool two_liquids() const { return family_of(kind) == DataFamily::two_liquids; }
  DataPoint measured;         ///< the measured point
  double model = 0;           ///< of a value of a liquid, as it was measured
  std::vector<double> alpha,  ///< first liquid of the model
      beta;                   ///< the two liquids of the model nearest to the measured ones; empty: none
  std::vector<double> standardised;  ///< over the uncertainty; of two liquids one for each component
  double distance() const;           ///< root of the sum of squares of those
  Influence influence{};             ///< what the fit would be without it
};

/// Root mean square over the mixed points, per measured quantity. Nothing where the quantity was not
/// measured.
struct RootMeanSquares {
  std::optional<double> T_K,  ///< K
      P_Pa,                   ///< Pa
      x,                      ///< of all mole fractions
      y;                      ///< of all mole fractions
};

/// A minimum that some of the starting points reached.
struct LocalMinimum {
  std::vector<double> values;  ///< of the free parameters
  double objective = 0;        ///< value of the objective there
  int starts = 0;              ///< how many starts ended here
  /// Why it was set aside though it lies lower than the result; empty of others.
  std::string set_aside{};
};

/// How the best minimum was searched for.
struct FitSearch {
  int starts = 0;        ///< descents made
  int reached_best = 0;  ///< of them those that ended in the lowest minimum
  /// The lowest minimum was reached three times: another one is not likely.
  bool settled() const { return reached_best >= 3; }
};

/// One data set beside the others in a fit.
struct SetAgreement {
  std::string name{};             ///< of the set
  int points = 0;                 ///< used
  double chi_square = 0;          ///< what its points add to the objective
  double degrees_of_freedom = 0;  ///< its quantities less its share of the fitted parameters
  double probability = 1;         ///< of a larger chi-square by chance
  /// Chi-square over degrees of freedom of the fit to the other sets alone; nothing where they do not
  /// determine the parameters.
  std::optional<double> without{};
  double u_factor = 1;  ///< by which its uncertainties were multiplied (`Errors::sets`)
};

/// A point on the edge of the joint 95 % region of the first two fitted parameters.
struct RegionPoint {
  std::array<double, 2> values{};  ///< of both parameters
  bool open = false;               ///< the region has no edge in this direction; the values mean nothing
};

/// Scatter of points measured again at the same place, against what the model leaves besides.
/// Source: N. R. Draper, H. Smith, Applied Regression Analysis, 3rd ed., Wiley 1998, chapter 2.
struct LackOfFit {
  int places = 0;           ///< compositions that were measured more than once
  double pure_error = 0;    ///< mean square of the standardised deviations there from their own mean
  double pure_degrees = 0;  ///< degrees of freedom of the repeated points
  double lack = 0;          ///< mean square of the rest
  double lack_degrees = 0;  ///< degrees of freedom of the rest
  double probability = 1;   ///< of a ratio as large by chance (F test): small where the model is what misses
};

/// How far a whole data set is off, as the fit sees it.
struct SetOffset {
  std::string name{};        ///< of the set
  bool of_pressure = false;  ///< true: gauge, false: thermometer
  double value = 0,          ///< measured minus true, K or relative
      u = 0;                 ///< its standard error
};

/// By what a vapour pressure was multiplied in a fit.
struct PureFactor {
  std::string substance{};  ///< its name
  double factor = 1;        ///< fitted over bank vapour pressure
  double u = 0;             ///< standard uncertainty; 0 where the factor was not fitted
};

/// A fitted model: values, their uncertainty, residuals and doubts.
struct Fit {
  FitOptions options;                       ///< what was asked for
  std::vector<Substance> substances;        ///< in the order of the components
  std::vector<FittedParameter> parameters;  ///< all of them, held ones too
  Matrix covariance;                        ///< of the free parameters, in their order
  Matrix correlation;                       ///< of the free parameters
  double objective = 0;  ///< the minimised sum of squares (chi-square under maximum likelihood)
  int points = 0;        ///< used: pure substances are not
  int comparisons =
      0;  ///< measured quantities compared: one for a boiling point, n - 1 for a vapour, n for two liquids
  double degrees_of_freedom = 0;  ///< data less free parameters
  /// Akaike's criterion with the correction for few data, smaller is better: chi-square + 2 k + 2 k (k +
  /// 1)/(n - k - 1) with n comparisons and k fitted parameters; where the scatter sets the scale n ln(S/n)
  /// stands for chi-square and the scale counts as a parameter. Source: C. M. Hurvich, C.-L. Tsai, Biometrika
  /// 76 (1989) 297-307.
  double aicc = 0;
  double chi_square_probability = 1;        ///< under maximum likelihood; see statistics.hpp
  RunsTest runs_P,                          ///< of the residuals of P
      runs_y;                               ///< of the residuals of y
  RootMeanSquares adjustment;               ///< adjusted minus measured
  RootMeanSquares deviation;                ///< model at measured composition minus measured: T or P, and y
  std::vector<ResidualRow> residuals;       ///< of boiling points
  std::vector<LiquidRow> liquid_residuals;  ///< of liquids
  /// Root mean square of model minus measured mole fraction over both liquids of all tie lines.
  std::optional<double> rms_liquids() const;
  std::vector<LocalMinimum> minima;  ///< distinct ones, the best first; those set aside behind
  FitSearch search;                  ///< how the minimum was found
  /// By the likelihood, all other parameters at their best, round the fit; where FitOptions::region asks for
  /// it.
  std::vector<RegionPoint> region{};
  std::vector<PureFactor> pure_factors;  ///< empty where the vapour pressures are as the substances have them
  std::vector<SetAgreement> sets;        ///< of several data sets each; empty of one
  std::vector<SetOffset> offsets{};      ///< empty where none were fitted
  std::vector<KnownRow> known{};         ///< what became of FitOptions::known
  std::optional<LackOfFit> lack_of_fit{};  ///< where boiling points were measured again
  std::array<double, 2> T_range_K{};       ///< of the data
  std::array<double, 2> P_range_Pa{};      ///< lowest and highest pressure of the data
  std::vector<std::string> data;           ///< names of the data sets
  std::vector<bool> isobaric;              ///< of each data set: whether the pressure was held
  Notices notices;                         ///< what the reader must know
  long evaluations = 0;                    ///< of the liquid model, all starts together

  /// Those that are neither held nor tied to another. They belong to the fit, which has to outlive the list.
  std::vector<const FittedParameter*> free() const&;
  std::vector<const FittedParameter*> free() && = delete;
  std::vector<const FittedParameter*> fitted() const&;  ///< those that are not held
  std::vector<const FittedParameter*> fitted() && = delete;
  /// Covariance of the fitted ones: tied parameters move together.
  Matrix fitted_covariance() const;
  /// "fitted to still.csv (30 points)": what travels with the parameters, without folders or dates.
  std::string source() const;
  std::string fitted_to() const;  ///< "vle", "lle" or "vle+lle"
  /// The result as parameters of a mixture, one for each pair.
  std::vector<PairParameters> pairs() const;
  /// A mixture with the fitted parameters.
  Mixture mixture() const;

  Fit();                                 ///< with nothing set
  Fit(const Fit& other);                 ///< copied member by member
  Fit(Fit&& other) noexcept;             ///< moved member by member
  Fit& operator=(const Fit& other);      ///< copied member by member
  Fit& operator=(Fit&& other) noexcept;  ///< moved member by member
  ~Fit();                                ///< member by member
};

/// Fits `options.model` to all the sets together. They may be about different substances: what a set knows
/// nothing of is absent from its points, and every pair must be determined by some of them.
/// @throws RequestError where the data cannot determine the parameters (too few points) or where options
///         contradict each other; CalculationError where no start converged.
Fit fit(const std::vector<DataSet>& sets, const FitOptions& options = {});

/// Standard uncertainty of a homogeneous azeotrope from the covariance of the fit, to first order.
struct AzeotropeUncertainty {
  double u_x1 = 0;    ///< standard uncertainty of x1
  double u_T_K = 0;   ///< at constant pressure (temperature sought), else 0
  double u_P_Pa = 0;  ///< at constant temperature (pressure sought), else 0
};
AzeotropeUncertainty azeotrope_uncertainty(const Fit& fit, Sought sought, const Azeotrope& azeotrope);

/// How far a homogeneous azeotrope moves when one point is left out, to first order.
struct AzeotropeShift {
  double x1 = 0;   ///< change of x1
  double T_K = 0,  ///< change of the temperature, K
      P_Pa = 0;    ///< of what is sought; the other is 0
};
/// Of the points in the order of Fit::residuals, then Fit::liquid_residuals; zeros of those that are not
/// used.
std::vector<AzeotropeShift> azeotrope_shifts(const Fit& fit, Sought sought, const Azeotrope& azeotrope);

}  // namespace jampot
