// SPDX-License-Identifier: MIT
// All tolerances of geometry and motion, each with its reason. Lengths in metres.
#pragma once

namespace lagniappe {

// Two surfaces this near are touching. Rounding in a sweep over course coordinates up to 1e4 m is about 1e-11
// m; the smallest margin that a profile may ask for is 1e-5 m. This lies far from both.
inline constexpr double kTouch = 1e-9;

// A motion goes into a touched surface only if it approaches it by more than this share of its length. Over the
// longest motion of a tick (200 m/s at 10 ticks/s: 20 m) what is let through is 2e-8 m, far below any margin.
inline constexpr double kApproach = 1e-9;

// Twice the area, in m2, under which a triangle has no usable normal: edges of 1e-6 m.
inline constexpr double kLeastDoubleArea = 1e-12;

// Ground this near under the capsule's gap counts as stood on: far above rounding, far below what is seen.
inline constexpr double kGroundTouch = 1e-4;

// Speed away from the ground above which the character is leaving it rather than standing on it, in m/s: above
// the rounding of a clipped velocity, below what one tick of gravity takes away (9.8 m/s2 at 480 ticks/s: 0.02
// m/s).
inline constexpr double kLeavingSpeed = 1e-3;

// Cosine above which two plane normals are one plane: 0.6 degrees apart.
inline constexpr double kSamePlane = 0.99995;

// Cosine of a contact's normal to up, up to which it touches the side of the round foot and holds nothing up:
// over a radius of 1 m, heights of less than rounding in single precision.
inline constexpr double kSideways = 1e-6;

// Cosine above which a face is level enough to be glided over whatever it is made of: 1.8 degrees.
inline constexpr double kLevel = 0.9995;

// Planes met in one tick before what is left of the motion is given up.
inline constexpr int kMostPlanes = 5;

// Rounds of push-out in one tick. Each round resolves the deepest contact, so a corner of three faces needs
// three; the rest is for slivers that undo each other.
inline constexpr int kPushOutRounds = 16;

// Contacts looked at in one question to the world: a capsule in an ordinary place touches under ten faces; a
// fan around one vertex may have more, of which the nearest are kept.
inline constexpr int kMostContacts = 24;

}  // namespace lagniappe
