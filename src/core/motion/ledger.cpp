// SPDX-License-Identifier: MIT
#include "lagniappe/ledger.h"

#include <array>
#include <nlohmann/json.hpp>

namespace lagniappe {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array<const char*, 3> kFeatures = {"face", "edge", "vertex"};
constexpr std::array<const char*, 5> kSlideKinds = {"along", "wall", "ceiling", "crease", "stop"};
constexpr std::array<const char*, 6> kStepOutcomes = {"taken",       "too high",     "no head room",
                                                      "short tread", "not walkable", "no gain"};

template <typename Names, typename Enum>
std::string word(const Names& names, Enum value) {
  return std::string(names[static_cast<std::size_t>(value)]);
}

Json list(const Vec3& v) { return Json::array({v.x, v.y, v.z}); }

struct Writer {
  const World& world;

  std::string piece(PieceId id) const { return std::string(world.piece_name(id)); }

  Json operator()(const entry::Reset& e) const {
    return {{"kind", "reset"}, {"out_of_limits", e.out_of_limits}};
  }
  Json operator()(const entry::PushOut& e) const {
    return {{"kind", "push_out"}, {"depth_m", e.depth}, {"crushed", e.crushed}, {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Wish& e) const {
    return {{"kind", "wish"}, {"velocity", list(e.velocity_C)}, {"share", e.share}};
  }
  Json operator()(const entry::StateChange& e) const {
    return {{"kind", "state"}, {"from", name_of(e.from)}, {"to", name_of(e.to)}};
  }
  Json operator()(const entry::Jump& e) const {
    Json json = {{"kind", "jump"}, {"speed", e.speed}, {"in_air", e.in_air}};
    if (!e.in_air) json["late_by_s"] = e.late_by;
    return json;
  }
  Json operator()(const entry::Sweep& e) const {
    Json json = {{"kind", "sweep"}, {"from", list(e.from_C)}, {"motion", list(e.motion_C)}, {"hit", e.hit}};
    if (!e.hit) return json;
    json["fraction"] = e.fraction;
    json["piece"] = piece(e.piece);
    json["point"] = list(e.point_C);
    json["normal"] = list(e.normal_C);
    json["feature"] = word(kFeatures, e.feature);
    return json;
  }
  Json operator()(const entry::Slide& e) const {
    return {{"kind", "slide"},
            {"on", word(kSlideKinds, e.kind)},
            {"plane", list(e.plane_C)},
            {"rest", list(e.rest_C)}};
  }
  Json operator()(const entry::Step& e) const {
    return {{"kind", "step"},
            {"outcome", word(kStepOutcomes, e.outcome)},
            {"rise_m", e.rise},
            {"highest_m", e.highest},
            {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Probe& e) const {
    Json json = {{"kind", "probe"}, {"from", list(e.from_C)}, {"reach_m", e.reach}, {"hit", e.hit}};
    if (!e.hit) return json;
    json["gap_m"] = e.gap;
    json["piece"] = piece(e.piece);
    return json;
  }
  Json operator()(const entry::Judged& e) const {
    return {{"kind", "verdict"},
            {"ground", name_of(e.verdict)},
            {"angle_deg", degrees(e.angle)},
            {"overhang_m", e.overhang},
            {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Snap& e) const { return {{"kind", "snap"}, {"distance_m", e.distance}}; }
  Json operator()(const entry::LeftGround& e) const { return {{"kind", "left_ground"}, {"speed", e.speed}}; }
};

}  // namespace

std::string to_json(const LedgerEntry& entry, const World& world) {
  return std::visit(Writer{world}, entry).dump(-1, ' ', false, Json::error_handler_t::replace);
}

}  // namespace lagniappe
