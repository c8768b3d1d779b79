// SPDX-License-Identifier: MIT
// What zones do to who moves through them, at any tick rate and turned any way. Oracles: closed forms, and the
// same scene on its side.
#include <catch2/catch.hpp>

#include "lagniappe/turns.h"
#include "support/driven.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Zone zone_of(const std::string& id, ZoneShape shape, const Vec3& at, ZoneEffect effect) {
  Zone zone;
  zone.id = id;
  zone.shape = std::move(shape);
  zone.at_C = at;
  zone.effect = std::move(effect);
  return zone;
}

const zone::Box kPad{Vec3(2.0, 0.05, 2.0)};

Course floor_with(std::vector<Zone> zones) {
  Course course;
  course.name = "Floor";
  course.pieces.push_back({"floor", Vec3(0, -1, 0), Vec3(0.0), "", shape::Block{Vec3(200, 1, 200)}});
  course.marks.push_back({"start", Vec3(0.0), 0.0});
  course.zones = std::move(zones);
  return course;
}

// The course turned as a whole, and pulled that way.
Course turned(const Course& course, const Vec3& turn, const Vec3& at) {
  const Quat rotation = rotation_of(turn);
  Course out = course;
  for (Piece& piece : out.pieces) piece.at_C = at + rotation * piece.at_C, piece.turn = turn;
  for (Zone& zone : out.zones) zone.at_C = at + rotation * zone.at_C, zone.turn = turn;
  for (Mark& mark : out.marks) {
    mark.at_C = at + rotation * mark.at_C;
    mark.up_C = rotation * Vec3(0, 1, 0);
    const Vec3 ahead = glm::conjugate(smallest_turn(Vec3(0, 1, 0), *mark.up_C)) * (rotation * Vec3(0, 0, -1));
    mark.facing = std::atan2(-ahead.x, -ahead.z);
  }
  Field pull;
  pull.id = "Down";
  pull.shape = field::Uniform{Vec3(2000.0), rotation * Vec3(0, -1, 0)};
  pull.at_C = at;
  out.fields = {pull};
  out.gravity = false;
  return out;
}

Driven driven(const Course& course, int hz, const Profile& profile = {}) {
  Driven d(build_world(course), profile, start_home(course));
  d.hz = hz;
  return d;
}

// The highest that the foot gets over where it began, by the speed and the gravity between ticks.
double highest(Driven& d, double seconds, const InputFrame& input) {
  const Vec3 from = d.state.foot_C, up = d.state.up_C();
  double most = 0.0;
  for (int i = 0; i < std::lround(seconds * d.hz); ++i) {
    d.go(1.0 / d.hz, input);
    const double rise = dot(d.state.velocity_C, up);
    const double left = rise > 0.0 && !d.state.grounded() ? rise * rise / (2.0 * d.profile.gravity) : 0.0;
    most = std::max(most, dot(d.state.foot_C - from, up) + left);
  }
  return most;
}

std::vector<LedgerEntry> entries_of(const Course& course, const Profile& profile, const InputFrame& input,
                                    int hz, double seconds) {
  const TriangleWorld world = build_world(course);
  CharacterState state = start_state(profile, start_home(course), world);
  std::vector<LedgerEntry> all;
  for (int i = 0; i < std::lround(seconds * hz); ++i) {
    Ledger ledger;
    const CharacterState before = state;
    state = step(state, input, profile, world, 1.0 / hz, &ledger);
    Vec3 changes(0.0);
    for (const LedgerEntry& e : ledger.entries) changes += velocity_change(e);
    CHECK(length(state.velocity_C - before.velocity_C - changes) < 1e-6);
    all.insert(all.end(), ledger.entries.begin(), ledger.entries.end());
  }
  return all;
}

template <typename Entry>
int count_of(const std::vector<LedgerEntry>& entries) {
  return static_cast<int>(std::count_if(entries.begin(), entries.end(),
                                        [](const LedgerEntry& e) { return std::holds_alternative<Entry>(e); }));
}

