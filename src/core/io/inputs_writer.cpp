// SPDX-License-Identifier: MIT
#include "io/document_writers.h"
#include "io/exact_degrees.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

Json pair_of(const Vec2& v) { return Json::array({v.x, v.y}); }
Json degrees_of(const Vec2& v) { return Json::array({exact_degrees(v.x), exact_degrees(v.y)}); }

Json names_of(Buttons buttons) {
  Json names = Json::array();
  for (std::size_t i = 0; i < kActionCount; ++i) {
    if (buttons.has(static_cast<Action>(i))) names.push_back(kActionNames[i]);
  }
  return names;
}

Json step_of(const InputChange& change) {
  Json step = {{"at", change.at}};
  if (change.look) step["look"] = degrees_of(*change.look);
  if (change.turn) step["turn"] = degrees_of(*change.turn);
  if (change.move) step["move"] = pair_of(*change.move);
  if (change.press.bits != 0) step["press"] = names_of(change.press);
  if (change.release.bits != 0) step["release"] = names_of(change.release);
  return step;
}

}  // namespace

std::string inputs_text(const InputScript& script, const std::string& name) {
  std::string text = "{\n  \"lagniappe\": \"inputs\",\n  \"version\": 1,\n";
  if (!name.empty()) text += "  \"name\": " + Json(name).dump() + ",\n";
  text += "  \"steps\": [";
  for (std::size_t i = 0; i < script.changes.size(); ++i)
    text += (i > 0 ? ",\n    " : "\n    ") + step_of(script.changes[i]).dump();
  return text + "\n  ]\n}\n";
}

}  // namespace lagniappe
