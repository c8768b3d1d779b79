// SPDX-License-Identifier: MIT
// Our sweep beside Embree and FCL, on the same triangles and the same places, as ratios within one run:
//   closest point   Embree's nearest triangle within 0.6 m of the middle of the lower ball, with an exact
//   callback swept box       FCL's collision of the box around the sweep with the mesh, then our exact sweep of
//   what it found tick            six sweeps and two contact questions: ours on one gathering, against six
//   sweeps' and two
//                   contacts' worth of Embree's closest points, with our exact kernel on the triangles they
//                   name
// The peer is timed before and after ours; the ratio is to the mean of both.
#include <embree3/rtcore.h>
#include <fcl/fcl.h>

#include <algorithm>
#include <chrono>
#include <functional>
#include <memory>

#include "places.h"
#include "world/neighbourhood.h"

using namespace lagniappe;
using namespace lagniappe::bench;

namespace {

constexpr double kRadius = 0.3, kHeight = 1.8, kReach = 0.6;
constexpr int kPlaces = 4096, kRounds = 7;
volatile double sink = 0.0;

// Median nanoseconds of one call over all places.
double timed(int places, const std::function<void(int)>& call) {
  std::vector<double> rounds;
  for (int round = 0; round < kRounds; ++round) {
    const auto begin = std::chrono::steady_clock::now();
    for (int i = 0; i < places; ++i) call(i);
    const std::chrono::duration<double, std::nano> took = std::chrono::steady_clock::now() - begin;
    rounds.push_back(took.count() / places);
  }
  std::nth_element(rounds.begin(), rounds.begin() + kRounds / 2, rounds.end());
  return rounds[kRounds / 2];
}

Vec3 nearest_on(const Triangle& t, const Vec3& p) {
  const Vec3 ab = t.v1_C - t.v0_C, ac = t.v2_C - t.v0_C, ap = p - t.v0_C;
  const double d1 = dot(ab, ap), d2 = dot(ac, ap);
  if (d1 <= 0 && d2 <= 0) return t.v0_C;
  const Vec3 bp = p - t.v1_C;
  const double d3 = dot(ab, bp), d4 = dot(ac, bp);
  if (d3 >= 0 && d4 <= d3) return t.v1_C;
  const double vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return t.v0_C + ab * (d1 / (d1 - d3));
  const Vec3 cp = p - t.v2_C;
  const double d5 = dot(ab, cp), d6 = dot(ac, cp);
  if (d6 >= 0 && d5 <= d6) return t.v2_C;
  const double vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return t.v0_C + ac * (d2 / (d2 - d6));
  const double va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0)
    return t.v1_C + (t.v2_C - t.v1_C) * ((d4 - d3) / ((d4 - d3) + (d5 - d6)));
  return t.v0_C + ab * (vb / (va + vb + vc)) + ac * (vc / (va + vb + vc));
}

class EmbreePeer {
 public:
  EmbreePeer(const std::vector<Triangle>& triangles, int threads)
      : triangles_(triangles),
        device_(rtcNewDevice(("threads=" + std::to_string(threads)).c_str())),
        scene_(rtcNewScene(device_)) {
    RTCGeometry mesh = rtcNewGeometry(device_, RTC_GEOMETRY_TYPE_TRIANGLE);
    auto* v = static_cast<float*>(rtcSetNewGeometryBuffer(mesh, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3,
                                                          3 * sizeof(float), 3 * triangles.size()));
    auto* index = static_cast<unsigned*>(rtcSetNewGeometryBuffer(
        mesh, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 3 * sizeof(unsigned), triangles.size()));
    for (std::size_t i = 0; i < triangles.size(); ++i) {
      for (const Vec3& p : {triangles[i].v0_C, triangles[i].v1_C, triangles[i].v2_C}) {
        for (int k = 0; k < 3; ++k) *v++ = static_cast<float>(p[k]);
      }
      for (unsigned k = 0; k < 3; ++k) *index++ = static_cast<unsigned>(3 * i + k);
    }
    rtcCommitGeometry(mesh);
    rtcAttachGeometry(scene_, mesh);
    rtcReleaseGeometry(mesh);
    rtcSetSceneBuildQuality(scene_, RTC_BUILD_QUALITY_MEDIUM);
    const auto begin = std::chrono::steady_clock::now();
    rtcCommitScene(scene_);
    build_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  }
  ~EmbreePeer() {
    rtcReleaseScene(scene_);
    rtcReleaseDevice(device_);
  }
  double build_ms = 0.0;

  // The nearest triangle within kReach of the point.
  unsigned nearest(const Vec3& p) const {
    RTCPointQuery query;
    query.x = float(p.x);
    query.y = float(p.y);
    query.z = float(p.z);
    query.radius = float(kReach);
    query.time = 0.0f;
    RTCPointQueryContext context;
    rtcInitPointQueryContext(&context);
    Found found{this, p, RTC_INVALID_GEOMETRY_ID};
    rtcPointQuery(scene_, &query, &context, &EmbreePeer::consider, &found);
    return found.triangle;
  }

 private:
  struct Found {
    const EmbreePeer* peer;
    Vec3 p;
    unsigned triangle;
  };
  static bool consider(RTCPointQueryFunctionArguments* args) {
    auto* found = static_cast<Found*>(args->userPtr);
    const double d = length(nearest_on(found->peer->triangles_[args->primID], found->p) - found->p);
    if (d >= args->query->radius) return false;
    args->query->radius = float(d);
    found->triangle = args->primID;
    return true;
  }
  const std::vector<Triangle>& triangles_;
  RTCDevice device_;
  RTCScene scene_;
};

