#pragma once
// Matrices as results: numbers in rows and columns, without the linear algebra.
#include <cstddef>
#include <vector>

namespace jampot {

/// A matrix of its own, row by row.
class Matrix {
 public:
  Matrix() = default;
  /// Zeros.
  Matrix(std::size_t rows, std::size_t columns) : columns_(columns), values_(rows * columns) {}

  /// Number of rows.
  std::size_t rows() const { return columns_ == 0 ? 0 : values_.size() / columns_; }
  /// Number of columns.
  std::size_t columns() const { return columns_; }
  /// One element; not checked.
  double& operator()(std::size_t row, std::size_t column) { return values_[row * columns_ + column]; }
  /// One element; not checked.
  double operator()(std::size_t row, std::size_t column) const { return values_[row * columns_ + column]; }
  /// All elements, row by row.
  const double* data() const { return values_.data(); }

 private:
  std::size_t columns_ = 0;
  std::vector<double> values_;
};

/// A look at somebody else's, column by column; valid as long as the owner says.
struct MatrixView {
  const double* data = nullptr;  ///< first element, column by column
  std::size_t rows = 0,          ///< number of rows
      columns = 0;               ///< number of columns

  /// One element; not checked.
  double operator()(std::size_t row, std::size_t column) const { return data[column * rows + row]; }
};

}  // namespace jampot
