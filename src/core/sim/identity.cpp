// SPDX-License-Identifier: MIT
#include "lagniappe/drive.h"
#include "lagniappe/profile_fields.h"
#include "math/hash.h"

namespace lagniappe {
namespace {

void add(Hash& hash, const Vec3& v) {
  hash.add(v.x);
  hash.add(v.y);
  hash.add(v.z);
}

}  // namespace

std::uint64_t identity_of(const TriangleWorld& world) {
  Hash hash;
  add(hash, world.limits().low_C);
  add(hash, world.limits().high_C);
  for (std::size_t i = 0; i < world.triangle_count(); ++i) {
    const Triangle& t = world.triangle(i);
    for (const Vec3& v : {t.v0_C, t.v1_C, t.v2_C}) add(hash, v);
    hash.add(world.triangle_piece(i));
  }
  for (PieceId piece = 0; piece < world.piece_count(); ++piece) {
    hash.add(world.piece_name(piece));
    hash.add('\0');
  }
  return hash.value();
}

std::uint64_t identity_of(const Profile& profile) {
  Hash hash;
  Profile copy = profile;
  for (const ProfileField& field : profile_fields()) hash.add(field.value(copy));
  hash.add(static_cast<std::uint8_t>(profile.ground.response.model));
  hash.add(static_cast<std::uint8_t>(profile.air.response.model));
  hash.add(profile.jump.air_jumps);
  return hash.value();
}

}  // namespace lagniappe
