// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include "io/piece_readers.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostKeys = 1000;

Vec3 read_turn(const JsonCursor& cursor) {
  const Vec3 turn = cursor.vec3({-360000.0, 360000.0});
  return {radians(turn.x), radians(turn.y), radians(turn.z)};
}

PieceMotion::Key read_key(const JsonCursor& cursor) {
  cursor.only_keys({"at", "move", "turn", "ease"});
  PieceMotion::Key key{cursor.at("at").number({0.0, 1.0})};
  if (cursor.has("move")) key.move_C = cursor.at("move").vec3(kAnyPosition);
  if (cursor.has("turn")) key.turn = read_turn(cursor.at("turn"));
  if (cursor.has("ease")) key.ease = static_cast<PieceMotion::Ease>(cursor.at("ease").one_of(kEaseWords));
  return key;
}

// A loop that ends on a key of its own must end where it began, or the piece would jump.
void must_close(const JsonCursor& last_cursor, const PieceMotion& motion) {
  const PieceMotion::Key &first = motion.keys.front(), &last = motion.keys.back();
  if (motion.repeat != PieceMotion::Repeat::Loop || motion.keys.size() < 2 || last.at < 1.0) return;
  bool same = length(last.move_C - first.move_C) <= 1e-6;
  for (int i = 0; i < 3; ++i) same = same && std::abs(wrap_angle(last.turn[i] - first.turn[i])) <= 1e-6;
  if (!same)
    last_cursor.fail(
        "a loop must end where it begins (turned by whole turns at most), else the piece would jump; leave out "
        "the "
        "key at 1 to let it go back, or choose \"back-and-forth\"");
}

}  // namespace

PieceMotion read_motion(const JsonCursor& cursor) {
  cursor.only_keys({"keys", "period", "phase", "repeat", "path", "pivot"});
  PieceMotion motion;
  motion.period = cursor.at("period").number({0.05, 1e5});
  cursor.number_if("phase", {-1.0, 1.0}, motion.phase);
  if (cursor.has("repeat"))
    motion.repeat = static_cast<PieceMotion::Repeat>(cursor.at("repeat").one_of(kRepeatWords));
  if (cursor.has("path")) motion.path = static_cast<PieceMotion::Path>(cursor.at("path").one_of(kPathWords));
  if (cursor.has("pivot")) motion.pivot_P = cursor.at("pivot").vec3(kAnyPosition);
  const JsonCursor list = cursor.at("keys");
  const auto keys = list.elements();
  if (keys.empty()) list.fail("a motion needs at least one key");
  if (keys.size() > kMostKeys) list.fail(fmt::format("a motion has at most {} keys", kMostKeys));
  for (const JsonCursor& key : keys) {
    motion.keys.push_back(read_key(key));
    const bool first = motion.keys.size() == 1;
    if (first && motion.keys.back().at != 0.0) key.at("at").fail("the first key must be at 0");
    if (!first && motion.keys.back().at <= motion.keys[motion.keys.size() - 2].at)
      key.at("at").fail("the keys must come in rising order");
  }
  must_close(keys.back(), motion);
  return motion;
}

}  // namespace lagniappe
