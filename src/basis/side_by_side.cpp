#include "side_by_side.hpp"

namespace jampot {
namespace {

thread_local bool one_thread = false;

}  // namespace

OneThread::OneThread() : before_(one_thread) {
  one_thread = true;
}
OneThread::~OneThread() {
  one_thread = before_;
}
bool OneThread::here() {
  return one_thread;
}

}  // namespace jampot
