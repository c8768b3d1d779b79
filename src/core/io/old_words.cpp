// SPDX-License-Identifier: MIT
#include "io/old_words.h"

#include <fmt/format.h>

#include <regex>

#include "lagniappe/files.h"
#include "lagniappe/signals.h"

namespace lagniappe {
namespace {

std::string in_quotes(std::string_view text) { return fmt::format("\"{}\"", text); }
std::string path_of(std::string_view section, std::string_view key) {
  return fmt::format("{}.{}", section, key);
}

}  // namespace

std::string present_path(const std::string& path) {
  for (const OldPath& old : kOldPaths) {
    if (path_of(old.section, old.key) == path) return path_of(old.section, old.now);
  }
  return path;
}

std::vector<std::string_view> with_old_paths(const std::vector<std::string>& paths) {
  static const auto kOld = [] {
    std::vector<std::string> all;
    for (const OldPath& path : kOldPaths) all.push_back(path_of(path.section, path.key));
    return all;
  }();
  std::vector<std::string_view> all(paths.begin(), paths.end());
  all.insert(all.end(), kOld.begin(), kOld.end());
  return all;
}

std::string key_of_path(const JsonCursor& object, const std::string& path) {
  if (object.has(path)) return path;
  for (const OldPath& old : kOldPaths) {
    const std::string was = path_of(old.section, old.key);
    if (path_of(old.section, old.now) == path && object.has(was)) return was;
  }
  return path;
}

std::string with_present_paths(std::string text) {
  const auto replace = [&](const std::string& was, const std::string& is) {
    for (std::size_t at = 0; (at = text.find(was, at)) != std::string::npos; at += is.size())
      text.replace(at, was.size(), is);
  };
  for (const OldPath& path : kOldPaths) {
    replace(in_quotes(path.key), in_quotes(path.now));
    replace(in_quotes(path_of(path.section, path.key)), in_quotes(path_of(path.section, path.now)));
  }
  return text;
}

std::vector<std::string> old_words_in(std::string_view profile_text) {
  std::vector<std::string> words;
  const auto tell = [&](std::string_view was, std::string_view is) {
    words.push_back(fmt::format("{} is called {} now", was, is));
  };
  const auto says = [&](const std::string& what) { return profile_text.find(what) != std::string_view::npos; };
  for (const OldPath& path : kOldPaths) {
    const std::string was = path_of(path.section, path.key);
    if (says(in_quotes(path.key)) || says(in_quotes(was))) tell(was, path_of(path.section, path.now));
  }
  for (const auto& [was, is] : kOldSignals) {
    const std::regex guard("\"(when|do|enter|exit|script)\"\\s*:\\s*\"(\\\\.|[^\"\\\\])*\\b" +
                           std::string(was) + "\\b");
    if (says(std::string(was)) && std::regex_search(profile_text.begin(), profile_text.end(), guard))
      tell(was, is);
  }
  return words;
}

}  // namespace lagniappe
