#pragma once
// Who takes the answer of a command.
#include "jampot/report/presentation.hpp"

namespace jampot::tool {

/// Takes the answer of a command.
class Presenter {
 public:
  virtual ~Presenter() = default;
  /// Lays the reference beside the results, then shows both.
  void present(Answer answer, const Presentation& presentation);
  /// Whether a command may say on the terminal how far it has come.
  virtual bool shows_progress() const { return true; }

 private:
  virtual void show(const Answer& answer, const Presentation& presentation) = 0;
};

/// Writes the files, then prints. Nothing is printed where a file cannot be written.
class ScreenPresenter final : public Presenter {
  void show(const Answer& answer, const Presentation& presentation) override;
};

}  // namespace jampot::tool
