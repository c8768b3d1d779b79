// SPDX-License-Identifier: MIT
// Random drives over hostile places. Usage: lagniappe_soak [TICKS [PLACE]]: all places, or the one whose name
// begins so.
// For each place: how deep the capsule was ever inside a solid that it was not reported crushed by, what was
// not finite, how often it was stuck (five seconds of pushing about, and less than 5 cm from where they began;
// a run then goes on elsewhere), crushed ticks, and the slowest tick. Exits with 1 if anything was entered by
// more than the margin or was not finite.
#include <time.h>

#include <atomic>
#include <functional>
#include <string_view>
#include <thread>

#include "places.h"

using namespace lagniappe;
using namespace lagniappe::bench;

namespace {

// Of this thread alone: what else the machine does is no tick of ours.
double thread_seconds() {
  timespec now{};
  clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
  return double(now.tv_sec) + double(now.tv_nsec) * 1e-9;
}

class Random {
 public:
  explicit Random(std::uint64_t seed) : engine_(seed) {}
  double between(double low, double high) { return low + (high - low) * double(engine_() >> 11) * 0x1.0p-53; }
  int below(int count) { return int(engine_() % std::uint64_t(count)); }
  Vec3 point(double reach) { return {between(-reach, reach), between(-reach, reach), between(-reach, reach)}; }
  Vec3 direction() { return unit_or(point(1.0), Vec3(0, 1, 0)); }