effect::Launch upwards(double speed) {
  effect::Launch launch;
  launch.velocity = {0, speed, 0};
  launch.sets_across = false;
  return launch;
}

}  // namespace

TEST_CASE("A pad throws to the same height at any tick rate, in rooms turned any way, and keeps the run") {
  const Course plain = floor_with({zone_of("Pad", kPad, {0, 0, -5}, upwards(10.0))});
  const std::vector<Course> rooms = {plain, turned(plain, {0.4, radians(90.0), 0.0}, {3, 40, -7}),
                                     turned(plain, {1.0, radians(180.0), 0.2}, {-1e4, 20, 1e4}),
                                     turned(plain, {0.3, 0.4, 0.5}, Vec3(0.0))};
  for (const Course& room : rooms) {
    for (const int hz : tick_rates()) {
      for (const double stick : {1.0, 0.37}) {
        Driven d = driven(room, hz);
        INFO(hz << " ticks/s, stick " << stick);
        const double most = highest(d, 4.0, push(0, stick));
        CHECK(most == Approx(100.0 / (2.0 * d.profile.gravity)).margin(1e-3));
        CHECK(d.states.count("Rise") == 1);
        // Straight over it: what was run is kept.
        CHECK(length(across(d.state.velocity_C, d.state.up_C())) > 0.2);
      }
    }
  }
}

TEST_CASE("Who falls back onto a pad is thrown from where he touches it, not from the floor below") {
  const Course course = floor_with({zone_of("Pad", kPad, {0, 0, 0}, upwards(10.0))});
  for (const int hz : tick_rates()) {
    const auto all = entries_of(course, Profile{}, InputFrame{}, hz, 3.5);
    std::vector<double> heights;
    for (const LedgerEntry& e : all) {
      if (const auto* thrown = std::get_if<entry::Thrown>(&e)) heights.push_back(thrown->from_C.y);
    }
    INFO(hz);
    REQUIRE(heights.size() >= 3);
    CHECK(heights[0] == Approx(0.0).margin(1e-9));
    for (std::size_t i = 1; i < heights.size(); ++i) CHECK(heights[i] == Approx(0.05).margin(1e-4));
  }
}

TEST_CASE("A pad of 5 cm is gone over without a bump where it does nothing") {
  const Course course = floor_with({zone_of("Pad", kPad, {0, 0, -5}, effect::Signal{})});
  const Course bare = floor_with({});
  for (const int hz : tick_rates()) {
    Driven with = driven(course, hz), without = driven(bare, hz);
    with.go(3.0, push(0, 1));
    without.go(3.0, push(0, 1));
    INFO(hz);
    CHECK(length(with.state.foot_C - without.state.foot_C) < 1e-6);
    CHECK(with.state.eye_offset == without.state.eye_offset);
  }
}

TEST_CASE("Zones are entered once and left once, also those passed within a tick and those begun in") {
  const zone::Box sheet{Vec3(4.0, 3.0, 1e-4)};
  const Course course = floor_with({zone_of("Here", zone::Ball{2.0}, {0, -1, 0}, effect::Signal{}),
                                    zone_of("Sheet", sheet, {0, 0, -9}, effect::Signal{}),
                                    zone_of("Second", sheet, {0, 0, -9.00005}, effect::Signal{})});
  Profile fast;
  fast.ground.speed = 60.0;
  fast.ground.response.model = Response::Model::Instant;
  for (const int hz : tick_rates()) {
    const auto all = entries_of(course, fast, push(0, 1), hz, 0.8);
    INFO(hz);
    CHECK(count_of<entry::ZoneEntered>(all) == 3);
    CHECK(count_of<entry::ZoneLeft>(all) == 3);
    std::vector<ZoneId> order;
    for (const LedgerEntry& e : all) {
      if (const auto* entered = std::get_if<entry::ZoneEntered>(&e)) order.push_back(entered->zone);
    }
    CHECK(order == std::vector<ZoneId>{0, 1, 2});
  }
}

