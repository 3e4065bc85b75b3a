#pragma once
// A few steps that belong together, which an interruption of the program does not part.

namespace jampot {

/// While one lives, a SIGINT, SIGTERM or SIGHUP that would end the process waits; it ends as that signal says
/// as soon as the last one is gone. A signal that the program handles or ignores itself is left to it. Any
/// number of threads may have one each.
///
/// Keeping signals from the one thread would not do: those sent to a process reach whichever thread takes
/// them.
class Uninterrupted {
 public:
  Uninterrupted();
  ~Uninterrupted();
  Uninterrupted(const Uninterrupted&) = delete;
  Uninterrupted& operator=(const Uninterrupted&) = delete;
};

}  // namespace jampot
