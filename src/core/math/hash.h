// SPDX-License-Identifier: MIT
// FNV-1a, 64 bits (Fowler, Noll, Vo): for identities and checksums against accident, not against malice.
#pragma once

#include <cstdint>
#include <cstring>
#include <string_view>
#include <type_traits>

namespace lagniappe {

class Hash {
 public:
  Hash() = default;
  // Goes on from the value of another.
  explicit Hash(std::uint64_t value) : value_(value) {}

  void add(std::string_view bytes) {
    for (const unsigned char c : bytes) value_ = (value_ ^ c) * 0x100000001b3ull;
  }
  template <typename T>
  requires std::is_arithmetic_v<T>
  void add(T value) {
    char bytes[sizeof value];
    std::memcpy(bytes, &value, sizeof value);
    add(std::string_view(bytes, sizeof value));
  }
  std::uint64_t value() const { return value_; }

 private:
  std::uint64_t value_ = 0xcbf29ce484222325ull;
};

}  // namespace lagniappe