TEST_CASE("Of more zones than are told apart the first ones count, and none is entered again and again") {
  std::vector<Zone> many;
  for (int i = 0; i < 12; ++i)
    many.push_back(zone_of("Z" + std::to_string(i), zone::Cylinder{3.0, 30.0}, Vec3(0.0),
                           i == 11 ? ZoneEffect(upwards(5.0)) : ZoneEffect(effect::Signal{})));
  const auto all = entries_of(floor_with(many), Profile{}, InputFrame{}, 60, 1.0);
  CHECK(count_of<entry::ZoneEntered>(all) == int(kMostZonesAtOnce));
  CHECK(count_of<entry::Thrown>(all) == 0);
}

TEST_CASE("A launch sets or adds in its frame: the zone's, the view's, the facing's or the course's") {
  using effect::Frame;
  effect::Launch launch;
  launch.velocity = {1.0, 6.0, 9.0};
  const double yaw = radians(-70.0), pitch = radians(30.0);
  const auto thrown = [&](const effect::Launch& how, const Vec3& turn) {
    Course course = floor_with({zone_of("Pad", zone::Box{Vec3(2.0)}, Vec3(0.0), how)});
    course.zones[0].turn = turn;
    const TriangleWorld world = build_world(course);
    CharacterState state = start_state(Profile{}, start_home(course), world);
    state.yaw = yaw;
    state.pitch = pitch;
    state.facing = radians(20.0);
    state.velocity_C = {0.5, 0.0, -0.25};
    Ledger ledger;
    step(state, InputFrame{}, Profile{}, world, 1e-4, &ledger);
    for (const LedgerEntry& e : ledger.entries) {
      if (const auto* t = std::get_if<entry::Thrown>(&e)) return t->velocity_C;
    }
    FAIL("not thrown");
    return Vec3(0.0);
  };
  const auto same = [](const Vec3& a, const Vec3& b) { return length(a - b) < 1e-9; };
  const Vec3 given(1.0, 6.0, -9.0), has(0.5, 0.0, -0.25), up(0, 1, 0);
  CHECK(same(thrown(launch, Vec3(0.0)), given));
  const Vec3 turn(0.3, 0.2, -0.1);
  CHECK(same(thrown(launch, turn), rotation_of(turn) * given));
  launch.frame = Frame::Course;
  CHECK(same(thrown(launch, turn), given));
  launch.sets_across = false;
  CHECK(same(thrown(launch, turn), given + has));
  launch.sets_up = false;
  launch.sets_across = true;
  CHECK(same(thrown(launch, turn), given));
  launch.sets_up = true;
  launch.frame = Frame::View;
  CHECK(same(thrown(launch, turn), glm::angleAxis(yaw, up) * given));
  launch.pitch = true;
  CHECK(same(thrown(launch, turn), glm::angleAxis(yaw, up) * (glm::angleAxis(pitch, Vec3(1, 0, 0)) * given)));
  launch.frame = Frame::Facing;
  CHECK(same(thrown(launch, turn), glm::angleAxis(radians(20.0), up) * given));
}

