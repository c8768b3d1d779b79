// SPDX-License-Identifier: MIT
// The row of the tube: rings of corners along a smooth line.
#pragma once

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

#include "course/round_shapes.h"
#include "fields/line_points.h"
#include "lagniappe/smooth_path.h"

namespace lagniappe {

namespace round {

constexpr int kLooksAtBend = 16;  // Along each stretch of a line.

// A piece of the line between two looks at it.
struct Bend {
  double length, angle;  // m, rad.
  double radius() const { return angle > 0.0 ? length / angle : std::numeric_limits<double>::infinity(); }
};
inline Bend bend_between(const SmoothPath& line, double from, double to) {
  const Vec3 a = unit_or(line.slope(from), Vec3(0.0)), b = unit_or(line.slope(to), Vec3(0.0));
  const bool turns_back = a == Vec3(0.0) || b == Vec3(0.0);  // On the spot.
  return {length(line.at(to) - line.at(from)),
          turns_back ? std::numeric_limits<double>::infinity() : std::atan2(length(cross(a, b)), dot(a, b))};
}
inline Bend bend_at(const SmoothPath& line, std::size_t span, int look) {
  const double step = 1.0 / kLooksAtBend, from = double(span) + look * step;
  // From the inside of the stretch: a slope at its end is that of the next.
  return bend_between(line, from, std::min(from + step, double(span) + 1.0 - 1e-9));
}

// Straight parts of a stretch of a tube, so that none of them leaves it by more than `sag`.
inline int parts_of_bend(const SmoothPath& line, std::size_t span, double radius, double sag) {
  double most = 0.0;
  for (int look = 0; look < kLooksAtBend; ++look) {
    const Bend bend = bend_at(line, span, look);
    // (1 / curvature + radius) (1 - cos(angle / 2)) for small angles.
    most = std::max(most, std::sqrt((bend.length + radius * bend.angle) * bend.angle / (8.0 * sag)));
  }
  return std::max(1, static_cast<int>(std::ceil(1.1 * kLooksAtBend * most)));
}

// A ring of corners: where, and the axes that its corners are counted from.
struct Hoop {
  Vec3 centre, along, side;
};

// From one to the next with the least turning about the line (double reflection; Wang, Juettler, Zheng and Liu,
// 2008).
inline Hoop next_hoop(const Hoop& from, const Vec3& centre, const Vec3& along) {
  const auto mirrored = [](const Vec3& v, const Vec3& normal, double square) {
    return square > 0.0 ? v - normal * (2.0 * dot(normal, v) / square) : v;
  };
  const Vec3 step = centre - from.centre;
  const double step_square = length_squared(step);
  const Vec3 side = mirrored(from.side, step, step_square);
  const Vec3 turned = along - mirrored(from.along, step, step_square);
  return {centre, along, mirrored(side, turned, length_squared(turned))};
}

}  // namespace round

template <>
struct ShapeRow<shape::Tube> {
  static constexpr std::string_view kKind = "tube",
                                    kHelp = "A round tube along a smooth line, with half a ball at each end.";

