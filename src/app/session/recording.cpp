// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/recording.h"

#include <QDateTime>
#include <algorithm>

namespace lagniappe::app {

std::shared_ptr<const Place> make_place(const std::string& path, Course course,
                                        const std::function<bool()>& wanted) {
  TriangleWorld world = build_world(course);
  if (wanted && !wanted()) return nullptr;
  SceneMesh drawn = scene_mesh(course, world);
  if (wanted && !wanted()) return nullptr;
  const std::uint64_t identity = identity_of(world);
  return std::make_shared<const Place>(
      Place{path, std::move(course), std::move(world), std::move(drawn), identity});
}

std::string now_text() { return QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString(); }

Recording begin_recording(const CharacterState& start, std::shared_ptr<const Place> place,
                          const Profile& profile, int tick_rate) {
  Take take;
  take.start = start;
  take.tick_rate = tick_rate;
  take.course = std::shared_ptr<const Course>(place, &place->course);
  take.profile = profile;
  take.course_identity = place->identity;
  take.profile_identity = identity_of(profile);
  take.course_file = place->path;
  take.about.recorded = now_text();
  return {std::move(take), std::move(place), Run(start, tick_rate), {}};
}

bool has_input(const InputFrame& input, const Profile& profile) {
  const auto is_out = [&](const Vec2& move, const Vec2& turn_rate) {
    return stick_push(move, profile.look.dead_zone) > 0.0 || turn_rate != Vec2(0.0);
  };
  return is_out(input.move, input.turn_rate) || input.look_delta != Vec2(0.0) || input.pressed.bits != 0 ||
         std::any_of(input.earlier.begin(), input.earlier.end(),
                     [&](const SticksUntil& s) { return is_out(s.move, s.turn_rate); });
}

bool is_worth_keeping(const Recording& recording) {
  const Take& take = recording.take;
  return std::any_of(take.inputs.begin(), take.inputs.end(),
                     [&](const InputFrame& input) { return has_input(input, take.profile); });
}

void complete(Recording& recording) {
  Take& take = recording.take;
  keep_hashes(recording.run, take);
  if (take.about.name.empty()) take.about.name = describe(recording.run, recording.place->world, take.profile);
  take.about.path = path_of(recording.run);
  take.about.ticks = recording.run.ticks();
  take.about.course = take.course->name;
  take.about.profile = take.profile.name;
  take.about.devices = names_of(take.devices);
  take.about.tick_rate = take.tick_rate;
}

Ledger ledger_at(const Recording& recording, std::size_t tick) {
  if (tick == 0 || tick > recording.run.ticks()) return {};
  return ledger_of(recording.run, recording.take, recording.place->world, tick);
}

}  // namespace lagniappe::app