TEST_CASE("A throw to a mark lands on it, at any tick rate and whatever the stick says") {
  effect::Launch launch;
  launch.to = "shelf";
  launch.apex = 1.5;
  Course plain = floor_with({zone_of("Pad", kPad, {0, 0, -2}, launch)});
  plain.pieces.push_back({"tower", Vec3(4, 0, -20), Vec3(0.0), "", shape::Block{Vec3(6, 5, 6)}});
  plain.marks.push_back({"shelf", Vec3(4, 5, -20), 0.0});
  for (const Course& room : {plain, turned(plain, {0.2, radians(80.0), 0.7}, {10, 20, 30})}) {
    for (const double factor : {1.0, 1.8}) {
      for (const int hz : tick_rates()) {
        Profile profile;
        profile.jump.fall_factor = factor;
        profile.terminal_speed = 7.0;
        Driven d = driven(room, hz, profile);
        INFO(hz << " ticks/s, falls at " << factor);
        d.go(1.0, push(0, 1));
        REQUIRE(d.state.zones.aimed);
        for (int i = 0; i < 5 * hz && !d.state.grounded(); ++i) d.go(1.0 / hz, push(-1, 0.5));
        // What the tick of the landing still went.
        CHECK(length(d.state.foot_C - room.marks[1].at_C) < 0.05 + 10.0 / hz);
        CHECK_FALSE(d.state.zones.aimed);
      }
    }
  }
}

TEST_CASE("A launch fires once until it is left, or again after its time, however the ticks fall") {
  effect::Launch launch = upwards(3.0);
  const auto throws = [](const Course& course, int hz, double seconds) {
    return count_of<entry::Thrown>(entries_of(course, Profile{}, InputFrame{}, hz, seconds));
  };
  // A column that one does not leave by the throw.
  Course course = floor_with({zone_of("Column", zone::Cylinder{2.0, 20.0}, Vec3(0.0), launch)});
  for (const int hz : tick_rates()) CHECK(throws(course, hz, 4.0) == 1);
  std::get<effect::Launch>(course.zones[0].effect).again_after = 0.7;
  for (const int hz : tick_rates()) CHECK(throws(course, hz, 4.0) == 6);  // At 0, 0.7 ... 3.5 s.
  // One that one does leave, and falls back onto.
  Course pad = floor_with({zone_of("Pad", kPad, Vec3(0.0), launch)});
  const double flight = 2.0 * 3.0 / Profile{}.gravity;
  for (const int hz : tick_rates()) CHECK(throws(pad, hz, 3.0) == Approx(3.0 / flight).margin(1.0));
}

TEST_CASE("Who hangs, climbs or flies is left alone, told so, and thrown once he lets go") {
  Course course = floor_with({zone_of("Column", zone::Cylinder{3.0, 20.0}, Vec3(0.0), upwards(8.0))});
  const TriangleWorld world = build_world(course);
  Profile profile;
  CharacterState state = start_state(profile, start_home(course), world);
  state.state = StateId::Fly;
  Ledger ledger;
  state = step(state, InputFrame{}, profile, world, 1.0 / 60, &ledger);
  CHECK(count_of<entry::ThrowWaits>(ledger.entries) == 1);
  CHECK(count_of<entry::Thrown>(ledger.entries) == 0);
  state.state = StateId::Fall;
  ledger.entries.clear();
  state = step(state, InputFrame{}, profile, world, 1.0 / 60, &ledger);
  CHECK(count_of<entry::Thrown>(ledger.entries) == 1);
  CHECK(state.velocity_C.y > 7.0);
}

TEST_CASE("A launch that is due again and waits for who flies does not cut the tick to pieces") {
  effect::Launch launch = upwards(3.0);
  launch.again_after = 0.5;
  const TriangleWorld world =
      build_world(floor_with({zone_of("Column", zone::Cylinder{3.0, 20.0}, Vec3(0.0), launch)}));
  const Profile profile;
  CharacterState state = start_state(profile, Home{}, world);
  state = step(state, InputFrame{}, profile, world, 1.0 / 60);
  REQUIRE(state.zones.has_thrown(0));
  state.state = StateId::Fly;
  for (int i = 0; i < 90; ++i) {
    Ledger ledger;
    state = step(state, InputFrame{}, profile, world, 1.0 / 60, &ledger);
    CHECK(ledger.entries.size() < 40);
    CHECK(count_of<entry::Thrown>(ledger.entries) == 0);
  }
  REQUIRE(state.zones.since_throw > 1.0f);
  state.state = StateId::Fall;
  Ledger ledger;
  step(state, InputFrame{}, profile, world, 1.0 / 60, &ledger);
  CHECK(count_of<entry::Thrown>(ledger.entries) == 1);
}

