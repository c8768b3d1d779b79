// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include "io/json_document.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

constexpr double kLongestScript = 24.0 * 3600.0;
constexpr NumberRange kDegreesPerSecond = {-1e5, 1e5};

Buttons read_buttons(const JsonCursor& list) {
  static const std::vector<std::string_view> words(kActionNames.begin(), kActionNames.end());
  Buttons buttons;
  for (const JsonCursor& word : list.elements()) buttons.set(static_cast<Action>(word.one_of(words)), true);
  return buttons;
}

std::optional<Vec2> angles_if(const JsonCursor& step, std::string_view key, const NumberRange& range) {
  if (!step.has(key)) return std::nullopt;
  const Vec2 in_degrees = step.at(key).vec2(range);
  return Vec2(radians(in_degrees.x), radians(in_degrees.y));
}

InputChange read_change(const JsonCursor& step) {
  step.only_keys({"at", "move", "look", "turn", "press", "release"});
  InputChange change;
  change.at = step.at("at").number({0.0, kLongestScript});
  if (step.has("move")) change.move = step.at("move").vec2({-1.0, 1.0});
  change.look = angles_if(step, "look", kAnyDegrees);
  change.turn = angles_if(step, "turn", kDegreesPerSecond);
  if (step.has("press")) change.press = read_buttons(step.at("press"));
  if (step.has("release")) change.release = read_buttons(step.at("release"));
  return change;
}

InputScript read(const JsonCursor& document) {
  document.only_keys({"name", "steps"});
  if (document.has("name")) document.at("name").name();
  InputScript script;
  for (const JsonCursor& step : document.at("steps").elements()) {
    const InputChange change = read_change(step);
    if (change.at < script.end()) {
      step.at("at").fail(fmt::format("the steps must be in order of time, but {} s comes after {} s", change.at,
                                     script.end()));
    }
    script.changes.push_back(change);
  }
  return script;
}

}  // namespace

Result<InputScript> parse_inputs(std::string_view text, const std::string& file) {
  return read_document(text, file, "inputs", read);
}

Result<InputScript> read_inputs(const std::string& path) {
  return read_text(path).and_then([&](const std::string& text) { return parse_inputs(text, path); });
}

}  // namespace lagniappe
