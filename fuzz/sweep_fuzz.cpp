// SPDX-License-Identifier: MIT
// A capsule swept against one triangle, both from raw bytes: the hit lies in [0, 1], the capsule touches there,
// and nothing was entered before it, or at all if there was no hit.
#include <cstdio>
#include <cstdlib>
#include <cstring>

#include "lagniappe/capsule_queries.h"

using namespace lagniappe;

namespace {

// Sixteen-bit steps over [-4, 4] m: slivers, near-parallel and touching cases come up often.
double coordinate(const std::uint8_t*& data) {
  std::int16_t raw;
  std::memcpy(&raw, data, sizeof raw);
  data += sizeof raw;
  return raw / 8192.0;
}

void must(bool holds, const char* what) {
  if (holds) return;
  std::fprintf(stderr, "broken: %s\n", what);
  std::abort();
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  constexpr std::size_t kNumbers = 9 + 6 + 3 + 1;
  if (size < 2 * kNumbers) return 0;
  const auto point = [&] {
    const double x = coordinate(data), y = coordinate(data), z = coordinate(data);
    return Vec3(x, y, z);
  };
  const Triangle t{point(), point(), point()};
  const Segment axis{point(), point()};
  const Vec3 motion = point();
  const double radius = 0.05 + std::abs(coordinate(data)) * 0.2;
  const auto distance_at = [&](double f) { return closest(moved(axis, motion * f), t).distance; };
  const double start = distance_at(0.0);
  if (start <= radius + 1e-6) {
    const auto hit = sweep(axis, radius, motion, t);
    must(!hit || hit->fraction <= 1.0, "a touching start has no fraction above 1");
    return 0;
  }
  const auto hit = sweep(axis, radius, motion, t);
  const double end = hit ? hit->fraction : 1.0;
  must(end >= 0.0 && end <= 1.0, "the fraction lies in [0, 1]");
  if (hit) {
    must(std::abs(distance_at(end) - radius) < 1e-5, "the capsule touches where it is hit");
    must(std::abs(length(hit->normal_C) - 1.0) < 1e-9, "the normal is unit");
  }
  for (int i = 1; i < 16; ++i)
    must(distance_at(end * i / 16.0) > radius - 1e-6, "nothing is entered before the hit");
  return 0;
}