TEST_CASE("Who is barred from skidding, flying or holding on falls; nobody is put into free flight") {
  for (const auto& [name, is] : {std::pair{"Skid", StateId::Skid}, std::pair{"Fly", StateId::Fly},
                                 std::pair{"Hang", StateId::Hang}, std::pair{"Float", StateId::Float}}) {
    effect::Barred barred;
    barred.states = {name, "Soar"};  // Which flies, too.
    const TriangleWorld world =
        build_world(floor_with({zone_of("Hall", zone::Cylinder{3.0, 40.0}, Vec3(0.0), barred)}));
    const Profile profile;
    CharacterState state = start_state(profile, Home{Vec3(0, 10, 0)}, world);
    state.state = is;
    state = step(state, InputFrame{}, profile, world, 1.0 / 60);
    INFO(name);
    CHECK(state.state == StateId::Fall);
  }
}

TEST_CASE("Pace, surfaces and barred states hold from where the zone is touched to where it is left") {
  effect::Barred barred;
  barred.states = {"Sprint", "Rise"};
  Course course =
      floor_with({zone_of("Mud", zone::Box{Vec3(4, 1, 4)}, {0, 0, -10}, effect::Pace{0.5}),
                  zone_of("Slick", zone::Box{Vec3(4, 1, 4)}, {0, 0, -30}, effect::SurfaceOver{"ice"}),
                  zone_of("Hall", zone::Box{Vec3(4, 3, 4)}, {0, 0, -50}, barred)});
  Surface ice;
  ice.friction = 0.1;
  course.surfaces.push_back({"ice", ice});
  Profile quick;
  quick.ground.response.model = Response::Model::Instant;
  quick.ground.sprint_speed = 6.0;
  std::optional<double> first;
  for (const int hz : tick_rates()) {
    Driven d = driven(course, hz, quick);
    double slowest = 1e9;
    std::set<std::string> inside;
    for (int i = 0; i < 12 * hz && d.state.foot_C.z > -60.0; ++i) {
      d.go(1.0 / hz, held({Action::Sprint}, 0, 1), i == 9 * hz ? Buttons{1u} : Buttons{});
      const double z = -d.state.foot_C.z;
      if (z > 9.0 && z < 11.0) slowest = std::min(slowest, length(d.state.velocity_C));
      if (z > 28.0 && z < 32.0) CHECK(d.state.ground.surface.friction == 0.1);
      if (z > 48.5 && z < 51.5) inside.insert(d.now());
    }
    INFO(hz);
    CHECK(slowest == Approx(3.0));
    CHECK(inside == std::set<std::string>{"Walk"});
    CHECK(d.now() == "Sprint");
  }
}

TEST_CASE("A jump that a zone bars is refused and told, and the stick goes on") {
  effect::Barred barred;
  barred.states = {"Rise"};
  const Course course = floor_with({zone_of("Hall", zone::Box{Vec3(40, 3, 40)}, Vec3(0.0), barred)});
  Driven d = driven(course, 60);
  d.go(0.5, push(0, 1)).tap(Action::Jump, push(0, 1)).go(0.5, push(0, 1));
  CHECK(d.states.count("Rise") == 0);
  CHECK(d.state.foot_C.y == Approx(0.0).margin(1e-9));
  CHECK(tells(d, "Rise is not entered: barred in \u201cHall\u201d"));
}

