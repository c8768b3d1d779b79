// SPDX-License-Identifier: MIT
// The built-in table, row by row: each has a script that fires it, and one that is nearly so and must not.
#include <catch2/catch.hpp>
#include <map>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// One begins at the origin and looks along -Z.
TriangleWorld ledge(double depth = 6.0) {  // Goes down 2 m ahead.
  return Scene().block({0, -1, 2}, {20, 1, 8}).block({0, -depth - 1.0, -20}, {60, 1, 80}).world();
}
TriangleWorld chute(double gap) {  // 50 degrees down, 2 m ahead; ends `gap` above the floor.
  return Scene()
      .block({0, -1, 2}, {20, 1, 8})
      .ramp({0, -8, -5.355}, {20, 8, 6.71}, {180, 0, 0})
      .block({0, -9 - gap, -20}, {60, 1, 80})
      .world();
}
TriangleWorld kicker() {  // 30 degrees up, ending in the air.
  return Scene().floor().ramp({0, 0, -5}, {20, 2, 3.46}).world();
}
TriangleWorld crate() {  // 1 m high, 0.5 m ahead.
  return Scene().floor().block({0, 0, -3}, {10, 1, 5}).world();
}
TriangleWorld roof() {  // 1.3 m above the floor, from 1 m behind to 2 m ahead.
  return Scene().floor().block({0, 1.3, -0.5}, {4, 1, 3}).world();
}

// A floor far below, and a block that moves as the keys say in 2 s: under the start, or behind it on a ledge.
TriangleWorld moving(std::vector<PieceMotion::Key> keys, bool behind = false) {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at) {
    Piece piece;
    piece.at_C = at;
    piece.shape = shape::Block{size};
    for (const Triangle& t : triangles_of(piece)) builder.add(t);
  };
  builder.begin_piece("floor");
  add({200, 1, 200}, {0, -31, 0});
  if (behind) add({20, 1, 8}, {0, -1, 2});
  PieceMotion motion;
  motion.keys = std::move(keys);
  motion.period = 2.0;
  motion.at_C = behind ? Vec3(0, 0.01, 2.5) : Vec3(0, -1, 0);
  builder.begin_moving_piece("mover", motion);
  add(behind ? Vec3(4, 2, 1) : Vec3(8, 1, 8), Vec3(0.0));
  return builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
}
// A crate ahead, and a block that closes in over it.
TriangleWorld shutter() {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at) {
    Piece piece;
    piece.at_C = at;
    piece.shape = shape::Block{size};
    for (const Triangle& t : triangles_of(piece)) builder.add(t);
  };
  builder.begin_piece("floor");
  add({40, 1, 40}, {0, -1, 0});
  add({10, 1, 5}, {0, 0, -3});
  PieceMotion motion;
  motion.keys = {{0.0}, {0.03}, {0.04, Vec3(0, 0, 3)}};
  motion.period = 20.0;
  motion.at_C = Vec3(0, 1.1, -5);
  builder.begin_moving_piece("shutter", motion);
  add({8, 2, 2.5}, Vec3(0.0));
  return builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
}
// A rim to hang from, and from 1 s on a lid that comes over it.
TriangleWorld lid() {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at) {
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t);
  };
  builder.begin_piece("floor");
  add({40, 1, 40}, {0, -1, 0});
  add({6, 3.3, 4}, {0, 0, -2.5});
  add({6, 0.3, 4}, {0, 3.9, -2.5});
  PieceMotion motion;
  motion.keys = {{0.0}, {0.1}, {0.2, Vec3(0, 0, 3.5)}};
  motion.period = 10.0;
  motion.at_C = Vec3(0, 3.33, -5.6);
  builder.begin_moving_piece("lid", motion);
  add({6, 0.3, 4}, Vec3(0.0));
  return builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
}
TriangleWorld tilting() { return moving({{0.0}, {0.5}, {1.0, Vec3(0.0), Vec3(0, 0, radians(65.0))}}); }
TriangleWorld shove() { return moving({{0.0}, {0.5}, {1.0, Vec3(0, 0, -5)}}, true); }
TriangleWorld chute_and_kicker() {  // 27 degrees up, 1 m high, where the chute ends.
  return Scene()
      .block({0, -1, 2}, {20, 1, 8})
      .ramp({0, -8, -5.355}, {20, 8, 6.71}, {180, 0, 0})
      .block({0, -9, -20}, {60, 1, 80})
      .ramp({0, -8, -10.5}, {20, 1, 2})
      .world();
}

