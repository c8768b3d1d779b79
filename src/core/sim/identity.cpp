// SPDX-License-Identifier: MIT
#include <bit>

#include "fields/field_rows.h"
#include "fields/zone_rows.h"
#include "lagniappe/profile_fields.h"
#include "lagniappe/states.h"
#include "lagniappe/take.h"
#include "math/hash.h"
#include "sim/state_fields.h"

namespace lagniappe {
namespace {

void add(Hash& hash, const Vec3& v) {
  hash.add(v.x);
  hash.add(v.y);
  hash.add(v.z);
}

void add(Hash& hash, const Surface& surface) {
  hash.add(static_cast<std::uint8_t>(surface.walk));
  hash.add(surface.ground);
  hash.add(surface.climbable);
  hash.add(surface.friction);
}

void add(Hash& hash, const PieceMotion& motion) {
  for (const PieceMotion::Key& key : motion.keys) {
    hash.add(key.at);
    add(hash, key.move_C);
    add(hash, key.turn);
    hash.add(static_cast<std::uint8_t>(key.ease));
  }
  hash.add(motion.period);
  hash.add(motion.phase);
  hash.add(static_cast<std::uint8_t>(motion.repeat));
  hash.add(static_cast<std::uint8_t>(motion.path));
  for (const Vec3& v : {motion.pivot_P, motion.at_C, motion.turn}) add(hash, v);
}

struct RowHash {
  Hash& hash;
  void operator()(const DocumentKey&, const Vec3& v) const { add(hash, v); }
  void operator()(const DocumentKey&, const std::vector<Vec3>& values) const {
    hash.add(values.size());
    for (const Vec3& v : values) add(hash, v);
  }
  void operator()(const DocumentKey&, const std::string& text) const { hash.add(text), hash.add('\0'); }
  void operator()(const DocumentKey& key, const std::vector<std::string>& names) const {
    hash.add(names.size());
    for (const std::string& name : names) (*this)(key, name);
  }
  void operator()(const DocumentKey&, WordOf<const effect::Frame> choice) const {
    hash.add(static_cast<std::uint8_t>(choice.is));
  }
  void operator()(const DocumentKey&, SetsOf<const bool> sets) const {
    hash.add(sets.up), hash.add(sets.across);
  }
  void operator()(const DocumentKey&, const effect::Wind::Gust& gust) const {
    hash.add(gust.period), hash.add(gust.share);
  }
  template <typename Number>
  void operator()(const DocumentKey&, Number value) const {
    hash.add(value);
  }
};

template <typename... Part>
void add_part(Hash& hash, const std::variant<Part...>& part) {
  hash.add(part.index());
  std::visit([&](const auto& p) { ZoneRow<std::decay_t<decltype(p)>>::fields(p, RowHash{hash}); }, part);
}

void add(Hash& hash, const Zone& zone) {
  add_part(hash, zone.shape);
  add_part(hash, zone.effect);
  add(hash, zone.at_C);
  add(hash, zone.turn);
  if (const auto* launch = std::get_if<effect::Launch>(&zone.effect)) add(hash, launch->target_C);
  if (const auto* over = std::get_if<effect::SurfaceOver>(&zone.effect)) add(hash, over->is);
  for (const std::string* text : {&zone.id, &zone.on}) hash.add(*text), hash.add('\0');
}

void add(Hash& hash, const Curve& curve) {
  hash.add(curve.count);
  for (int i = 0; i < curve.count; ++i) hash.add(curve.points[i].x), hash.add(curve.points[i].y);
}

void add(Hash& hash, const Field& field) {
  hash.add(field.shape.index());
  std::visit(
      [&](const auto& shape) {
        using Row = FieldRow<std::decay_t<decltype(shape)>>;
        const auto written = Row::written(shape);
        Row::fields(written, RowHash{hash});
      },
      field.shape);
  add(hash, field.at_C);
  add(hash, field.turn);
  hash.add(field.strength);
  hash.add(field.absolute);
  hash.add(static_cast<std::uint8_t>(field.falloff));
  add(hash, field.curve);
  hash.add(field.reach.value_or(-1.0));
  hash.add(field.fade);
  hash.add(field.adds);
  hash.add(field.priority);
  for (const std::string* text : {&field.id, &field.on}) hash.add(*text), hash.add('\0');
}

void add_text(Hash& hash, const std::string& text) {
  hash.add(text);
  hash.add('\0');
}

void add(Hash& hash, const Override& o) {
  add_text(hash, o.path), add_text(hash, o.same);
  hash.add(static_cast<std::uint8_t>(o.kind));
  hash.add(o.number);
  for (int i = 0; i < o.curve.count; ++i) hash.add(o.curve.points[i].x), hash.add(o.curve.points[i].y);
}

void add(Hash& hash, const StateTable& table) {
  for (const StateSpec& s : table.states) {
    for (const std::string* text : {&s.name, &s.like, &s.group, &s.pose, &s.on_entry, &s.on_exit, &s.script})
      add_text(hash, *text);
    hash.add(s.behaviour ? static_cast<int>(*s.behaviour) : -1);
    hash.add(s.stance ? static_cast<int>(*s.stance) : -1);
    for (const Override& o : s.overrides) add(hash, o);
    for (const std::string& slot : s.memory) add_text(hash, slot);
  }
  for (const TransitionSpec& t : table.transitions) {
    for (const std::string* text : {&t.from, &t.to, &t.guard, &t.action}) add_text(hash, *text);
    hash.add(t.priority);
    hash.add(t.shortest_stay);
  }
  for (const std::string& slot : table.memory) add_text(hash, slot);
  add_text(hash, table.fallback);
}

// Mixes whole words: a state is hashed in every tick of a retake. The multiplier is that of Knuth's linear
// congruential generator for 64 bits.
class WordHash {
 public:
  template <typename T>
  void operator()(const char*, const T& value, FieldOf) {
    add(value);
  }
  template <typename T>
  void add(const T& value) {
    if constexpr (requires { value.size(); }) {
      for (const auto& one : value) add(one);
    } else if constexpr (std::is_same_v<T, Vec3> || std::is_same_v<T, glm::vec3>) {
      for (int i = 0; i < 3; ++i) add(value[i]);
    } else if constexpr (std::is_same_v<T, Quat>) {
      for (int i = 0; i < 4; ++i) add(value[i]);
    } else if constexpr (std::is_same_v<T, double>) {
      mix(std::bit_cast<std::uint64_t>(value));
    } else if constexpr (std::is_same_v<T, float>) {
      mix(std::bit_cast<std::uint32_t>(value));
    } else {
      mix(static_cast<std::uint64_t>(value));
    }
  }
  std::uint64_t value() const { return value_; }

