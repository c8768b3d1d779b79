// SPDX-License-Identifier: GPL-3.0-or-later
// Which values, drawings and figures stand on which card.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <vector>

#include "cards/drawings.h"

namespace lagniappe::app {

struct CardSpec {
  const char *id, *title;
  const char* figures;  // Group of figures_of(); empty: none.
  std::vector<std::function<std::unique_ptr<CardDrawing>(const JumpLocks&)>> drawings;
  std::vector<std::string> paths;  // Of values, in order. Curves have drawings instead.
};

// Every number and choice of a profile is on exactly one.
std::span<const CardSpec> card_specs();

// The card that the value, or the curve, stands on.
const CardSpec* card_of(const std::string& path);

// Whether the value has an effect as the other values are: an acceleration has none on an exponential response.
bool applies(const std::string& path, const Profile& profile);

}  // namespace lagniappe::app
