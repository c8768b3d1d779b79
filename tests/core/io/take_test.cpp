// SPDX-License-Identifier: MIT
#include <unistd.h>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <sstream>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Take random_take(std::uint64_t seed) {
  Random random(seed);
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  Take take;
  take.start = run(standing_at(profile, random.point(3.0), 0.4, frames()[4]), profile, world, 60, 0.5,
                   [](double) { return push(0.3, 1); });
  take.tick_rate = 144;
  take.course_name = "Tidewheel pump works";
  take.profile_name = "Warden \"test\"";
  take.course_identity = identity_of(world);
  take.profile_identity = identity_of(profile);
  for (int i = 0; i < 200; ++i) {
    InputFrame input = push(random.between(-1, 1), random.between(-1, 1));
    input.held.bits = static_cast<std::uint32_t>(random.below(128));
    if (i % 3 == 0) input.look = Vec2(random.between(-3, 3), 0.1);
    for (int k = random.below(4); k >= 0; --k) take.inputs.push_back(input);
  }
  return take;
}

}  // namespace

TEST_CASE("A take reads back to the same run, bit for bit") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).world();
  for (std::uint64_t seed = 1; seed < 8; ++seed) {
    const Take take = random_take(seed);
    const auto back = parse_take(take_bytes(take), "x.take");
    REQUIRE(back);
    REQUIRE(back->inputs.size() == take.inputs.size());
    CHECK(back->tick_rate == 144);
    CHECK(back->profile_name == take.profile_name);
    CHECK(back->course_identity == take.course_identity);
    std::vector<CharacterState> a, b;
    drive(take.start, take.inputs, profile, world, 144,
          [&](const CharacterState& s, const Ledger*) { a.push_back(s); });
    drive(back->start, back->inputs, profile, world, 144,
          [&](const CharacterState& s, const Ledger*) { b.push_back(s); });
    CHECK(trace_csv(a, world, 144) == trace_csv(b, world, 144));
  }
}

TEST_CASE("A damaged take is refused with a sentence, wherever it is damaged") {
  const std::string whole = take_bytes(random_take(3));
  Random random(17);
  for (std::size_t n = 0; n < whole.size(); n += 1 + whole.size() / 97)
    CHECK_FALSE(parse_take(whole.substr(0, n), "x.take"));
  int accepted = 0;
  for (int i = 0; i < 500; ++i) {
    std::string damaged = whole;
    damaged[static_cast<std::size_t>(random.below(int(whole.size())))] ^= char(1 << random.below(8));
    const auto take = parse_take(damaged, "x.take");
    accepted += take.has_value();
    if (!take) CHECK_FALSE(take.error().what.empty());
  }
  CHECK(accepted == 0);
  CHECK_FALSE(parse_take(std::string(200000, '\x81'), "x.take"));  // Nested lists.
  CHECK_FALSE(parse_take("", "x.take"));
}

TEST_CASE("A trace reads back to the same numbers") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  std::vector<CharacterState> states = {standing_at(profile, {0.1, 0, 1.0 / 3.0})};
  run(
      states.front(), profile, world, 60, 1.0, [](double t) { return push(std::sin(t), 0.7); },
      [&](const CharacterState& s) { states.push_back(s); });
  std::istringstream csv(trace_csv(states, world, 60));
  std::string line;
  std::getline(csv, line);
  CHECK(std::count(line.begin(), line.end(), ',') == 21);
  for (const CharacterState& s : states) {
    REQUIRE(std::getline(csv, line));
    std::vector<std::string> cell(1);
    for (const char c : line) {
      if (c == ',') {
        cell.emplace_back();
      } else {
        cell.back().push_back(c);
      }
    }
    REQUIRE(cell.size() == 22);
    CHECK(std::stod(cell[3]) == s.foot_C.x);
    CHECK(std::stod(cell[5]) == s.foot_C.z);
    CHECK(std::stod(cell[8]) == s.velocity_C.z);
    CHECK(cell[2] == name_of(s.state));
    CHECK(cell[14] == (s.grounded() ? "1" : "0"));
  }
}

TEST_CASE("Writing replaces a file whole or leaves it as it was") {
  const std::string path = "/tmp/lagniappe-write-test-" + std::to_string(::getpid()) + ".txt";
  REQUIRE(write_file(path, "one"));
  REQUIRE(write_file(path, "two and more"));
  std::ifstream file(path);
  std::string text((std::istreambuf_iterator<char>(file)), {});
  CHECK(text == "two and more");
  CHECK_FALSE(write_file("/nowhere/at/all.txt", "x"));
  CHECK(write_file("/dev/null", "x"));
}