std::unique_ptr<fcl::CollisionObjectd> fcl_mesh(const std::vector<Triangle>& triangles) {
  auto model = std::make_shared<fcl::BVHModel<fcl::OBBRSSd>>();
  model->beginModel();
  for (const Triangle& t : triangles) {
    const auto v = [](const Vec3& p) { return fcl::Vector3d(p.x, p.y, p.z); };
    model->addTriangle(v(t.v0_C), v(t.v1_C), v(t.v2_C));
  }
  model->endModel();
  return std::make_unique<fcl::CollisionObjectd>(model);
}

void compare(const char* name, const std::vector<Triangle>& triangles, double reach) {
  const auto build_begin = std::chrono::steady_clock::now();
  const TriangleWorld world = commit(triangles);
  const double build_ms =
      std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - build_begin).count();
  const EmbreePeer embree(triangles, 1);
  const auto mesh = fcl_mesh(triangles);
  const std::vector<Vec3> foot = feet(world, reach, kPlaces);
  std::mt19937_64 engine(11);
  std::uniform_real_distribution<double> angle(0.0, 2.0 * kPi);
  std::vector<Vec3> motion;
  for (int i = 0; i < kPlaces; ++i) {
    const double a = angle(engine);
    motion.emplace_back(0.09 * std::cos(a), -0.04, 0.09 * std::sin(a));
  }
  const auto axis = [&](int i) { return capsule_axis(foot[std::size_t(i)], Vec3(0, 1, 0), kRadius, kHeight); };
  int hits = 0;
  const auto ours = [&](int i) { hits += world.sweep(axis(i), kRadius, motion[std::size_t(i)]).has_value(); };
  const auto closest_point = [&](int i) {
    sink = sink + embree.nearest(foot[std::size_t(i)] + Vec3(0, kRadius, 0));
  };
  const auto around_sweep = [&](int i) {
    Box box = bounds(axis(i));
    box.join(bounds(moved(axis(i), motion[std::size_t(i)])));
    return box.grown(kRadius);
  };
  const auto fcl_sweep = [&](int i) {
    const Box box = around_sweep(i);
    const Vec3 c = box.centre(), s = box.size();
    fcl::CollisionObjectd query(std::make_shared<fcl::Boxd>(s.x, s.y, s.z), fcl::Matrix3d::Identity(),
                                fcl::Vector3d(c.x, c.y, c.z));
    fcl::CollisionRequestd request(256, false);
    fcl::CollisionResultd result;
    fcl::collide(mesh.get(), &query, request, result);
    double first = 2.0;
    for (std::size_t k = 0; k < result.numContacts(); ++k) {
      const auto hit =
          sweep(axis(i), kRadius, motion[std::size_t(i)], triangles[std::size_t(result.getContact(k).b1)]);
      if (hit) first = std::min(first, hit->fraction);
    }
    sink = sink + first;
  };
  std::array<WorldContact, 24> contacts;
  const auto our_tick = [&](int i) {
    const Neighbourhood near(world, around_sweep(i).grown(0.35), 0.0);
    for (int k = 0; k < 6; ++k)
      hits += near.sweep(axis(i), kRadius, motion[std::size_t(i + k) % kPlaces], {}).has_value();
    for (int k = 0; k < 2; ++k) sink = sink + double(near.contacts(axis(i), kRadius, contacts, {}));
  };
  const auto embree_tick = [&](int i) {
    for (int k = 0; k < 8; ++k) {
      const unsigned triangle = embree.nearest(foot[std::size_t(i)] + Vec3(0, kRadius + 0.01 * k, 0));
      if (triangle == RTC_INVALID_GEOMETRY_ID) continue;
      hits += sweep(axis(i), kRadius, motion[std::size_t(i + k) % kPlaces], triangles[triangle]).has_value();
    }
  };
  const auto beside = [](const std::function<void(int)>& mine, const std::function<void(int)>& peer,
                         int places) {
    const double before = timed(places, peer), own = timed(places, mine), after = timed(places, peer);
    return std::pair(own, 0.5 * (before + after));
  };
  const auto [sweep_ns, embree_ns] = beside(ours, closest_point, kPlaces);
  const auto [again_ns, fcl_ns] = beside(ours, fcl_sweep, 256);
  const auto [tick_ns, embree_tick_ns] = beside(our_tick, embree_tick, kPlaces);
  std::printf("| %s | %zu | %.0f | %.0f | %.2f | %.0f x | %.0f | %.0f | %.2f | %.0f / %.0f |\n", name,
              triangles.size(), sweep_ns, embree_ns, sweep_ns / embree_ns, fcl_ns / again_ns, tick_ns,
              embree_tick_ns, tick_ns / embree_tick_ns, build_ms, embree.build_ms);
  std::fflush(stdout);
  if (hits == 0) std::puts("WARNING: nothing was hit; the figures mean nothing.");
}

}  // namespace

int main() {
#ifndef NDEBUG
  std::puts("WARNING: built without optimisation; the figures mean nothing.");
#endif
  std::puts(
      "| place | triangles | sweep ns | Embree closest point ns | ratio | FCL swept box, times ours | tick ns "
      "| tick on Embree ns | ratio | build ms, ours / Embree |");
  std::puts("|---|---|---|---|---|---|---|---|---|---|");
  const TriangleWorld demo = build_world(demo_course());
  std::vector<Triangle> triangles;
  for (std::size_t i = 0; i < demo.triangle_count(); ++i) {
    if (demo.motion_of(demo.triangle_piece(i)) == nullptr) triangles.push_back(demo.triangle(i));
  }
  compare("demo course, what stands still", triangles, 30.0);
  compare("terrain", terrain(77), 30.0);
  compare("terrain", terrain(224), 100.0);
  compare("terrain", terrain(708), 300.0);
}