// A floor, and a chute 2 m ahead where one is wanted, that pull only from `ahead` m before the start on back
// and up to `high`.
TriangleWorld pulling(double ahead, double high, bool steep) {
  Course course;
  const Vec3 size = steep ? Vec3(20, 1, 8) : Vec3(60, 1, 80);
  course.pieces.push_back(
      {"floor", steep ? Vec3(0, -1, 2) : Vec3(0, -1, 0), Vec3(0.0), "", shape::Block{size}});
  if (steep)
    course.pieces.push_back({"chute", Vec3(0, -8, -5.355), Vec3(kPi, 0, 0), "", shape::Ramp{{20, 8, 6.71}}});
  Field field;
  field.id = "Pull";
  field.shape = field::Uniform{{60.0, high + 20.0, 40.0 + ahead}};
  field.at_C = {0.0, high / 2 - 10.0, 0.5 * (40.0 - ahead)};
  course.fields.push_back(field);
  course.gravity = false;
  course.marks.push_back({"start"});
  return build_world(course);
}
TriangleWorld patch() { return pulling(0.5, 5.0, false); }
TriangleWorld shallow() { return pulling(20.0, 1.5, false); }
TriangleWorld lost_chute() { return pulling(4.5, 5.0, true); }

struct Row {
  const char *from, *to;
  int priority;
  TriangleWorld (*place)();
  const char *fires, *nearly;  // What is driven.
  const char* with = "";       // Values of the profile, for the first only.
};

// Ivy of this height 0.5 m ahead, with a roof over it or none; from 1 s on it tips back, if it does.
TriangleWorld ivy_of(double high, bool roofed = false, bool tips = false) {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at, bool climbable) {
    Surface surface;
    surface.climbable = climbable;
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t, surface);
  };
  builder.begin_piece("floor");
  add({40, 1, 40}, {0, -1, 0}, false);
  if (roofed) add({6, 0.3, 4}, {0, high + 0.6, -2.5}, false);
  PieceMotion motion;
  motion.keys = {{0.0}, {0.1}, {0.2, Vec3(0.0), Vec3(0, radians(tips ? 60.0 : 0.0), 0)}};
  motion.period = 10.0;
  motion.at_C = Vec3(0, 0, -2.5);
  builder.begin_moving_piece("ivy", motion);
  add({6, high, 4}, Vec3(0.0), true);
  return builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
}
TriangleWorld ivy() { return ivy_of(5.0); }
TriangleWorld low_ivy() { return ivy_of(2.8); }
TriangleWorld roofed_ivy() { return ivy_of(2.8, true); }
TriangleWorld ivy_that_tips() { return ivy_of(5.0, false, true); }
TriangleWorld high_wall() { return Scene().floor().block({0, 0, -2.5}, {6, 3.3, 4}).world(); }
TriangleWorld nook() {  // A rim to hang from, and no room on top.
  return Scene().floor().block({0, 0, -2.5}, {6, 3.3, 4}).block({0, 3.9, -2.5}, {6, 0.3, 4}).world();
}
TriangleWorld floor_only() { return Scene().floor().world(); }
TriangleWorld deep_ledge() { return ledge(); }
TriangleWorld chute_to_floor() { return chute(0.0); }
TriangleWorld chute_to_nothing() { return chute(6.0); }

