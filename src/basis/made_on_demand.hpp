#pragma once
// A list whose elements are made when they are first asked for: what nobody asks for costs neither time nor
// memory.
#include <cstddef>
#include <memory>
#include <mutex>
#include <span>

namespace jampot {

/// Elements stay where they are made. Safe to share between threads.
template <class T>
class MadeOnDemand {
 public:
  explicit MadeOnDemand(std::size_t size)
      : size_(size),
        elements_(std::allocator<T>().allocate(size)),
        asked_(std::make_unique<std::once_flag[]>(size)),
        made_(std::make_unique<bool[]>(size)) {}
  MadeOnDemand(const MadeOnDemand&) = delete;
  MadeOnDemand& operator=(const MadeOnDemand&) = delete;
  ~MadeOnDemand() {
    for (std::size_t k = 0; k < size_; ++k) {
      if (made_[k]) std::destroy_at(elements_ + k);
    }
    std::allocator<T>().deallocate(elements_, size_);
  }

  std::size_t size() const { return size_; }

  /// @param make  makes an element from its number; where it throws, the next to ask tries again
  template <class Make>
  const T& at(std::size_t number, const Make& make) const {
    std::call_once(asked_[number], [&] {
      std::construct_at(elements_ + number, make(number));
      made_[number] = true;
    });
    return elements_[number];
  }

  /// All, the rest made now.
  template <class Make>
  std::span<const T> all(const Make& make) const {
    for (std::size_t k = 0; k < size_; ++k) at(k, make);
    return {elements_, size_};
  }

 private:
  std::size_t size_;
  T* elements_;
  std::unique_ptr<std::once_flag[]> asked_;
  std::unique_ptr<bool[]> made_;
};

}  // namespace jampot
