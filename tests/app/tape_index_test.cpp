// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/tape_index.h"

#include <catch2/catch.hpp>
#include <random>

#include "support/places.h"

using namespace lagniappe;
using namespace lagniappe::app;

TEST_CASE("The pyramid's bounds are those of a plain search, over any stretch") {
  std::mt19937 random(7);
  std::vector<float> values;
  MinMaxPyramid pyramid;
  for (int i = 0; i < 5000; ++i) {
    values.push_back(float(random() % 100000) / 7.0f - 5000.0f);
    pyramid.add(values.back());
  }
  REQUIRE(pyramid.size() == values.size());
  for (int i = 0; i < 3000; ++i) {
    std::size_t a = random() % values.size(), b = random() % values.size();
    if (a > b) std::swap(a, b);
    const auto [low, high] = std::minmax_element(values.begin() + long(a), values.begin() + long(b) + 1);
    const MinMaxPyramid::Bounds bounds = pyramid.bounds(a, b);
    REQUIRE(bounds.low == *low);
    REQUIRE(bounds.high == *high);
  }
}

TEST_CASE("The index gathered while driving is the one gathered afterwards") {
  DriveSession session;
  session.set_place(test::floor_with());
  TapeIndex live;
  for (int i = 0; i < 400; ++i) {
    session.push(DriveSession::Push::Forward, i % 90 < 60);
    session.hold(Action::Jump, i % 120 == 50);
    session.hold(Action::Sprint, i % 200 > 120);
    session.advance(1.0 / 60);
    live.update(session.shown(), session.revision());
  }
  TapeIndex after;
  after.update(session.shown(), session.revision());
  REQUIRE(live.ticks() == session.shown().run.ticks());
  REQUIRE(live.states().size() == after.states().size());
  for (std::size_t i = 0; i < live.states().size(); ++i)
    CHECK(live.states()[i].ticks == after.states()[i].ticks);
  for (std::size_t e = 0; e < kEventNames.size(); ++e)
    CHECK(live.stretches(static_cast<Event>(e)) == after.stretches(static_cast<Event>(e)));
  CHECK(live.held(Action::Sprint) == after.held(Action::Sprint));
  CHECK(live.presses(Action::Jump).size() == after.presses(Action::Jump).size());
  // Every tick with the event is in a stretch, and no other is.
  std::size_t on_ground = 0, gathered = 0;
  for (std::size_t t = 1; t <= live.ticks(); ++t)
    on_ground += session.shown().run.events(t).has(Event::OnGround);
  for (const Stretch& s : live.stretches(Event::OnGround)) gathered += s.last - s.first + 1;
  CHECK(gathered == on_ground);
}
