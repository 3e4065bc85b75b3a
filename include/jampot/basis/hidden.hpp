#pragma once
// A member whose type only the source file knows, so that a header needs none of the headers behind it.
#include <memory>

namespace jampot {

/// Holds a T that is default-constructed at first use. Copies are deep.
///
///   struct Work;              // in the class; defined in its source file
///   Hidden<Work> work_;
template <class T>
class Hidden {
 public:
  Hidden() = default;
  /// Copies what is inside; moving leaves the other one empty.
  Hidden(const Hidden& other) : copy_(other.copy_) {
    if (other.value_) value_ = copy_(*other.value_);
  }
  /// Copies what is inside; moving leaves the other one empty.
  Hidden& operator=(const Hidden& other) {
    Hidden copy(other);
    std::swap(value_, copy.value_);
    copy_ = other.copy_;
    return *this;
  }
  /// Copies what is inside; moving leaves the other one empty.
  Hidden(Hidden&&) noexcept = default;
  /// Copies what is inside; moving leaves the other one empty.
  Hidden& operator=(Hidden&&) noexcept = default;
  ~Hidden() = default;

  // Only these need to know T; they are used in its source file.
  /// What is inside.
  T& operator*() {
    if (!value_) make();
    return *value_;
  }
  /// What is inside.
  T* operator->() { return &**this; }
  /// What is inside.
  const T& operator*() const {
    static const T none{};
    return value_ ? *value_ : none;
  }
  /// What is inside.
  const T* operator->() const { return &**this; }

 private:
  void make() {
    value_ = std::make_shared<T>();
    copy_ = [](const T& from) { return std::make_shared<T>(from); };
  }

  // A shared pointer remembers how to destroy what it holds; nothing is shared.
  std::shared_ptr<T> value_;
  std::shared_ptr<T> (*copy_)(const T&) = nullptr;
};

}  // namespace jampot
