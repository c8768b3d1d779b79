// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <filesystem>

#include "io/json_document.h"
#include "io/model_course.h"
#include "lagniappe/files.h"
#include "lagniappe/scxml.h"

namespace lagniappe {
namespace {

template <typename T>
Result<std::string> kind_if(const Result<T>& result, const char* kind) {
  return result ? Result<std::string>(kind) : refuse(result.error());
}

std::string kind_of(const Json& json) {
  const bool says = json.is_object() && json.contains("lagniappe") && json["lagniappe"].is_string();
  return says ? json["lagniappe"].get<std::string>() : "";
}

}  // namespace

std::string document_kind(const std::string& path) {
  const auto json = read_text(path).and_then([&](const std::string& text) { return parse_json(text, path); });
  return json ? kind_of(*json) : "";
}

Result<std::string> check_file(const std::string& path) {
  if (is_model_path(path)) return kind_if(read_model(path), "model");
  const Result<std::string> text = read_text(path);
  if (!text) return refuse(text.error());
  if (std::filesystem::path(path).extension() == ".take") return kind_if(parse_take(*text, path), "take");

  if (std::filesystem::path(path).extension() == ".scxml") return kind_if(parse_scxml(*text, path), "chart");

  const Result<Json> json = parse_json(*text, path);
  if (!json) return refuse(json.error());
  const std::string kind = kind_of(*json);
  if (kind == "course")
    return kind_if(parse_course(*text, path, std::filesystem::path(path).parent_path().string()), "course");
  if (kind == "profile") {
    std::string said = kind;
    for (const std::string& word : old_words_in(*text)) said += "; " + word;
    return kind_if(parse_profile(*text, path), said.c_str());
  }
  if (kind == "take") return kind_if(parse_take_json(*text, path), "take");
  if (kind == "inputs") return kind_if(parse_inputs(*text, path), "inputs");
  return refuse(
      locate(*text, path,
             {json->is_object() && json->contains("lagniappe") ? "/lagniappe" : "",
              "this is no document that can be checked: it should begin with \"lagniappe\": \"course\", "
              "\"profile\" or \"inputs\""}));
}

}  // namespace lagniappe
