// SPDX-License-Identifier: MIT
#include <bit>

#include "lagniappe/profile_fields.h"
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

// Mixes whole words: a state is hashed in every tick of a retake. The multiplier is that of Knuth's linear
// congruential generator for 64 bits.
class WordHash {
 public:
  void operator()(const char*, const Vec3& v) {
    for (int i = 0; i < 3; ++i) mix(std::bit_cast<std::uint64_t>(v[i]));
  }
  void operator()(const char*, const Quat& q) {
    for (int i = 0; i < 4; ++i) mix(std::bit_cast<std::uint64_t>(q[i]));
  }
  void operator()(const char*, double value) { mix(std::bit_cast<std::uint64_t>(value)); }
  template <typename T>
  requires(std::is_integral_v<T> || std::is_enum_v<T>) void operator()(const char*, T value) {
    mix(static_cast<std::uint64_t>(value));
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
    const Curve& curve = field.get(profile);
    hash.add(curve.count);
    for (int i = 0; i < curve.count; ++i) {
      hash.add(curve.points[i].x);
      hash.add(curve.points[i].y);
    }
  }
  for (const ProfileChoice& field : profile_choices()) hash.add(field.get(profile));
  return hash.value();
}

}  // namespace lagniappe
