#include "fault.hpp"

#include <fmt/format.h>

#include <boost/core/demangle.hpp>
#include <new>
#include <typeinfo>

#include "jampot/basis/error.hpp"

namespace jampot::tool {
Fault fault_of(std::exception_ptr thrown) {
  try {
    std::rethrow_exception(std::move(thrown));
  } catch (const RequestError& error) {
    return {error.what(), wrong_request};
  } catch (const CalculationError& error) {
    return {error.what(), cannot_be_done};
  } catch (const std::bad_alloc&) {
    return {"there is not enough memory for this request; ask for less at a time", cannot_be_done};
  } catch (const std::exception& error) {
    return {fmt::format("this calculation met a fault of the program ({}); please report the request",
                        boost::core::demangle(typeid(error).name())),
            cannot_be_done};
  } catch (...) {
    return {"this calculation met a fault of the program; please report the request", cannot_be_done};
  }
}

}  // namespace jampot::tool
