// SPDX-License-Identifier: MIT
#include "world/neighbourhood.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "world/queries.h"

namespace lagniappe {
namespace {

// A relative error of single precision is 6e-8; over a neighbourhood of at most 100 m this is far more than it.
constexpr double kRoundOut = 1e-4;

}  // namespace

Neighbourhood::Neighbourhood(const World& whole, const Box& region, double time)
    : whole_(whole), region_(region), time_(time), moves_(whole.has_movers()), corner_C_(region.low_C) {
  const Vec3 size = region.size();
  if (!(std::max({size.x, size.y, size.z}) <= 100.0)) return;
  const auto count = whole.gather(region, time, faces());
  if (!count) return;
  gathered_ = true;
  count_ = *count;
  const std::size_t padded = (count_ + kLanes - 1) / kLanes * kLanes;
  for (int axis = 0; axis < 3; ++axis) {
    for (std::size_t i = 0; i < padded; ++i) {
      if (i >= count_) {
        low_[axis][i] = std::numeric_limits<float>::infinity();
        high_[axis][i] = -std::numeric_limits<float>::infinity();
        continue;
      }
      const Triangle& t = face(i).triangle;
      const double a = t.v0_C[axis], b = t.v1_C[axis], c = t.v2_C[axis];
      // Clamped: a large face reaches far beyond, where single precision would be coarse; only the part near
      // counts.
      const double low = std::clamp(std::min({a, b, c}) - corner_C_[axis], -200.0, 200.0);
      const double high = std::clamp(std::max({a, b, c}) - corner_C_[axis], -200.0, 200.0);
      low_[axis][i] = static_cast<float>(low - kRoundOut);
      high_[axis][i] = static_cast<float>(high + kRoundOut);
    }
  }
}

bool Neighbourhood::answers(const Box& region, const Moment& moment) const {
  const bool in_time = !moves_ || (!moment.still && moment.time == time_);
  return gathered_ && in_time && region_.contains(region.low_C) && region_.contains(region.high_C);
}

template <typename Query>
void Neighbourhood::ask(Query& query) const {
  float low[3], high[3];
  for (int axis = 0; axis < 3; ++axis) {
    low[axis] = static_cast<float>(query.region().low_C[axis] - corner_C_[axis] - kRoundOut);
    high[axis] = static_cast<float>(query.region().high_C[axis] - corner_C_[axis] + kRoundOut);
  }
  for (std::size_t first = 0; first < count_; first += kLanes) {
    // Written so that the compiler turns the lanes into vector instructions; comparisons are exact on any of
    // them.
    std::uint32_t apart[kLanes];
    for (std::size_t k = 0; k < kLanes; ++k) {
      const std::size_t i = first + k;
      apart[k] = std::uint32_t(low_[0][i] > high[0]) | std::uint32_t(high_[0][i] < low[0]) |
                 std::uint32_t(low_[1][i] > high[1]) | std::uint32_t(high_[1][i] < low[1]) |
                 std::uint32_t(low_[2][i] > high[2]) | std::uint32_t(high_[2][i] < low[2]);
    }
    const std::size_t end = std::min(first + kLanes, count_);
    for (std::size_t i = first; i < end; ++i) {
      if (!apart[i - first]) query.offer(face(i));
    }
  }
}

std::optional<WorldHit> Neighbourhood::sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                             const Moment& moment) const {
  SweepQuery query(axis, radius, motion_C, moment);
  if (!answers(query.region(), moment)) return whole_.sweep(axis, radius, motion_C, moment);
  ask(query);
  return covered(whole_, query.answer(), moment);
}

std::size_t Neighbourhood::contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                                    const Moment& moment) const {
  ContactQuery query(axis, radius, out, moment);
  if (!answers(query.region(), moment)) return whole_.contacts(axis, radius, out, moment);
  ask(query);
  return covered(whole_, out, query.answer(), moment);
}

std::optional<WorldRayHit> Neighbourhood::cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                                   const Moment& moment) const {
  RayQuery query(origin_C, motion_C, moment);
  if (!answers(query.region(), moment)) return whole_.cast_ray(origin_C, motion_C, moment);
  ask(query);
  return covered(whole_, query.answer(), moment);
}

}  // namespace lagniappe
