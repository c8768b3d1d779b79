// SPDX-License-Identifier: MIT
// What it costs to ask what pulls at a point: FieldSum::at() with 1 field and with 20 of all kinds, points all
// over the place.
#include <benchmark/benchmark.h>

#include <array>
#include <random>

#include "lagniappe/field.h"

namespace {

using namespace lagniappe;

FieldSum many(int count) {
  std::mt19937_64 random(1);
  const auto number = [&](double low, double high) {
    return low + (high - low) * double(random() >> 11) * 0x1.0p-53;
  };
  const FieldShape shapes[] = {field::Ball{4.0}, field::Pill{2.0, 5.0}, field::Ring{6.0, 1.5},
                               field::Slab{{8.0, 1.0, 8.0}}, field::Uniform{Vec3(10.0)}};
  std::vector<Field> fields;
  for (int i = 0; i < count; ++i) {
    Field field;
    field.shape = shapes[i % 5];
    field.falloff = Field::Falloff::InverseSquare;
    field.at_C = {number(-40, 40), number(-40, 40), number(-40, 40)};
    field.turn = {number(-3, 3), number(-1, 1), number(-3, 3)};
    field.reach = 30.0;
    field.fade = 10.0;
    fields.push_back(field);
  }
  return {fields, Vec3(0, -1, 0)};
}

void field_sum(benchmark::State& state) {
  const FieldSum sum = many(static_cast<int>(state.range(0)));
  std::array<Vec3, 64> points;
  std::mt19937_64 random(2);
  for (Vec3& p : points) {
    for (int axis = 0; axis < 3; ++axis) p[axis] = double(random() >> 11) * 0x1.0p-53 * 80.0 - 40.0;
  }
  std::size_t next = 0;
  for (auto _ : state) benchmark::DoNotOptimize(sum.at(points[next++ % points.size()]));
}

}  // namespace

BENCHMARK(field_sum)->ArgName("fields")->Arg(1)->Arg(20);
