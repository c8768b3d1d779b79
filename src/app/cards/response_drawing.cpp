// SPDX-License-Identifier: GPL-3.0-or-later
// Speed over time of a push of one second and its release, on the ground and in the air.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

constexpr double kPush = 1.0;  // s.
constexpr int kPoints = 96;
constexpr double kNever = 1e3;  // s; a longer time is drawn as never.

class ResponseDrawing : public CardDrawing {
 public:
  explicit ResponseDrawing(bool air) : air_(air) {}

  Extent extent(const Profile& p) const override {
    const double top = std::max({speed(p), air_ ? 0.0 : p.ground.sprint_speed, highest(p), 0.5});
    return {-0.06 * end(p), end(p), -0.14 * top, 1.16 * top, false};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const PushCurve push = curve(p);
    const double last = end(p);
    sketch.line({{0.0, 0.0}, {last, 0.0}}, Sketch::Ink::Solid);
    sketch.line({{kPush, 0.0}, {kPush, 1.05 * speed(p)}}, Sketch::Ink::Faint);
    sketch.line({{0.0, speed(p)}, {last, speed(p)}}, Sketch::Ink::Faint);
    draw_other_speeds(sketch, p);
    std::vector<Vec2> stopping = sampled(push, kPush, last);
    stopping.emplace_back(last, 0.0);
    stopping.emplace_back(kPush, 0.0);
    sketch.area(stopping, Sketch::Ink::Now);
    sketch.line(sampled(push, 0.0, last), Sketch::Ink::Now);
    if (push.time_to_90() > 0.0 && push.time_to_90() < kPush)
      sketch.label({push.time_to_90(), 0.9 * speed(p)},
                   QObject::tr("90 % in %1").arg(seconds_text(push.time_to_90())));
    const double stops = push.way_at(kPush + push.stop_time() * 4.0) - push.way_at(kPush);
    if (push.stopping_distance() < kNever)
      sketch.label({kPush + std::min(0.4 * push.stop_time(), 0.4), 0.25 * speed(p)},
                   QObject::tr("stops in %1").arg(metres_text(stops)));
    sketch.label({last, speed(p)}, QObject::tr("%1 m/s").arg(speed(p), 0, 'f', 1));
    sketch.label({kPush, 0.0}, QObject::tr("let go"));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line(sampled(curve(p), 0.0, 3.0), Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const PushCurve push = curve(p);
    std::vector<Handle> all = {{"speed", {-0.03 * end(p), speed(p)}, QObject::tr("Speed"), speed_path(p)}};
    if (!air_)
      all.push_back({"sprint",
                     {end(p) * 0.94, p.ground.sprint_speed},
                     QObject::tr("Speed while sprint is held"),
                     "ground.sprint_speed"});
    if (gathers(p))
      all.push_back({"gathered",
                     {end(p) * 0.8, p.ground.gather.highest},
                     QObject::tr("Speed that it grows to"),
                     "ground.gather.highest"});
    if (response(p).model == Response::Model::Instant) return all;
    const bool steady = response(p).model == Response::Model::Steady;
    const std::string at = air_ ? "air.response." : "ground.response.";
    all.push_back({"time to 90 %",
                   {std::min(push.time_to_90(), 0.99 * end(p)), 0.9 * speed(p)},
                   QObject::tr("Time to 90 % of the speed"),
                   at + (steady ? "acceleration" : "time")});
    all.push_back({"stop",
                   {kPush + std::min(push.stop_time(), 0.99 * end(p) - kPush), 0.0},
                   QObject::tr("Stopping distance: the area under the curve"),
                   at + (steady ? "deceleration" : "stop_time")});
    return all;
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    const std::string name = handles(profile)[handle].name.toStdString();
    Response& r = air_ ? p.air.response : p.ground.response;
    if (name == "speed") put(p, speed_path(profile), to.y);
    if (name == "gathered") put(p, "ground.gather.highest", std::max(to.y, p.ground.gather.lowest));
    p.ground.gather.highest = std::max(p.ground.gather.highest, p.ground.gather.lowest);
    if (name == "sprint") put(p, "ground.sprint_speed", to.y);
    if (name == "time to 90 %") {
      r = with_time_to_90(r, speed(p), std::max(to.x, 1e-3));
    } else if (name == "stop") {
      // The distance goes with the time to the stand, whatever the model.
      const PushCurve push(r, speed(p), kPush);
      const double time = std::max(to.x - kPush, 1e-3);
      if (push.stop_time() >= kNever && to.x >= 0.985 * end(profile)) return profile;  // It rests there.
      if (push.stop_time() > 0.0 && push.stop_time() < kNever) {
        r = with_stopping_distance(r, speed(p), push.stopping_distance() * time / push.stop_time());
      } else {
        r = with_stopping_distance(r, speed(p), 0.5 * speed(p) * time);
      }
    }
    const std::string at = air_ ? "air.response." : "ground.response.";
    for (const char* key : {"acceleration", "deceleration", "time", "stop_time"})
      put(p, (at + key).c_str(), find_field(at + key)->typed(p));
    return p;
  }

 private:
  const Response& response(const Profile& p) const { return air_ ? p.air.response : p.ground.response; }
  bool gathers(const Profile& p) const { return !air_ && p.ground.gather.growth > 0.0; }
  double speed(const Profile& p) const {
    return air_ ? p.air.speed : gathers(p) ? p.ground.gather.lowest : p.ground.speed;
  }
  const char* speed_path(const Profile& p) const {
    return air_ ? "air.speed" : gathers(p) ? "ground.gather.lowest" : "ground.speed";
  }
  PushCurve curve(const Profile& p) const {
    return air_ ? PushCurve(p.air.response, p.air.speed, kPush) : walking_push(p, kPush);
  }
  double highest(const Profile& p) const { return gathers(p) ? p.ground.gather.highest : 0.0; }

  double end(const Profile& p) const {
    const double stop = PushCurve(response(p), speed(p), kPush).stop_time();
    return std::clamp(kPush + 1.25 * stop, 1.6, 3.0);
  }

  static std::vector<Vec2> sampled(const PushCurve& push, double from, double to) {
    std::vector<Vec2> points;
    for (int i = 0; i <= kPoints; ++i) {
      const double t = from + (to - from) * i / kPoints;
      points.emplace_back(t, push.speed_at(t));
    }
    return points;
  }

  void draw_other_speeds(Sketch& sketch, const Profile& p) const {
    const double last = end(p);
    if (air_) {
      const double standing = std::min(p.air.speed, p.air.over_run_up);
      if (standing < p.air.speed) {
        sketch.line({{0.0, standing}, {last, standing}}, Sketch::Ink::Warning);
        sketch.label({0.8 * last, standing}, QObject::tr("from a stand %1").arg(standing, 0, 'f', 1),
                     Sketch::Ink::Warning);
      }
      return;
    }
    sketch.line({{0.0, p.ground.sprint_speed}, {last, p.ground.sprint_speed}}, Sketch::Ink::Faint);
    sketch.label({0.8 * last, p.ground.sprint_speed},
                 QObject::tr("sprint %1").arg(p.ground.sprint_speed, 0, 'f', 1));
    const auto& gather = p.ground.gather;
    if (!gathers(p)) return;
    const double full = std::min((gather.highest - gather.lowest) / gather.growth, last);
    sketch.line(
        {{0.0, gather.lowest}, {full, gathered_speed(gather, full)}, {last, gathered_speed(gather, last)}},
        Sketch::Ink::Warning);
    sketch.label({full, gathered_speed(gather, full)}, QObject::tr("gathered"), Sketch::Ink::Warning);
  }

  bool air_;
};

}  // namespace

std::unique_ptr<CardDrawing> walk_drawing() { return std::make_unique<ResponseDrawing>(false); }
std::unique_ptr<CardDrawing> air_drawing() { return std::make_unique<ResponseDrawing>(true); }

}  // namespace lagniappe::app
