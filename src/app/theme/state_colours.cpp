// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme/state_colours.h"

#include <array>
#include <optional>
#include <string_view>

#include "theme/theme.h"

namespace lagniappe::app::theme {

namespace {

struct OfState {
  std::string_view name;
  QColor daylight, lantern;
};

// Those that are none of the interface's own.
std::optional<QColor> colour_of(std::string_view name) {
  static const std::array<OfState, 10> kOthers = {{{"Stand", {0x8A, 0x8C, 0x82}, {0xA9, 0xAA, 0xA0}},
                                                   {"Crouch", {0xA8, 0x6C, 0x12}, {0xBE, 0x82, 0x32}},
                                                   {"Slide", {0x8C, 0x5A, 0x3C}, {0xBC, 0x8C, 0x6E}},
                                                   {"Lie", {0x5C, 0x4A, 0x3A}, {0x9E, 0x8A, 0x78}},
                                                   {"Tuck", {0x3F, 0x4F, 0x86}, {0x84, 0x94, 0xCE}},
                                                   {"Soar", {0xB0, 0x8A, 0x4A}, {0xCF, 0xB2, 0x7C}},
                                                   {"Mantle", {0x2F, 0x6B, 0x4F}, {0x74, 0xB6, 0x98}},
                                                   {"Hang", {0x7A, 0x3E, 0x62}, {0xC8, 0x8E, 0xB2}},
                                                   {"Climb", {0x6B, 0x6A, 0x1E}, {0xB4, 0xB2, 0x5C}},
                                                   {"Float", {0x2E, 0x6E, 0x86}, {0x86, 0xC2, 0xD6}}}};
  static constexpr std::array<std::pair<std::string_view, QColor Colours::*>, 6> kOurs = {
      {{"Walk", &Colours::moss},
       {"Sprint", &Colours::teal},
       {"Rise", &Colours::sky},
       {"Fall", &Colours::plum},
       {"Skid", &Colours::brick},
       {"Fly", &Colours::gold}}};
  for (const auto& [state, colour] : kOurs) {
    if (state == name) return colours().*colour;
  }
  for (const OfState& other : kOthers) {
    if (other.name == name) return light() == Light::Daylight ? other.daylight : other.lantern;
  }
  return std::nullopt;
}

}  // namespace

QColor state_colour(StateId state, const StateChart& chart) {
  const std::string_view name = chart.name_of(state);
  if (const auto colour = colour_of(name)) return *colour;
  // Others go round the circle by their place in the table, so that neighbours differ.
  const int hue = int((static_cast<std::size_t>(state) * 137 + 20) % 360);
  return QColor::fromHsl(hue, 90, light() == Light::Daylight ? 95 : 150);
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

QColor field_colour(std::size_t n) {
  const std::array<QColor, 5> colours = {moss(), plum(), sky(), gold(), brick()};
  return colours[n % colours.size()];
}

}  // namespace lagniappe::app::theme
