// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <optional>
#include <set>

#include "io/piece_readers.h"

namespace lagniappe {

Surface read_surface(const JsonCursor& cursor, const std::vector<std::string_view>& more_keys) {
  std::vector<std::string_view> known = {"walk", "ground", "friction", "climbable"};
  known.insert(known.end(), more_keys.begin(), more_keys.end());
  cursor.only_keys(known);
  Surface surface;
  if (cursor.has("walk")) {
    surface.walk = static_cast<Surface::Walk>(cursor.at("walk").one_of(kWalkWords));
  }
  if (cursor.has("ground")) surface.ground = cursor.at("ground").truth();
  if (cursor.has("climbable")) surface.climbable = cursor.at("climbable").truth();
  cursor.number_if("friction", {0.0, 1.0}, surface.friction);
  return surface;
}

std::vector<NamedSurface> read_surfaces(const JsonCursor& cursor) {
  std::vector<NamedSurface> surfaces;
  std::set<std::string> seen;
  for (const JsonCursor& element : cursor.elements()) {
    surfaces.push_back({element.at("id").name(), read_surface(element, {"id"})});
    if (!seen.insert(surfaces.back().id).second)
      element.at("id").fail(
          fmt::format("the id \"{}\" is used before; each must be its own", surfaces.back().id));
  }
  return surfaces;
}

std::vector<std::optional<shape::Triangles::SurfaceChoice>> read_extra_surfaces(const JsonCursor& document,
                                                                                std::string_view list) {
  std::vector<std::optional<shape::Triangles::SurfaceChoice>> choices;
  if (!document.has(list)) return choices;
  for (const JsonCursor& element : document.at(list).elements()) {
    auto& choice = choices.emplace_back();
    const bool says = element.value().is_object() && element.has("extras") &&
                      element.at("extras").value().is_object() && element.at("extras").has("surface");
    if (!says) continue;
    const JsonCursor surface = element.at("extras").at("surface");
    if (surface.value().is_string()) {
      choice = {surface.name(), {}};
    } else {
      choice = {"", read_surface(surface)};
    }
  }
  return choices;
}

void must_name_surface(const JsonCursor& name, const std::vector<NamedSurface>& surfaces) {
  if (surfaces.empty()) name.fail("there are no surfaces to refer to; add it to \"surfaces\"");
  std::vector<std::string_view> ids;
  for (const NamedSurface& s : surfaces) ids.push_back(s.id);
  name.one_of(ids);
}

}  // namespace lagniappe
