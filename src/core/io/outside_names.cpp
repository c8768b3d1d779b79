// SPDX-License-Identifier: MIT
#include "io/outside_names.h"

#include <algorithm>

#include "io/json_document.h"
#include "math/ascii.h"

namespace lagniappe {
namespace {

bool climbs(std::string_view name) {
  for (std::size_t from = 0; from <= name.size();) {
    const std::size_t slash = std::min(name.find('/', from), name.size());
    if (name.substr(from, slash - from) == "..") return true;
    from = slash + 1;
  }
  return false;
}

}  // namespace

std::optional<std::string> file_name_fault(std::string_view name) {
  if (name.empty()) return "a file name must not be empty";
  if (std::any_of(name.begin(), name.end(), ascii::is_control)) return "a file name has no control characters";
  if (name.front() == '/' || climbs(name))
    return "only files beside or below this one are opened: the name must be relative, without \"..\"";
  return std::nullopt;
}

std::string plain_name(std::string_view text) {
  std::string out(text);
  while (const auto at = find_no_utf8(out)) out[*at] = '?';
  for (char& c : out) {
    if (ascii::is_control(c)) c = ' ';
  }
  return out;
}

}  // namespace lagniappe
