// SPDX-License-Identifier: MIT
// A long list that grows at its end and is copied for next to nothing: copies share what they have in common.
//
// Thread safety: one thread may go on adding to its list while others read their own copies.
#pragma once

#include <algorithm>
#include <cassert>
#include <cstddef>
#include <memory>
#include <vector>

namespace lagniappe {

template <typename T>
class Blocks {
 public:
  static constexpr std::size_t kPerBlock = 1024;

  std::size_t size() const { return size_; }
  bool empty() const { return size_ == 0; }

  // REQUIRES: i < size().
  const T& operator[](std::size_t i) const {
    assert(i < size_);
    return blocks_[i / kPerBlock][i % kPerBlock];
  }
  const T& back() const { return (*this)[size_ - 1]; }

  void push_back(const T& value) {
    const std::size_t at = size_ % kPerBlock;
    if (at == 0) {
      blocks_.push_back(std::make_unique<T[]>(kPerBlock));
    } else if (blocks_.back().use_count() > 1) {
      own_last(at);
    }
    blocks_.back()[at] = value;
    ++size_;
  }

  // Keeps the first `size` elements. REQUIRES: size <= size().
  void truncate(std::size_t size) {
    assert(size <= size_);
    size_ = size;
    blocks_.resize((size + kPerBlock - 1) / kPerBlock);
  }

  std::size_t memory_bytes() const { return blocks_.size() * kPerBlock * sizeof(T); }

 private:
  void own_last(std::size_t used) {
    std::shared_ptr<T[]> own = std::make_unique<T[]>(kPerBlock);
    std::copy_n(blocks_.back().get(), used, own.get());
    blocks_.back() = std::move(own);
  }

  std::vector<std::shared_ptr<T[]>> blocks_;  // All full but the last.
  std::size_t size_ = 0;
};

}  // namespace lagniappe
