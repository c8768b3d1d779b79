// SPDX-License-Identifier: MIT
// A value of a row that documents have as one of some words.
#pragma once

#include <string_view>
#include <vector>

namespace lagniappe {

template <typename Choice>
struct WordOf {
  Choice& is;
  const std::vector<std::string_view>& words;  // In the order of its values.
};
template <typename Choice>
WordOf(Choice&, const std::vector<std::string_view>&) -> WordOf<Choice>;

}  // namespace lagniappe