 private:
  void mix(std::uint64_t word) {
    value_ = (value_ ^ word) * 6364136223846793005ull;
    value_ ^= value_ >> 29;
  }
  std::uint64_t value_ = 0x9e3779b97f4a7c15ull;
};

}  // namespace

PartVersions present_parts() {
  PartVersions versions;
  for (std::size_t i = 0; i < versions.size(); ++i) versions[i] = kStateParts[i].version;
  return versions;
}

PartHashes part_hashes(const CharacterState& state, const PartVersions& known) {
  std::array<WordHash, kStatePartCount> of;
  each_field(state, [&](const char*, const auto& value, FieldOf field) {
    const auto part = static_cast<std::size_t>(field.part);
    if (field.since <= known[part]) of[part].add(value);
  });
  PartHashes hashes{};
  for (std::size_t i = 0; i < hashes.size(); ++i) {
    if (known[i] > 0) hashes[i] = static_cast<std::uint32_t>(of[i].value() >> 32);
  }
  return hashes;
}

std::uint64_t undivided_hash(const CharacterState& state) {
  WordHash hash;
  each_field(state, [&](const char*, const auto& value, FieldOf field) {
    if (field.part <= StatePart::Seen && field.since == 1) hash.add(value);
  });
  return hash.value();
}

std::uint64_t hash_of(const CharacterState& state) {
  WordHash hash;
  each_field(state, hash);
  return hash.value();
}

std::uint64_t identity_of(const TriangleWorld& world) {
  Hash hash;
  add(hash, world.limits().low_C);
  add(hash, world.limits().high_C);
  add(hash, world.wind());
  for (std::size_t i = 0; i < world.triangle_count(); ++i) {
    const Triangle& t = world.triangle(i);
    for (const Vec3& v : {t.v0_C, t.v1_C, t.v2_C}) add(hash, v);
    hash.add(world.triangle_piece(i));
    add(hash, world.triangle_surface(i));
  }
  for (const PieceId piece : world.moving_pieces()) {
    hash.add(piece);
    add(hash, *world.motion_of(piece));
  }
  // Nothing is added for a world without fields: it is what it was before there were any.
  if (const FieldSum* sum = world.fields()) {
    add(hash, sum->below());
    for (const Field& field : sum->fields()) add(hash, field);
  }
  // Likewise one without zones, and without belts.
  for (std::size_t i = 0; i < world.zone_count(); ++i) add(hash, world.zone_as_given(static_cast<ZoneId>(i)));
  for (PieceId piece = 0; piece < world.piece_count(); ++piece) {
    if (const Vec3 drift = world.surface_drift(piece, 0.0); drift != Vec3(0.0))
      hash.add(piece), add(hash, drift);
  }
  for (PieceId piece = 0; piece < world.piece_count(); ++piece) {
    hash.add(world.piece_name(piece));
    hash.add('\0');
  }
  return hash.value();
}

std::uint64_t identity_of(const Profile& profile) {
  Hash hash;
  for (const ProfileField& field : profile_fields()) hash.add(field.get(profile));
  for (const ProfileCurve& field : profile_curves()) {
    add(hash, field.get(profile));
  }
  for (const ProfileChoice& field : profile_choices()) hash.add(field.get(profile));
  add(hash, chart_of(profile).table());
  return hash.value();
}

}  // namespace lagniappe