  static void fields(auto& s, auto&& f) {
    f(row_key::points("Of the line, from \"at\"; it goes through them without corners."), s.points);
    f(row_key::length("radius", "Of the tube."), s.radius);
    f(row_key::closed(), s.closed);
    f(row_key::sag(), s.sag);
  }
  static std::optional<RowFault> fault(const shape::Tube& s) {
    if (const auto fault = fault_of_line(s.points, s.closed)) return fault;
    const SmoothPath line(s.points, s.closed);
    for (std::size_t span = 0; span < line.spans(); ++span) {
      for (int look = 0; look < round::kLooksAtBend; ++look) {
        if (round::bend_at(line, span, look).radius() <= s.radius)
          return RowFault{"points", "the line bends more tightly than the tube is thick"};
      }
    }
    return std::nullopt;
  }
  static void make(const shape::Tube& s, Mesh& mesh) {
    const std::vector<round::Hoop> hoops = hoops_of(s);
    const int sides = sides_of(s);
    const auto corner = [&](const round::Hoop& hoop, int side) {
      const double turn = 2.0 * kPi * (side % sides) / sides;
      return hoop.centre +
             (hoop.side * std::cos(turn) + cross(hoop.along, hoop.side) * std::sin(turn)) * s.radius;
    };
    for (std::size_t i = 0; i + 1 < hoops.size(); ++i) {
      for (int k = 0; k < sides; ++k)
        mesh.quad(corner(hoops[i], k), corner(hoops[i], k + 1), corner(hoops[i + 1], k + 1),
                  corner(hoops[i + 1], k));
    }
    if (s.closed) return;
    make_end(s, hoops.front(), -1.0, mesh);
    make_end(s, hoops.back(), 1.0, mesh);
  }
  static std::size_t most_triangles(const shape::Tube& s) {
    std::size_t parts = 0;
    const SmoothPath line(s.points, s.closed);
    for (std::size_t span = 0; span < line.spans(); ++span)
      parts += static_cast<std::size_t>(round::parts_of_bend(line, span, s.radius, s.sag / 2));
    return 2 * parts * static_cast<std::size_t>(sides_of(s)) +
           (s.closed ? 0 : round::most_of_pill(s.radius, s.sag));
  }

 private:
  // The ends' domes need four times their rows.
  static int sides_of(const shape::Tube& s) {
    return s.closed ? round::parts_of_circle(s.radius, s.sag / 2) : 4 * round::rows_of_dome(s.radius, s.sag);
  }

  // Of a closed one the last is the first again.
  static std::vector<round::Hoop> hoops_of(const shape::Tube& s) {
    const SmoothPath line(s.points, s.closed);
    const Vec3 first = unit_or(line.slope(0.0), Vec3(1, 0, 0));
    const Vec3 off = std::abs(first.y) < 0.9 ? Vec3(0, 1, 0) : Vec3(1, 0, 0);
    std::vector<round::Hoop> hoops = {{line.at(0.0), first, unit_or(across(off, first), Vec3(0.0))}};
    for (std::size_t span = 0; span < line.spans(); ++span) {
      const int parts = round::parts_of_bend(line, span, s.radius, s.sag / 2);
      for (int part = 1; part <= parts; ++part) {
        const double place = double(span) + double(part) / parts;
        const bool last = s.closed && span + 1 == line.spans() && part == parts;
        const Vec3 along = last ? first : unit_or(line.slope(place), first);
        hoops.push_back(round::next_hoop(hoops.back(), last ? line.at(0.0) : line.at(place), along));
      }
    }
    if (s.closed) untwist(hoops);
    return hoops;
  }

  // What the last is turned against the first, each takes its part of.
  static void untwist(std::vector<round::Hoop>& hoops) {
    const round::Hoop &first = hoops.front(), &last = hoops.back();
    const double twist = std::atan2(dot(cross(first.side, last.side), first.along), dot(first.side, last.side));
    for (std::size_t i = 0; i < hoops.size(); ++i)
      hoops[i].side =
          glm::angleAxis(-twist * double(i) / double(hoops.size() - 1), hoops[i].along) * hoops[i].side;
    hoops.back().side = first.side;
  }

  // A dome over the hoop, out along the line or, with -1, back along it.
  static void make_end(const shape::Tube& s, const round::Hoop& hoop, double out, Mesh& mesh) {
    const Vec3 other = cross(hoop.along, hoop.side);
    const auto placed = [&](const Vec3& v) {
      return hoop.centre + hoop.side * v.x + other * -v.z + hoop.along * (out * v.y);
    };
    round::make_dome(s.radius, s.sag, [&](const Vec3& a, const Vec3& b, const Vec3& c) {
      out > 0.0 ? mesh.triangle(placed(a), placed(b), placed(c))
                : mesh.triangle(placed(a), placed(c), placed(b));
    });
  }
};

}  // namespace lagniappe
