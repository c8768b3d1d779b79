// SPDX-License-Identifier: MIT
#include "io/old_words.h"

#include <fmt/format.h>

#include <cctype>

#include "lagniappe/files.h"
#include "lagniappe/signals.h"

namespace lagniappe {
namespace {

std::string in_quotes(std::string_view text) { return fmt::format("\"{}\"", text); }
bool is_of_word(char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '_' || c == '.'; }

bool has_word(std::string_view text, std::string_view word) {
  for (std::size_t at = 0; (at = text.find(word, at)) != std::string_view::npos; at += word.size()) {
    const std::size_t end = at + word.size();
    if ((at == 0 || !is_of_word(text[at - 1])) && (end == text.size() || !is_of_word(text[end]))) return true;
  }
  return false;
}

// Whether a guard, an action or a script has the word.
bool code_says(const Json& profile, std::string_view word) {
  for (const char* list : {"states", "transitions"}) {
    if (!profile.is_object() || !profile.contains(list) || !profile[list].is_array()) continue;
    for (const Json& row : profile[list]) {
      for (const char* key : {"when", "do", "enter", "exit", "script"}) {
        const bool text = row.is_object() && row.contains(key) && row[key].is_string();
        if (text && has_word(row[key].get_ref<const std::string&>(), word)) return true;
      }
    }
  }
  return false;
}

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
  // A key; a name may be the same word.
  const auto replace = [&](const std::string& was, const std::string& is) {
    for (std::size_t at = 0; (at = text.find(was, at)) != std::string::npos;) {
      const std::size_t next = text.find_first_not_of(" \t\r\n", at + was.size());
      const bool is_key = next != std::string::npos && text[next] == ':';
      if (is_key) text.replace(at, was.size(), is);
      at += is_key ? is.size() : was.size();
    }
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
  const Json json = Json::parse(profile_text, nullptr, false);
  for (const auto& [was, is] : kOldSignals) {
    if (says(std::string(was)) && !json.is_discarded() && code_says(json, was)) tell(was, is);
  }
  return words;
}

}  // namespace lagniappe