TEST_CASE("A checkpoint moves the home, and a zone that puts home puts there") {
  Course course = floor_with({zone_of("Check", zone::Box{Vec3(2, 2, 2)}, {0, 0, -5}, effect::Checkpoint{}),
                              zone_of("Water", zone::Box{Vec3(20, 1, 1)}, {0, 0, -12}, effect::SendHome{})});
  course.zones[0].turn = {radians(90.0), 0.0, 0.0};
  for (const int hz : tick_rates()) {
    Driven d = driven(course, hz);
    int ticks = 0;
    while (d.state.times_put_home == 0 && ++ticks < 10 * hz) d.go(1.0 / hz, push(0, 1));
    INFO(hz);
    CHECK(d.state.times_put_home == 1);
    CHECK(length(d.state.foot_C - Vec3(0, 0, -5)) < 1e-9);
    CHECK(d.state.yaw == Approx(radians(90.0)));
    CHECK(d.state.grounded());
    d.go(0.5, InputFrame{});
    CHECK(length(d.state.foot_C - Vec3(0, 0, -5)) < 1e-9);
  }
}

TEST_CASE("Zones go along with pieces that move and turn, and are met where they are then") {
  Course course = floor_with({zone_of("Column", zone::Box{Vec3(1, 2, 1)}, {20, 0, 0}, effect::Signal{})});
  PieceMotion motion;
  motion.keys = {{0.0, Vec3(0.0), Vec3(0.0)}, {0.5, Vec3(-40, 0, 0), Vec3(0.0)}};
  motion.period = 2.0;
  course.pieces.push_back({"cart", Vec3(20, -30, 0), Vec3(0.0), "", shape::Block{Vec3(1)}, motion});
  course.zones[0].on = "cart";
  for (const int hz : tick_rates()) {
    const auto all = entries_of(course, Profile{}, InputFrame{}, hz, 4.0);
    INFO(hz);
    CHECK(count_of<entry::ZoneEntered>(all) == 4);  // There and back, twice.
    CHECK(count_of<entry::ZoneLeft>(all) == 4);
  }
}

TEST_CASE("A throw from a lift adds what the lift has") {
  Course course = floor_with({zone_of("Pad", zone::Box{Vec3(1)}, {0, 0, 0}, upwards(5.0))});
  PieceMotion motion;
  motion.keys = {{0.0, Vec3(0.0), Vec3(0.0), PieceMotion::Ease::Even},
                 {0.999, Vec3(0, 29.97, 0), Vec3(0.0), PieceMotion::Ease::Even}};
  motion.period = 10.0;
  course.pieces[0] = {"lift", Vec3(0, -1, 0), Vec3(0.0), "", shape::Block{Vec3(4, 1, 4)}, motion};
  course.zones[0].on = "lift";
  const auto all = entries_of(course, Profile{}, InputFrame{}, 60, 0.2);
  const auto found = std::find_if(
      all.begin(), all.end(), [](const LedgerEntry& e) { return std::holds_alternative<entry::Thrown>(e); });
  REQUIRE(found != all.end());
  CHECK(std::get<entry::Thrown>(*found).velocity_C.y == Approx(8.0).margin(1e-6));
}

TEST_CASE("Tables and scripts ask for zones by name") {
  Course course = floor_with({zone_of("Vent", zone::Box{Vec3(2, 1, 2)}, {0, 0, -4}, effect::Signal{})});
  Profile profile;
  StateTable table = built_in_states();
  table.transitions.push_back({});
  TransitionSpec& row = table.transitions.back();
  row.from = "Walk";
  row.to = "Crouch";
  row.priority = 200;
  row.guard = "entered(\"Vent\") and in_zone('Vent') and not in_zone(\"Nowhere\")";
  const auto plain = StateChart::make(table);
  row.guard = "in_zone('Ven' .. 't') and entered('Vent')";
  const auto scripted = StateChart::make(table);
  REQUIRE(plain);
  REQUIRE(scripted);
  for (const auto& chart : {*plain, *scripted}) {
    profile.states = chart;
    Driven d = driven(course, 60, profile);
    d.go(1.0, push(0, 1));
    CHECK(d.states.count("Crouch") == 1);
    CHECK(d.rows.count(table.transitions.size() - 1) == 1);
  }
}

