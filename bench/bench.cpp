// SPDX-License-Identifier: MIT
// What is measured, on which places:
//   sweep        one walking-sized capsule sweep (1.2 m axis, 0.3 m radius, 0.1 m motion) near the ground
//   ray          one ray of 20 m
//   world_build  the whole commit of a world
//   step         one character tick: walking, turning, jumping now and then; without and with a ledger
// on the demo course, and on a rolling terrain of 100 k and 1 M triangles of the same size (a larger place).
//   retake, ghost 60 s of input run again; with the ledgers, examination and comparison that the window wants
//   take_save/load, run_an_hour  takes as bytes, and what an hour of one takes in memory
// Each workload checks its answers: hits are counted, and a run that meets nothing fails.
#include <benchmark/benchmark.h>

#include <map>
#include <memory>

#include "places.h"

namespace {

using namespace lagniappe;
using namespace lagniappe::bench;

enum Where : int { Demo = 0, Terrain100k = 1, Terrain1M = 2, Terrain10k = 3 };

struct Place {
  TriangleWorld world;
  Home home;
  double reach;  // Half the side of the square in which questions are asked.
};

Place make_place(int where) {
  if (where == Demo) {
    const Course course = demo_course();
    return {build_world(course), start_home(course), 30.0};
  }
  const int cells = where == Terrain10k ? 71 : where == Terrain100k ? 224 : 708;
  return {commit(terrain(cells)), {Vec3(0.3, 4.0, 0.4), Quat(1, 0, 0, 0), 0.0}, 0.45 * cells};
}

const Place& place(int where) {
  static std::map<int, std::unique_ptr<Place>> places;
  auto& p = places[where];
  if (!p) p = std::make_unique<Place>(make_place(where));
  return *p;
}

// The library also calls a benchmark for single rounds, to find out how many it needs; those prove nothing.
constexpr benchmark::IterationCount kEnoughToCheck = 5000;

void sweep_bench(benchmark::State& state) {
  const Place& p = place(int(state.range(0)));
  const std::vector<Vec3> foot = feet(p.world, p.reach, 4096);
  std::mt19937_64 engine(11);
  std::uniform_real_distribution<double> angle(0.0, 2.0 * kPi);
  std::vector<Vec3> motion;
  for (std::size_t i = 0; i < foot.size(); ++i) {
    const double a = angle(engine);
    motion.emplace_back(0.09 * std::cos(a), -0.04, 0.09 * std::sin(a));
  }
  std::size_t i = 0, hits = 0;
  for (auto _ : state) {
    const auto hit = p.world.sweep(capsule_axis(foot[i], Vec3(0, 1, 0), 0.3, 1.8), 0.3, motion[i]);
    hits += hit.has_value();
    benchmark::DoNotOptimize(hit);
    i = (i + 1) % foot.size();
  }
  if (hits == 0 && state.iterations() > kEnoughToCheck) state.SkipWithError("no sweep met anything");
  state.counters["hit_share"] = double(hits) / double(state.iterations());
}

void ray_bench(benchmark::State& state) {
  const Place& p = place(int(state.range(0)));
  const std::vector<Vec3> foot = feet(p.world, p.reach, 4096);
  std::size_t i = 0, hits = 0;
  for (auto _ : state) {
    const Vec3& to = foot[(i + 1) % foot.size()];
    const Vec3 from = foot[i] + Vec3(0, 1.6, 0);
    const auto hit = p.world.cast_ray(from, unit_or(to - from, Vec3(0, -1, 0)) * 20.0);
    hits += hit.has_value();
    benchmark::DoNotOptimize(hit);
    i = (i + 1) % foot.size();
  }
  if (hits == 0 && state.iterations() > kEnoughToCheck) state.SkipWithError("no ray met anything");
}

void world_build_bench(benchmark::State& state) {
  const std::vector<Triangle> triangles = terrain(state.range(0) == Terrain100k ? 224 : 708);
  std::size_t bytes = 0;
  for (auto _ : state) {
    const TriangleWorld world = commit(triangles);
    bytes = world.memory_bytes();
  }
  state.counters["triangles"] = double(triangles.size());
  state.counters["bytes_per_triangle"] = double(bytes) / double(triangles.size());
}

InputFrame wandering(std::uint64_t tick) {
  InputFrame input;
  input.move = Vec2(tick % 400 < 200 ? 0.4 : -0.3, 1.0);
  input.turn_rate = Vec2(std::sin(double(tick) * 0.01), 0.0);
  input.pressed.set(Action::Jump, tick % 90 == 0);
  return input;
}

void step_on(benchmark::State& state, bool with_ledger) {
  const Place& p = place(int(state.range(0)));
  const Profile profile;
  CharacterState character = start_state(profile, p.home);
  Ledger ledger;
  std::size_t grounded = 0;
  for (auto _ : state) {
    ledger.entries.clear();
    character = step(character, wandering(character.tick), profile, p.world, 1.0 / 60.0,
                     with_ledger ? &ledger : nullptr);
    grounded += character.grounded();
  }
  if (state.iterations() > kEnoughToCheck && grounded < std::size_t(state.iterations()) / 4)
    state.SkipWithError("the character was hardly ever on the ground");
  state.counters["ticks_per_second"] =
      benchmark::Counter(double(state.iterations()), benchmark::Counter::kIsRate);
}
void step_bench(benchmark::State& state) { step_on(state, false); }
void step_with_ledger_bench(benchmark::State& state) { step_on(state, true); }

// A retake: 60 s of input at 60 ticks/s on the demo course.
void retake_bench(benchmark::State& state) {
  const Place& p = place(Demo);
  const Profile profile;
  std::vector<InputFrame> inputs;
  for (std::uint64_t i = 0; i < 3600; ++i) inputs.push_back(wandering(i));
  for (auto _ : state) {
    const auto end = drive(start_state(profile, p.home), inputs, profile, p.world, 60,
                           [](const CharacterState&, const Ledger*) {});
    benchmark::DoNotOptimize(end);
  }
}

// A take of that many seconds at 60 ticks/s on the demo course.
const Take& take_of(int seconds) {
  static std::map<int, Take> takes;
  Take& take = takes[seconds];
  if (!take.inputs.empty()) return take;
  take.course = std::make_shared<const Course>(demo_course());
  take.start = start_state(take.profile, place(Demo).home, place(Demo).world);
  for (std::uint64_t i = 0; i < std::uint64_t(seconds) * 60; ++i) take.inputs.push_back(wandering(i));
  keep_hashes(*run_take(take, place(Demo).world), take);
  return take;
}

// All figures of a 60 s take: six tick rates, five draw rates, five ways to draw it, on two threads.
void timing_matrix_bench(benchmark::State& state) {
  const TimingSource source = source_of(take_of(60), place(Demo).world);
  const TimingAsk ask = whole_matrix();
  for (auto _ : state) benchmark::DoNotOptimize(timing_rows(source, ask, 2));
}

// What the window does while a value is changed: run, with a ledger for every tick and its examination, and
// compare.
void ghost_bench(benchmark::State& state) {
  const Take& take = take_of(60);
  const Run before = *run_take(take, place(Demo).world);
  Profile other = take.profile;
  other.jump.height = 1.3;
  for (auto _ : state) {
    const Take changed = retake_of(take, other, take.course, take.course_identity, place(Demo).world, 60);
    const Comparison found = compare(before, *run_take(changed, place(Demo).world));
    if (!found.parting) state.SkipWithError("another jump should have been seen");
  }
}

void take_save_bench(benchmark::State& state) {
  const Take& take = take_of(int(state.range(0)));
  std::size_t bytes = 0;
  for (auto _ : state) bytes = take_bytes(take).size();
  state.counters["megabytes"] = double(bytes) / 1e6;
}

void take_load_bench(benchmark::State& state) {
  const std::string bytes = take_bytes(take_of(int(state.range(0))));
  for (auto _ : state) {
    const auto take = parse_take(bytes, "bench");
    if (!take || take->inputs.size() != std::size_t(state.range(0)) * 60)
      state.SkipWithError("it did not read back");
  }
}

// An hour, as it is kept in memory while it is shown.
void hour_bench(benchmark::State& state) {
  const Take& take = take_of(3600);
  std::size_t bytes = 0;
  for (auto _ : state) {
    const Run run = *run_take(take, place(Demo).world);
    bytes = run.memory_bytes() + take.inputs.capacity() * sizeof(InputFrame) +
            take.hashes.capacity() * sizeof(PartHashes);
    if (first_difference(run, take)) state.SkipWithError("the hour does not run the same twice");
  }
  state.counters["megabytes"] = double(bytes) / 1e6;
}

BENCHMARK(sweep_bench)->Name("sweep")->ArgName("place")->Arg(Demo)->Arg(Terrain100k)->Arg(Terrain1M);
BENCHMARK(ray_bench)->Name("ray")->ArgName("place")->Arg(Demo)->Arg(Terrain100k)->Arg(Terrain1M);
BENCHMARK(world_build_bench)
    ->Name("world_build")
    ->ArgName("place")
    ->Arg(Terrain100k)
    ->Arg(Terrain1M)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(step_bench)
    ->Name("step")
    ->ArgName("place")
    ->Arg(Demo)
    ->Arg(Terrain10k)
    ->Arg(Terrain100k)
    ->Arg(Terrain1M);
BENCHMARK(step_with_ledger_bench)->Name("step_with_ledger")->ArgName("place")->Arg(Demo);
BENCHMARK(timing_matrix_bench)->Name("timing_matrix_60s")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(retake_bench)->Name("retake_60s")->Unit(benchmark::kMillisecond);
BENCHMARK(ghost_bench)->Name("ghost_60s")->Unit(benchmark::kMillisecond);
BENCHMARK(take_save_bench)
    ->Name("take_save")
    ->ArgName("seconds")
    ->Arg(600)
    ->Arg(3600)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(take_load_bench)
    ->Name("take_load")
    ->ArgName("seconds")
    ->Arg(600)
    ->Arg(3600)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(hour_bench)->Name("run_an_hour")->Iterations(1)->Unit(benchmark::kMillisecond);

}  // namespace

int main(int argc, char** argv) {
#ifndef NDEBUG
  std::puts("WARNING: built without optimisation; the figures mean nothing.");
#endif
  std::puts("places: 0 demo course, 1 terrain of 100 k triangles, 2 terrain of 1 M, 3 terrain of 10 k");
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 64;
  benchmark::RunSpecifiedBenchmarks();
}
