// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme/state_colours.h"

#include <array>

#include "theme/theme.h"

namespace lagniappe::app::theme {

QColor state_colour(StateId state) {
  switch (state) {
    case StateId::Stand:
      return QColor(0x8A, 0x8C, 0x82);
    case StateId::Walk:
      return kMoss;
    case StateId::Sprint:
      return kTeal;
    case StateId::Rise:
      return kSky;
    case StateId::Fall:
      return kPlum;
    case StateId::Skid:
      return kBrick;
    case StateId::Fly:
      return kGold;
  }
  return kInk2;
}

RunStyle ghost_style(std::size_t n) {
  static const std::array<RunStyle, 5> styles = {RunStyle{kGold, Qt::DashLine},
                                                 {kPlum, Qt::DotLine},
                                                 {kSky, Qt::DashDotLine},
                                                 {kBrick, Qt::DashDotDotLine},
                                                 {kMoss, Qt::DashLine}};
  return styles[n % styles.size()];
}

}  // namespace lagniappe::app::theme