 private:
  std::mt19937_64 engine_;
};

// A bowl with walls, so that nobody leaves; what is hostile is put in.
TriangleWorld arena(const std::vector<Triangle>& inside) {
  TriangleWorld::Builder builder;
  builder.begin_piece("bowl");
  const auto quad = [&](Vec3 a, Vec3 b, Vec3 c, Vec3 d) {
    builder.add({a, b, c});
    builder.add({a, c, d});
  };
  const double r = 12.0, h = 12.0;
  quad({-r, 0, -r}, {-r, 0, r}, {r, 0, r}, {r, 0, -r});
  quad({-r, 0, -r}, {r, 0, -r}, {r, h, -r}, {-r, h, -r});
  quad({-r, 0, r}, {-r, h, r}, {r, h, r}, {r, 0, r});
  quad({-r, 0, -r}, {-r, h, -r}, {-r, h, r}, {-r, 0, r});
  quad({r, 0, -r}, {r, 0, r}, {r, h, r}, {r, h, -r});
  builder.begin_piece("inside");
  Surface climbable;
  climbable.climbable = true;
  for (std::size_t i = 0; i < inside.size(); ++i) builder.add(inside[i], i % 3 == 0 ? Surface{} : climbable);
  return builder.commit();
}

std::vector<Triangle> soup(std::uint64_t seed, int count, double size, double thinnest) {
  Random random(seed);
  std::vector<Triangle> out;
  for (int i = 0; i < count; ++i) {
    const Vec3 at(random.between(-11, 11), random.between(0.0, 6.0), random.between(-11, 11));
    const double thin = random.below(4) == 0 ? thinnest : 1.0;
    const Triangle t{at, at + random.direction() * size, at + random.direction() * (size * thin)};
    out.push_back(t);
    // Doubles, and nearly coplanar neighbours.
    if (random.below(8) == 0) out.push_back(t);
    if (random.below(8) == 0) out.push_back({t.v0_C, t.v1_C, t.v2_C + random.point(1e-6)});
  }
  return out;
}

std::vector<Triangle> sheets(std::uint64_t seed) {
  Random random(seed);
  std::vector<Triangle> out;
  for (int i = 0; i < 60; ++i) {
    const Vec3 at(random.between(-10, 10), random.between(0.0, 3.0), random.between(-10, 10)),
        u = random.direction() * 2.5, v = random.direction() * 2.5;
    for (const double gap : {0.0, 0.001, 0.05}) {
      const Vec3 off = unit_or(cross(u, v), Vec3(0, 1, 0)) * gap;
      out.push_back({at + off, at + u + off, at + v + off});
    }
  }
  return out;
}

std::vector<Triangle> needles(std::uint64_t seed) {
  Random random(seed);
  std::vector<Triangle> out;
  for (int i = 0; i < 500; ++i) {
    const Vec3 at(random.between(-11, 11), random.between(-0.5, 3.0), random.between(-11, 11));
    out.push_back({at, at + random.direction() * random.between(0.5, 4.0), at + random.direction() * 0.01});
  }
  return out;
}

// Walls that lean by a hair or by a lot, back and over, and lifts between them that go down as fast as a fall.
Course leaning_walls_and_lifts(std::uint64_t seed) {
  Random random(seed);
  Course course;
  const auto block = [&](const std::string& id, const Vec3& at, const Vec3& size, const Vec3& turn) -> Piece& {
    Piece piece;
    piece.id = id;
    piece.at_C = at;
    piece.turn = turn;
    piece.shape = shape::Block{size};
    course.pieces.push_back(piece);
    return course.pieces.back();
  };
  course.surfaces.push_back({"ivy", {.climbable = true}});
  block("floor", {0, -1, 0}, {40, 1, 40}, {});
  constexpr double kLeans[] = {1e-7, 0.01, 1.0, 8.0, 30.0};
  for (int i = 0; i < 40; ++i) {
    const double lean = radians(kLeans[i % 5]) * (random.below(2) == 0 ? 1.0 : -1.0);
    block("wall " + std::to_string(i), {random.between(-11, 11), -0.2, random.between(-11, 11)},
          {random.between(1, 5), random.between(1, 6), 0.3}, {random.between(-kPi, kPi), 0.0, lean})
        .surface = i % 2 == 0 ? "ivy" : "";
  }
  for (int i = 0; i < 16; ++i) {
    Piece& lift = block("lift " + std::to_string(i), {random.between(-11, 11), 0.1, random.between(-11, 11)},
                        {2, 0.3, 2}, {random.between(-kPi, kPi), 0.0, 0.0});
    PieceMotion motion;
    motion.keys = {{0.0}, {0.4, {0, random.between(1, 5), 0}}, {0.8, {0, random.between(1, 5), 0}}, {1.0}};
    motion.period = random.between(1.0, 6.0);
    motion.phase = random.between(0.0, 1.0);
    lift.motion = motion;
  }
  return course;
}

struct Came {
  std::atomic<long> ticks{0}, not_finite{0}, stuck{0}, crushed{0}, held{0}, adrift{0};
  std::atomic<double> deepest{0.0}, slowest{0.0};
  static void raise(std::atomic<double>& to, double value) {
    double seen = to.load();
    while (value > seen && !to.compare_exchange_weak(seen, value)) {
    }
  }
};

double overlap(const CharacterState& state, const Profile& profile, const World& world) {
  std::array<WorldContact, 32> contacts;
  const Segment axis = capsule_axis(state, profile.capsule.radius);
  const std::size_t count = world.contacts(axis, profile.capsule.radius, contacts, {state.time});
  return count > 0 ? std::max(push_out_depth(contacts[0].closest, axis, profile.capsule.radius), 0.0) : 0.0;
}

// Whether it holds on to nothing: no wall at the gap, no rim where the hands are.
bool is_adrift(const CharacterState& state, const Profile& profile, const World& world) {
  constexpr double kNear = 0.002;  // m.
  constexpr double kHand = 0.04;   // m, the radius of a hand: a rim's point is where two planes meet, and
                                   // of jagged triangles that is beside them.
  const Hold& hold = state.hold;
  if (!state.holding() || hold.phase() < 1.0) return false;
  std::array<WorldContact, 1> found;
  if (hold.kind == Hold::Kind::Climb) {
    const auto ladder = world.ladder(hold.piece, {state.time});
    const double behind_front = ladder ? 0.5 * ladder->depth : 0.0;  // The nearest rung.
    const double reach = profile.capsule.radius + profile.climb.gap + behind_front + kNear;
    return world.contacts(capsule_axis(state, profile.capsule.radius), reach, found, {state.time}) == 0;
  }
  const RimHold rim = hold.rim();
  if (hold.kind != Hold::Kind::Hang || rim.gap_left > 0.0f || rim.gap_right > 0.0f) return false;
  // In an inner corner the hands go from one wall to the other.
  if (rim.inner > 0.5f && (rim.turn_left > 0.0f || rim.turn_right > 0.0f)) return false;
  const Vec3 at =
      world.moves(hold.piece) ? world.piece_frame(hold.piece, state.time).point(hold.at_P) : hold.at_P;
  return world.contacts({at, at}, kHand, found, {state.time}) == 0;
}

using Place = std::function<Home(Random&)>;  // Where one begins.

struct Asked {
  long ticks;              // In each place.
  std::string_view place;  // The beginning of its name; empty: all of them.
  std::uint64_t seed = 0;
};

void drive_at_random(const TriangleWorld& world, const Profile& profile, const Place& again, long ticks, int hz,
                     std::uint64_t seed, Came& came) {
  Random random(seed);
  Home home = again(random);
  CharacterState state = start_state(profile, home, world), five_ago = state;
  InputFrame held;
  int left = 0;
  for (long i = 0; i < ticks; ++i) {
    held.earlier = {};
    if (--left <= 0) {
      left = 1 + random.below(2 * hz);
      const SticksUntil before{held.move, held.turn_rate, float(random.between(0.0, 1.0))};
      held = {};
      held.earlier[0] = before;
      held.move = Vec2(random.between(-1, 1), random.between(-1, 1));
      held.turn_rate = Vec2(random.between(-4, 4), 0.0);
      held.held.set(Action::Sprint, random.below(2) == 0);
    }
    InputFrame input = held;
    input.pressed.set(Action::Jump, random.below(hz) == 0);
    input.pressed_at[0] = float(random.between(0.0, 1.0));
    input.pressed.set(Action::Climb, random.below(hz) == 0);
    input.pressed.set(Action::Crouch, random.below(6 * hz) == 0);
    const double begin = thread_seconds();
    state = step(state, input, profile, world, 1.0 / hz);
    Came::raise(came.slowest, thread_seconds() - begin);
    if (!is_finite(state.foot_C) || !is_finite(state.velocity_C)) {
      ++came.not_finite;
      state = start_state(profile, home, world, state.time);
    }
    came.crushed += state.crushed;
    came.held += state.holding();
    if (i % 4 == 1 && is_adrift(state, profile, world)) {
      ++came.adrift;
      const Vec3& at = state.foot_C;
      std::fprintf(stderr, "held on to nothing: drive %llu, %d ticks/s, tick %ld, foot at %.9g %.9g %.9g\n",
                   static_cast<unsigned long long>(seed), hz, i, at.x, at.y, at.z);
    }
    if (i % 4 == 0 && !state.crushed) Came::raise(came.deepest, overlap(state, profile, world));
    if (i % (5 * hz) == 0) {
      const bool stuck =
          i > 0 && !state.crushed && !state.holding() && length(state.foot_C - five_ago.foot_C) < 0.05;
      came.stuck += stuck;
      // Whoever is caught for good, in a cage of needles or between sheets, begins again elsewhere.
      if (stuck || (state.crushed && five_ago.crushed)) {
        home = again(random);
        state = start_state(profile, home, world, state.time);
      }
      five_ago = state;
    }
  }
  came.ticks += ticks;
}

bool soak(const char* name, const TriangleWorld& world, const Place& place, const Asked& asked) {
  if (!std::string_view(name).starts_with(asked.place)) return true;
  const long ticks = asked.ticks;
  // Half of the time one takes hold of whatever there is.
  const Profile plain;
  Profile clinging;
  clinging.hang.grasps = Values::Hang::Catch::Falling;
  clinging.climb.grip = Values::Climb::Grip::Always;
  Came came;
  const int threads = int(std::max(1u, std::thread::hardware_concurrency()));
  std::vector<std::thread> running;
  for (int t = 0; t < threads; ++t) {
    running.emplace_back([&, t] {
      constexpr int kRates[] = {30, 60, 144, 240};
      for (int part = 0; part < 4; ++part)
        drive_at_random(world, part % 2 == 0 ? plain : clinging, place, ticks / threads / 4, kRates[part],
                        asked.seed * 100'000 + std::uint64_t(1000 * t + part + 1), came);
    });
  }
  for (std::thread& thread : running) thread.join();
  std::printf("| %s | %ld | %.3g mm | %ld | %ld | %ld | %ld | %ld | %.0f us |\n", name, came.ticks.load(),
              came.deepest * 1e3, came.not_finite.load(), came.stuck.load(), came.crushed.load(),
              came.held.load(), came.adrift.load(), came.slowest * 1e6);
  std::fflush(stdout);
  return came.deepest <= plain.capsule.margin && came.not_finite == 0 && came.adrift == 0;
}

}  // namespace

int main(int argc, char** argv) {
  const long ticks = argc > 1 ? std::atol(argv[1]) : 100'000'000L;
  if (ticks < 1000) {
    std::puts("Usage: lagniappe_soak [TICKS [PLACE [SEED]]], at least 1000; other seeds make other drives");
    return 64;
  }
  const Asked asked{ticks / 5, argc > 2 ? argv[2] : "", argc > 3 ? std::uint64_t(std::atol(argv[3])) : 0};
  std::puts(
      "| place | ticks | worst overlap | not finite | stuck | ticks crushed | ticks held | held on to nothing "
      "| slowest tick "
      "|\n|---|---|---|---|---|---|---|---|---|");
  const auto at_marks = [](const Course& course) {
    return [homes = homes_of(course)](Random& random) {
      return homes[std::size_t(random.below(int(homes.size())))];
    };
  };
  const Course course = demo_course(), orrery = demo_course("orrery");
  bool fine = soak("demo course", build_world(course), at_marks(course), asked);
  fine &= soak("orrery", build_world(orrery), at_marks(orrery), asked);
  const Place above = [](Random& random) {
    return Home{Vec3(random.between(-10, 10), 9.0, random.between(-10, 10))};
  };
  fine &= soak("triangle soup, 0.8 m", arena(soup(1, 1500, 0.8, 0.01)), above, asked);
  fine &= soak("triangle soup, 3 m, slivers", arena(soup(2, 250, 3.0, 1e-4)), above, asked);
  fine &= soak("thin sheets, 1 mm and 5 cm apart", arena(sheets(3)), above, asked);
  fine &= soak("needles", arena(needles(4)), above, asked);
  fine &= soak("leaning walls, lifts", build_world(leaning_walls_and_lifts(5)), above, asked);
  if (!fine) std::puts("FAILED: something was entered by more than the margin, or was not finite.");
  return fine ? 0 : 1;
}