const std::vector<Row>& rows() {
  static const std::vector<Row> kRows = {
      {"Flight", "Fall", 100, floor_only, "F:0.2 F", "F:0.2 w:0.2"},
      {"any", "Fly", 99, floor_only, "w:0.2 F", "w:0.2 J"},
      {"Fly", "Soar", 20, floor_only, "F:0.1 ws:0.1", "F:0.1 w:0.1"},
      {"Soar", "Fly", 20, floor_only, "F:0.1 ws:0.1 w:0.1", "F:0.1 ws:0.4"},
      {"Upright", "Float", 95, patch, "w:1", "w:0.1"},
      {"Airborne", "Float", 95, shallow, "J j:0.5", "w:0.5"},
      {"Skid", "Float", 95, lost_chute, "w:2", "w:0.5"},
      {"Lie", "Float", 95, patch, "L:1 w:2", "L:1 w:0.1"},
      {"Float", "Fall", 95, patch, "w:0.8 b:4", "w:0.8 :1"},
      {"Upright", "Rise", 90, floor_only, ":0.2 J", ":0.2 j:0.3"},
      {"Airborne", "Rise", 90, floor_only, ":0.2 J:0.3 J", ":0.2 J:0.3 J", "jump.air_jumps=1"},
      {"Skid", "Rise", 90, chute_to_floor, "w:1.2 J:0.1", "w:1.2 J:0.1", "jump.from_skid=true"},
      {"Upright", "Skid", 80, tilting, ":1.9", ":0.9"},
      {"Airborne", "Skid", 80, chute_to_floor, "w:1.3", "w:0.3"},
      {"Lie", "Skid", 80, tilting, "L:1.9", "L:0.9"},
      {"Crouch", "Tuck", 75, shove, "c:1.9", "c:0.9"},
      {"Slide", "Tuck", 75, deep_ledge, "b:0.7 ws:0.6 wsC:0.1 cw:0.6", "b:0.7 ws:0.6 wsC cw:0.02"},
      {"Upright", "Rise", 70, kicker, "ws:2", "w:0.3"},
      {"Upright", "Fall", 60, deep_ledge, "w:1", "w:0.3"},
      {"Lie", "Tuck", 60, shove, "L:1.9", "L:0.9"},
      {"Skid", "Rise", 70, chute_and_kicker, "w:3", "w:1.1"},
      {"Skid", "Fall", 60, chute_to_nothing, "w:3", "w:1.1"},
      {"Airborne", "Crouch", 55, floor_only, "J:0.2 c:1", "J:0.2 :1"},
      {"Airborne", "Sprint", 54, floor_only, "J:0.2 ws:1", "J:0.2 s:1"},
      {"Airborne", "Walk", 53, floor_only, "J:0.2 w:1", "J:0.2 ws:1"},
      {"Airborne", "Stand", 52, floor_only, "J:1", "J:0.2 w:1"},
      {"Upright", "Mantle", 85, crate, "w:0.1 K", "w:0.1 J"},
      {"Airborne", "Mantle", 85, crate, "J:0.3 k:0.2", "J:0.3 w:0.2"},
      {"Mantle", "Fall", 84, crate, "K k:0.2 kC", "K k:0.3"},
      {"Mantle", "Crouch", 55, crate, "K c:1.2", "K :1.2"},
      {"Mantle", "Sprint", 54, crate, "K ws:1.2", "K w:1.2"},
      {"Mantle", "Walk", 53, crate, "K w:1.2", "K :1.2"},
      {"Mantle", "Stand", 52, crate, "K :1.2", "K w:1.2"},
      {"Mantle", "Fall", 50, shutter, "w:0.3 K :1", "w:0.3 K :0.1"},
      {"Airborne", "Hang", 84, nook, "J j:0.3 jk:0.5", "J j:0.8"},
      {"Hang", "Rise", 90, nook, "J j:0.3 jk:0.5 bJ", "J j:0.3 jk:0.5 b:0.2"},
      {"Hang", "Mantle", 85, high_wall, "J j:0.8 K", "J j:0.8 k:0.1", "hang.catch=falling"},
      {"Hang", "Fall", 84, nook, "J j:0.3 jk:0.5 C", "J j:0.3 jk:0.5 :0.1"},
      {"Hang", "Fall", 50, lid, "J j:0.3 jk:0.4 :2", "J j:0.3 jk:0.4"},
      {"Upright", "Climb", 83, ivy, "K :0.1", "w:0.1"},
      {"Airborne", "Climb", 83, ivy, "J j:0.2 k:0.1", "J j:0.3"},
      {"Climb", "Rise", 90, ivy, "K k:0.3 J", "K k:0.3 j:0.1"},
      {"Climb", "Mantle", 85, low_ivy, "K w:2", "K w:0.2"},
      {"Climb", "Hang", 83, roofed_ivy, "K w:2", "K w:0.2"},
      {"Climb", "Fall", 84, ivy, "K k:0.3 C", "K k:0.3"},
      {"Climb", "Stand", 52, ivy, "K w:1 b:2", "K w:1 b:0.2"},
      {"Climb", "Fall", 50, ivy_that_tips, "K w:0.8 :2", "K w:0.5"},
      {"Skid", "Crouch", 55, chute_to_floor, "w:1.2 c:4", "w:1.2 :4"},
      {"Skid", "Sprint", 54, chute_to_floor, "w:1.2 ws:4", "w:1.2 s:4"},
      {"Skid", "Walk", 53, chute_to_floor, "w:4", "w:1.2 :4"},
      {"Skid", "Stand", 52, chute_to_floor, "w:1.2 :4", "w:4"},
      {"Rise", "Fall", 30, floor_only, "J:0.5", "J:0.2"},
      {"Fall", "Rise", 30, floor_only, "F:0.1 j:0.3 F:0.1", "F:0.1 w:0.3 F:0.1"},
      {"Rise", "Tuck", 20, floor_only, "J:0.1 c:0.1", "J:0.1 w:0.1"},
      {"Fall", "Tuck", 20, deep_ledge, "w:0.9 cw:0.1", "w:1"},
      {"Tuck", "Fall", 20, floor_only, "J:0.1 c:0.1 :0.05", "J:0.1 c:0.2"},
      {"Stand", "Lie", 48, floor_only, ":0.1 L", ":0.1 C"},
      {"Walk", "Lie", 48, floor_only, "w:0.3 wL", ":0.3 L"},
      {"Sprint", "Lie", 48, floor_only, "ws:0.5 wsL", "ws:0.5 wsJ"},
      {"Crouch", "Lie", 48, floor_only, "c:0.3 cL", "c:0.3 cw:0.2"},
      {"Lie", "Crouch", 48, floor_only, "L:1 L", "L:1 w:0.3"},
      {"Sprint", "Slide", 46, floor_only, "ws:0.6 wsC", "ws:0.02 wsC"},
      {"Stand", "Crouch", 45, floor_only, ":0.1 c:0.1", ":0.1 w:0.1"},
      {"Walk", "Crouch", 45, floor_only, "w:0.2 wc:0.1", "w:0.2 ws:0.1"},
      {"Sprint", "Crouch", 45, floor_only, "ws:0.02 wsc:0.05", "ws:0.6 wsC"},
      {"Slide", "Walk", 45, floor_only, "ws:0.6 wsC wc:0.3 w:0.1", "ws:0.6 wsC w:0.1"},
      {"Slide", "Crouch", 44, floor_only, "ws:0.6 wsC c:2", "ws:0.6 wsC c:0.5"},
      {"Crouch", "Sprint", 45, floor_only, "c:0.3 ws:0.1", "c:0.3 w:0.1"},
      {"Crouch", "Walk", 44, floor_only, "c:0.3 w:0.1", "c:0.3 :0.1"},
      {"Crouch", "Stand", 43, floor_only, "c:0.3 :0.1", "c:0.3 w:0.1"},
      {"Stand", "Sprint", 41, floor_only, ":0.1 ws", ":0.1 s:0.2"},
      {"Stand", "Walk", 40, floor_only, ":0.1 w", ":0.1 ws"},
      {"Walk", "Stand", 40, floor_only, "w:0.2 :0.1", "w:0.4"},
      {"Sprint", "Stand", 40, floor_only, "ws:0.2 s:0.1", "ws:0.2 w:0.1"},
      {"Walk", "Sprint", 39, floor_only, "w:0.2 ws:0.1", "w:0.2 s:0.1"},
      {"Sprint", "Walk", 39, floor_only, "ws:0.2 w:0.1", "ws:0.4"},
  };
  return kRows;
}

