// SPDX-License-Identifier: MIT
// How long a display's frames took, as somebody measured them.
#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "io/json_document.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

constexpr double kShortest = 0.01, kLongest = 60'000.0;  // ms.

std::string_view trimmed(std::string_view text) {
  constexpr std::string_view kBlank = " \t\r";
  const auto begin = text.find_first_not_of(kBlank);
  if (begin == std::string_view::npos) return {};
  return text.substr(begin, text.find_last_not_of(kBlank) - begin + 1);
}

}  // namespace

Result<std::vector<double>> parse_frame_lengths(std::string_view text, const std::string& file) {
  std::vector<double> lengths;
  for (std::size_t line = 1; !text.empty(); ++line) {
    const auto end = std::min(text.find('\n'), text.size());
    const std::string_view row = trimmed(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
    if (row.empty() || row.front() == '#') continue;
    const auto refused = [&](const std::string& what) {
      return refuse(Error{file, fmt::format("line {}", line), what});
    };
    double ms = 0.0;
    const auto read = std::from_chars(row.data(), row.data() + row.size(), ms);
    if (read.ec != std::errc{} || read.ptr != row.data() + row.size())
      return refused("a frame's length in milliseconds is wanted, alone on its line");
    if (!(ms >= kShortest && ms <= kLongest))
      return refused(fmt::format("a frame takes {} to {} ms, not {:g}", kShortest, kLongest, ms));
    lengths.push_back(ms * 1e-3);
  }
  if (lengths.empty()) return refuse(Error{file, "the file", "there is no frame in it"});
  return lengths;
}

Result<std::vector<double>> read_frame_lengths(const std::string& path) {
  return read_text(path).and_then([&](const std::string& text) { return parse_frame_lengths(text, path); });
}

}  // namespace lagniappe
