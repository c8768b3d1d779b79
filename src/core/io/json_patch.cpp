// SPDX-License-Identifier: MIT
#include "io/json_patch.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "io/json_document.h"

namespace lagniappe {
namespace {

constexpr std::string_view kBlank = " \t\r\n";

// The end of the string that begins at `at`, behind its closing quote.
std::size_t end_of_string(std::string_view text, std::size_t at) {
  for (++at; text[at] != '"'; ++at) {
    if (text[at] == '\\') ++at;
  }
  return at + 1;
}

// The end of the value that begins at `at`.
std::size_t end_of_value(std::string_view text, std::size_t at) {
  if (text[at] == '"') return end_of_string(text, at);
  if (text[at] != '{' && text[at] != '[') return std::min(text.find_first_of(",]} \t\r\n", at), text.size());
  int depth = 0;
  while (true) {
    if (text[at] == '"') {
      at = end_of_string(text, at);
      continue;
    }
    if (text[at] == '{' || text[at] == '[') ++depth;
    if ((text[at] == '}' || text[at] == ']') && --depth == 0) return at + 1;
    ++at;
  }
}

std::string indent_of_line(std::string_view text, std::size_t at) {
  const std::size_t line = text.rfind('\n', at) == std::string_view::npos ? 0 : text.rfind('\n', at) + 1;
  const std::size_t ink = text.find_first_not_of(" \t", line);
  return std::string(text.substr(line, ink - line));
}

std::string with_member(std::string text, std::size_t object, std::string_view key, std::string_view value) {
  const std::size_t close = end_of_value(text, object) - 1;
  const std::size_t first = text.find_first_not_of(kBlank, object + 1);
  const std::size_t last_ink = text.find_last_not_of(kBlank, close - 1);
  const bool empty = first == close,
             by_lines = text.substr(object, first - object).find('\n') != std::string::npos;
  std::string member = fmt::format("\"{}\": {}", key, value);
  if (by_lines && !empty) member = "\n" + indent_of_line(text, first) + member;
  if (!by_lines && !empty) member = " " + member;
  if (!empty) member = "," + member;
  return text.insert(last_ink + 1, member);
}

}  // namespace

std::string with_json_value(std::string text, std::string_view pointer, std::string_view value) {
  if (const auto at = find_json_value(text, std::string(pointer)))
    return text.replace(*at, end_of_value(text, *at) - *at, value);
  const std::size_t slash = pointer.rfind('/');
  const std::string_view parent = pointer.substr(0, slash), key = pointer.substr(slash + 1);
  const auto object = find_json_value(text, std::string(parent));
  if (object) return with_member(std::move(text), *object, key, value);
  // The missing object goes in as lines, indented below where it will stand.
  std::string indent = "  ";
  for (const char c : parent) indent += c == '/' ? "  " : "";
  const std::string inner =
      fmt::format("{{\n{}\"{}\": {}\n{}}}", indent, key, value, indent.substr(0, indent.size() - 2));
  return with_json_value(std::move(text), parent, inner);
}

namespace {

// Where the elements of a list stand in the text: [begin, end) of each.
struct ListPlaces {
  std::size_t open, close;  // Of the brackets.
  std::vector<std::pair<std::size_t, std::size_t>> elements;

  ListPlaces(std::string_view text, std::string_view pointer) {
    open = *find_json_value(text, std::string(pointer));
    close = end_of_value(text, open) - 1;
    for (std::size_t at = text.find_first_not_of(kBlank, open + 1); at < close;) {
      elements.emplace_back(at, end_of_value(text, at));
      at = text.find_first_not_of(kBlank, elements.back().second);
      if (text[at] == ',') at = text.find_first_not_of(kBlank, at + 1);
    }
  }
  // What stands between the element and the bracket or comma before it.
  std::string gap_before(std::string_view text, std::size_t index) const {
    const std::size_t begin = elements[index].first, last_ink = text.find_last_not_of(kBlank, begin - 1);
    return std::string(text.substr(last_ink + 1, begin - last_ink - 1));
  }
};

}  // namespace

std::string with_json_element(std::string text, std::string_view list, std::size_t index,
                              std::string_view value) {
  const ListPlaces places(text, list);
  if (places.elements.empty()) return text.replace(places.open + 1, places.close - places.open - 1, value);
  if (index < places.elements.size()) {
    // The second's gap stands between two; the first's may be that of a list that begins on the bracket's line.
    const std::string gap =
        places.gap_before(text, places.elements.size() > 1 ? std::max<std::size_t>(index, 1) : 0);
    return text.insert(places.elements[index].first, std::string(value) + "," + (gap.empty() ? " " : gap));
  }
  const std::size_t last = places.elements.size() - 1;
  const std::string gap = places.gap_before(text, last);
  return text.insert(places.elements[last].second,
                     "," + (gap.empty() ? std::string(" ") : gap) + std::string(value));
}

std::string without_json_element(std::string text, std::string_view list, std::size_t index) {
  const ListPlaces places(text, list);
  const auto& elements = places.elements;
  if (elements.size() == 1) return text.erase(places.open + 1, places.close - places.open - 1);
  const auto [begin, end] = elements[index];
  if (index + 1 < elements.size()) return text.erase(begin, elements[index + 1].first - begin);
  const std::size_t before = elements[index - 1].second;
  return text.erase(before, end - before);
}

std::string with_json_element_moved(std::string text, std::string_view list, std::size_t from, std::size_t to) {
  const auto [begin, end] = ListPlaces(text, list).elements[from];
  const std::string value = text.substr(begin, end - begin);
  return with_json_element(without_json_element(std::move(text), list, from), list, to, value);
}

}  // namespace lagniappe
