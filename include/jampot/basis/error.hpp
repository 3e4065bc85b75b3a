#pragma once
// The two ways a piece of work can fail, told apart because they ask for different things of the user.
#include <array>
#include <stdexcept>
#include <string>
#include <vector>

namespace jampot {

/// Where in a file something is wrong. Parts that do not apply stay empty or zero.
struct Place {
  std::string file;    ///< name as it was given
  int line = 0;        ///< counted from 1; 0 where no line can be named
  std::string column;  ///< name of the column or key
};

/// The request or a file is wrong: the message says where, what was expected and the nearest right thing.
/// The command-line tool ends with exit status 2.
class RequestError : public std::runtime_error {
 public:
  /// With its message, and the place in a file if there is one.
  explicit RequestError(const std::string& what) : std::runtime_error(what) {}
  /// With its message, and the place in a file if there is one.
  RequestError(const Place& place, const std::string& what);
  RequestError(const RequestError&) = default;             ///< with its place
  RequestError& operator=(const RequestError&) = default;  ///< with its place
  ~RequestError() override;                                ///< with its place
  const Place& place() const { return place_; }            ///< where in a file, if it is about one

 private:
  Place place_;
};

/// A name that stands for no substance, or for several.
class UnknownSubstance : public RequestError {
 public:
  /// With what was asked for and the nearest names.
  UnknownSubstance(const std::string& what, std::string asked, std::vector<std::string> nearest)
      : RequestError(what), asked_(std::move(asked)), nearest_(std::move(nearest)) {}
  /// The name that is not known.
  const std::string& asked() const { return asked_; }
  const std::vector<std::string>& nearest() const { return nearest_; }  ///< names it may mean, best first

 private:
  std::string asked_;
  std::vector<std::string> nearest_;
};

/// The request is sound but the calculation cannot be done: the message says why and what would help.
/// The command-line tool ends with exit status 1.
class CalculationError : public std::runtime_error {
 public:
  /// With its message: what cannot be done, why, and what would help.
  explicit CalculationError(const std::string& what) : std::runtime_error(what) {}
};

/// Pairs of a model without parameters.
class MissingPair : public CalculationError {
 public:
  /// With the model and the pairs it lacks.
  MissingPair(const std::string& what, std::string model, std::vector<std::array<std::string, 2>> pairs)
      : CalculationError(what), model_(std::move(model)), pairs_(std::move(pairs)) {}
  /// The model that lacks them.
  const std::string& model() const { return model_; }
  const std::vector<std::array<std::string, 2>>& pairs() const { return pairs_; }  ///< names of substances

 private:
  std::string model_;
  std::vector<std::array<std::string, 2>> pairs_;
};

}  // namespace jampot
