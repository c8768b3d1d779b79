// SPDX-License-Identifier: MIT
#include "states/words.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "lagniappe/signals.h"

namespace lagniappe {

std::size_t edit_distance(std::string_view a, std::string_view b) {
  std::vector<std::size_t> row(b.size() + 1);
  for (std::size_t j = 0; j <= b.size(); ++j) row[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    std::size_t diagonal = row[0];
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const std::size_t above = row[j];
      row[j] = std::min({above + 1, row[j - 1] + 1, diagonal + (a[i - 1] != b[j - 1])});
      diagonal = above;
    }
  }
  return row[b.size()];
}

std::vector<std::string> signal_names(const std::vector<std::string>& memory) {
  std::vector<std::string> names;
  for (const Signal& signal : all_signals()) names.emplace_back(signal.key);
  for (const std::string& slot : memory) names.push_back("memory." + slot);
  return names;
}

bool is_lua_word(std::string_view word) {
  static constexpr std::array kWords = {"nil",  "function", "if",   "then",   "else",    "end",
                                        "type", "select",   "math", "ipairs", "tonumber"};
  return word.starts_with("math.") || std::find(kWords.begin(), kWords.end(), word) != kWords.end();
}

std::string did_you_mean(std::string_view word, const std::vector<std::string>& names) {
  const std::string_view short_word = word.substr(0, 64);
  const auto nearest = std::min_element(names.begin(), names.end(), [&](const auto& a, const auto& b) {
    return edit_distance(short_word, a) < edit_distance(short_word, b);
  });
  if (nearest == names.end() || edit_distance(short_word, *nearest) > std::max<std::size_t>(2, word.size() / 2))
    return {};
  return fmt::format("; did you mean “{}”?", *nearest);
}

}  // namespace lagniappe
