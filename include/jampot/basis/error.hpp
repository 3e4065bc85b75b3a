#pragma once
// The two ways a piece of work can fail, told apart because they ask for different things of the user.
#include <stdexcept>
#include <string>

namespace jampot {

/// Where in a file something is wrong. Parts that do not apply stay empty or zero.
struct Place {
  std::string file;
  int line = 0;        ///< counted from 1; 0 where no line can be named
  std::string column;  ///< name of the column or key
};

/// The request or a file is wrong: the message says where, what was expected and the nearest right thing.
/// The command-line tool ends with exit status 2.
class RequestError : public std::runtime_error {
 public:
  explicit RequestError(const std::string& what) : std::runtime_error(what) {}
  RequestError(const Place& place, const std::string& what);
};

/// The request is sound but the calculation cannot be done: the message says why and what would help.
/// The command-line tool ends with exit status 1.
class CalculationError : public std::runtime_error {
 public:
  explicit CalculationError(const std::string& what) : std::runtime_error(what) {}
};

}  // namespace jampot
