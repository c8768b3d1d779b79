// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme/state_colours.h"

#include <array>
#include <string_view>

#include "theme/theme.h"

namespace lagniappe::app::theme {

namespace {

struct NamedColour {
  std::string_view name;
  QColor colour;
};

const std::array<NamedColour, 12>& built_in_colours() {
  static const Colours& day = colours_of(Light::Daylight);
  static const std::array<NamedColour, 12> kColours = {{{"Stand", QColor(0x8A, 0x8C, 0x82)},
                                                        {"Walk", day.moss},
                                                        {"Sprint", day.teal},
                                                        {"Rise", day.sky},
                                                        {"Fall", day.plum},
                                                        {"Skid", day.brick},
                                                        {"Fly", day.gold},
                                                        {"Crouch", QColor(0xA8, 0x6C, 0x12)},
                                                        {"Slide", QColor(0x8C, 0x5A, 0x3C)},
                                                        {"Lie", QColor(0x5C, 0x4A, 0x3A)},
                                                        {"Tuck", QColor(0x3F, 0x4F, 0x86)},
                                                        {"Soar", QColor(0xB0, 0x8A, 0x4A)}}};
  return kColours;
}

// On dark sheets the same hue, as light as can be told from them.
QColor in_force(const QColor& colour) {
  constexpr int kLightOnDark = 150, kGreyer = 80;
  if (light() == Light::Daylight || colour.lightness() >= kLightOnDark) return colour;
  return QColor::fromHsl(std::max(colour.hslHue(), 0), colour.hslSaturation() * kGreyer / 100, kLightOnDark);
}

}  // namespace

QColor state_colour(StateId state, const StateChart& chart) {
  const std::string_view name = chart.name_of(state);
  for (const NamedColour& c : built_in_colours()) {
    if (c.name == name) return in_force(c.colour);
  }
  // Others go round the circle by their place in the table, so that neighbours differ.
  const int hue = int((static_cast<std::size_t>(state) * 137 + 20) % 360);
  return in_force(QColor::fromHsl(hue, 90, 95));
}

// Dark or light, whatever the theme: it is the ground that counts.
QColor ink_on(const QColor& colour) {
  const Colours& day = colours_of(Light::Daylight);
  return colour.lightness() > 120 && colour != day.sky ? day.ink : day.sheet;
}

RunStyle shown_style() { return {teal(), Qt::SolidLine}; }

RunStyle ghost_style(std::size_t n) {
  const std::array<RunStyle, 5> styles = {RunStyle{gold(), Qt::DashLine},
                                          {plum(), Qt::DotLine},
                                          {sky(), Qt::DashDotLine},
                                          {brick(), Qt::DashDotDotLine},
                                          {moss(), Qt::DashLine}};
  return styles[n % styles.size()];
}

}  // namespace lagniappe::app::theme
