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
  static const std::array<NamedColour, 12> kColours = {{{"Stand", QColor(0x8A, 0x8C, 0x82)},
                                                        {"Walk", kMoss},
                                                        {"Sprint", kTeal},
                                                        {"Rise", kSky},
                                                        {"Fall", kPlum},
                                                        {"Skid", kBrick},
                                                        {"Fly", kGold},
                                                        {"Crouch", QColor(0xA8, 0x6C, 0x12)},
                                                        {"Slide", QColor(0x8C, 0x5A, 0x3C)},
                                                        {"Lie", QColor(0x5C, 0x4A, 0x3A)},
                                                        {"Tuck", QColor(0x3F, 0x4F, 0x86)},
                                                        {"Soar", QColor(0xB0, 0x8A, 0x4A)}}};
  return kColours;
}

}  // namespace

QColor state_colour(StateId state, const StateChart& chart) {
  const std::string_view name = chart.name_of(state);
  for (const NamedColour& c : built_in_colours()) {
    if (c.name == name) return c.colour;
  }
  // Others go round the circle by their place in the table, so that neighbours differ.
  const int hue = int((static_cast<std::size_t>(state) * 137 + 20) % 360);
  return QColor::fromHsl(hue, 90, 95);
}

QColor ink_on(const QColor& colour) { return colour.lightness() > 120 && colour != kSky ? kInk : kSheet; }

RunStyle ghost_style(std::size_t n) {
  static const std::array<RunStyle, 5> styles = {RunStyle{kGold, Qt::DashLine},
                                                 {kPlum, Qt::DotLine},
                                                 {kSky, Qt::DashDotLine},
                                                 {kBrick, Qt::DashDotDotLine},
                                                 {kMoss, Qt::DashLine}};
  return styles[n % styles.size()];
}

}  // namespace lagniappe::app::theme
