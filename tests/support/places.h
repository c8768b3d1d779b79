// SPDX-License-Identifier: GPL-3.0-or-later
// Small places for tests without a window.
#pragma once

#include <memory>

#include "session/drive_session.h"

namespace lagniappe::app::test {

// A floor of 100 m with its top at y = 0, and what is added to it; the run begins in its middle.
inline std::shared_ptr<const Place> floor_with(std::vector<Piece> pieces = {}) {
  Course course;
  course.name = "Floor";
  course.pieces = std::move(pieces);
  course.pieces.push_back({"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{100, 1, 100}}});
  course.marks.push_back({"start", Vec3(0.0), 0.0});
  return make_place("", std::move(course));
}

}  // namespace lagniappe::app::test
