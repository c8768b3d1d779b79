// SPDX-License-Identifier: MIT
#include "io/json_patch.h"

#include <fmt/format.h>

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

}  // namespace lagniappe