Profile profile_with(const std::string& assignment) {
  Profile profile;
  if (!assignment.empty()) profile = *with_value(profile, assignment);
  return profile;
}

std::string called(const Row& r) {
  return std::string(r.from) + " to " + r.to + " at " + std::to_string(r.priority);
}

std::size_t row_in_table(const Row& r) {
  const auto& all = built_in_states().transitions;
  const auto found = std::find_if(all.begin(), all.end(), [&](const TransitionSpec& t) {
    return t.from == r.from && t.to == r.to && t.priority == r.priority;
  });
  REQUIRE(found != all.end());
  return static_cast<std::size_t>(found - all.begin());
}

}  // namespace

TEST_CASE("Every row of the built-in table is fired by its script, and not by one that is nearly so") {
  std::map<std::size_t, int> seen;
  for (const Row& r : rows()) {
    INFO(called(r));
    const std::size_t row = row_in_table(r);
    ++seen[row];
    for (const int hz : {30, 60, 144}) {
      INFO(hz << " ticks/s");
      Driven yes(r.place(), profile_with(r.with)), no(r.place());
      yes.hz = no.hz = hz;
      CHECK(yes.play(r.fires).rows.contains(row));
      CHECK_FALSE(no.play(r.nearly).rows.contains(row));
    }
  }
  CHECK(seen.size() == built_in_states().transitions.size());
}

