// SPDX-License-Identifier: MIT
// The one judgement of what a contact is. Everything asks here: slide, probe, snap, head room, steps, jumps,
// signals and the ledger.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Returns what a plane with `normal_C` and this surface is to a character: by its angle to up and the profile's
// limits: steepest_skid still bears, ceiling_from is a ceiling. On faces the normal is the face's, on edges and
// vertices the contact's.
ContactKind contact_kind(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C);

// Whether a face of this surface and with this normal may be walked on.
bool walkable(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C);

// Whether a grounded motion goes on along such a face when it meets it; if not, the face is a wall to it.
bool leads_on(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C);

// Whether a contact with this normal is so far below the round of the foot that it can bear.
bool under_foot(const Values& profile, const Vec3& contact_normal_C, const Vec3& up_C);

// The wall across up that stands for a plane, for whoever keeps to the ground with `ground_C`: its line is the
// crease of the two planes, whichever way the wall leans. Returns its unit normal; `against` where there is no
// crease.
Vec3 wall_on_ground(const Vec3& normal_C, const Vec3& ground_C, const Vec3& up_C, const Vec3& against_C);

}  // namespace lagniappe