TEST_CASE("Belts carry along their face, and let one go with their speed") {
  Course course = floor_with({});
  course.pieces.push_back({"belt", Vec3(0, -0.9, -10), Vec3(0.0), "", shape::Block{Vec3(4, 0.9, 20)}});
  course.pieces.back().drift = {0, 0, -2};
  course.pieces[0].at_C.y = -2.0;
  for (const Course& room : {course, turned(course, {0.5, radians(100.0), 0.1}, {1, 2, 3})}) {
    for (const int hz : tick_rates()) {
      Course begins = room;
      begins.marks[0].at_C = room.pieces[1].at_C + (rotation_of(room.pieces[1].turn) * Vec3(0, 0.9, 8));
      Driven d = driven(begins, hz);
      const Vec3 from = d.state.foot_C;
      d.go(3.0, InputFrame{});
      INFO(hz);
      CHECK(length(d.state.foot_C - from) == Approx(6.0).margin(1e-6));
      CHECK(length(d.state.velocity_C) == Approx(2.0));
      CHECK(d.now() == "Stand");
      d.go(0.5, push(0, -1));  // Against it.
      d.go(2.0, push(0, -1));
      CHECK(length(d.state.velocity_C) == Approx(d.profile.ground.speed - 2.0).margin(1e-6));
      d.tap(Action::Jump);
      CHECK(length(across(d.state.velocity_C, d.state.up_C())) > d.profile.ground.speed - 3.0);
    }
  }
}

TEST_CASE("Who walks into an up-draught leaves the ground at the same place at any tick rate") {
  Profile profile;
  effect::Wind wind;
  wind.velocity = {0, 2.0 * profile.gravity * profile.air.wind_time / profile.air.wind_share, 0};
  wind.fade = 1.5;
  const Course course = floor_with({zone_of("Fan", zone::Cylinder{3.0, 12.0}, {0, 0, -6}, wind)});
  std::optional<Vec3> first;
  for (const int hz : tick_rates()) {
    Driven d = driven(course, hz, profile);
    d.go(3.0, push(0, 0.5));
    INFO(hz << " ticks/s, at " << d.state.foot_C.y << ", " << d.state.foot_C.z);
    REQUIRE_FALSE(d.state.grounded());
    if (!first) first = d.state.foot_C;
    CHECK(length(d.state.foot_C - *first) < 0.02);
  }
}

TEST_CASE("An up-draught that is stronger than gravity lifts off the ground, and carries to its top") {
  Profile profile;
  effect::Wind wind;
  wind.velocity = {0, 1.2 * profile.gravity * profile.air.wind_time / profile.air.wind_share, 0};
  const Course course = floor_with({zone_of("Fan", zone::Cylinder{2.0, 8.0}, Vec3(0.0), wind)});
  effect::Wind weak = wind;
  weak.velocity.y *= 0.75;
  const Course calm = floor_with({zone_of("Fan", zone::Cylinder{2.0, 8.0}, Vec3(0.0), weak)});
  for (const int hz : tick_rates()) {
    Driven d = driven(course, hz, profile);
    d.go(1.0, InputFrame{});
    INFO(hz);
    // Towards the speed at which the air holds gravity.
    const double tends = 0.2 * profile.gravity * profile.air.wind_time;
    const double share = 1.0 - std::exp(-1.0 / profile.air.wind_time);
    CHECK(d.state.foot_C.y == Approx(tends * (1.0 - profile.air.wind_time * share)).margin(0.01));
    d.go(40.0, InputFrame{});
    CHECK(d.state.foot_C.y + 0.5 * profile.capsule.height == Approx(8.0).margin(0.5));
    Driven stays = driven(calm, hz, profile);
    stays.go(1.0, InputFrame{});
    CHECK(stays.now() == "Stand");
  }
}