namespace {

// The same place moved into another frame, where a field pulls against that frame's up. REQUIRES: nothing
// moves.
TriangleWorld pulled_aside(const TriangleWorld& place, const Frame& frame) {
  TriangleWorld::Builder builder;
  for (PieceId piece = 0; piece < place.piece_count(); ++piece) {
    builder.begin_piece(std::string(place.piece_name(piece)));
    for (std::size_t i = 0; i < place.triangle_count(); ++i) {
      if (place.triangle_piece(i) == piece)
        builder.add(frame.triangle(place.triangle(i)), place.triangle_surface(i));
    }
  }
  Field down;
  down.id = "Down";
  down.shape = field::Uniform{Vec3(1e5), frame.vector({0, -1, 0})};
  TriangleWorld::Options options;
  options.limits = Box{frame.origin_C - Vec3(1e4), frame.origin_C + Vec3(1e4)};
  down.at_C = frame.origin_C;
  options.gravity = FieldSum({down}, Vec3(0.0));
  return builder.commit(std::move(options));
}

}  // namespace

TEST_CASE(
    "In rooms that lie on their side and stand on their head, pulled that way, every script does the same") {
  for (const Row& r : rows()) {
    const TriangleWorld place = r.place();
    if (place.has_movers() || place.fields() != nullptr) continue;
    INFO(called(r));
    Driven plain(r.place(), profile_with(r.with));
    plain.play(r.fires);
    for (const Frame& frame : frames()) {
      if (length(frame.origin_C) > 1e5) continue;
      INFO(frame.name);
      Driven aside(pulled_aside(place, frame), profile_with(r.with),
                   Home{frame.origin_C, frame.rotation_CE, 0.0});
      aside.play(r.fires);
      CHECK(aside.rows == plain.rows);
      CHECK(aside.states == plain.states);
      CHECK(length(frame.back(aside.state.foot_C) - plain.state.foot_C) < 1e-4);
      CHECK(length(aside.state.up_C() - frame.vector({0, 1, 0})) < 1e-9);
    }
  }
}

TEST_CASE("Under a low roof nobody stands up, whatever way leads there") {
  // One begins under it, too tall: the capsule comes down to what there is room for.
  Driven d(roof(), {}, Home{Vec3(0, 0, 3)});
  d.play("c:0.3 cw:1.2 :0.3");
  CHECK(d.state.foot_C.z < 0.9);
  CHECK(d.now() == "Crouch");
  for (const char* steps : {"w:0.2 :0.2", "ws:0.2 :0.2", "J:0.6", "L:1 L:1", "wJ:0.3 :0.3"}) {
    INFO(steps);
    CHECK(d.play(steps).now() == "Crouch");
    CHECK(d.state.capsule_height < 1.3);
  }
}
