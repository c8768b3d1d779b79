// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/section.h"

#include <algorithm>
#include <array>
#include <map>

namespace lagniappe::app {
namespace {

constexpr int kRowStep = 2;  // Pixels between two rows that are filled.

// Where the plane goes through a triangle.
std::optional<QLineF> through(const std::array<Vec3, 3>& corners, const Cut& cut, const QSize& size) {
  std::array<double, 3> off;
  for (std::size_t i = 0; i < 3; ++i) off[i] = cut.off(corners[i]);
  std::array<QPointF, 2> ends;
  std::size_t count = 0;
  for (std::size_t i = 0; i < 3 && count < 2; ++i) {
    const std::size_t j = (i + 1) % 3;
    if ((off[i] < 0.0) == (off[j] < 0.0)) continue;
    ends[count++] = cut.pixel(corners[i] + (corners[j] - corners[i]) * (off[i] / (off[i] - off[j])), size);
  }
  if (count < 2) return std::nullopt;
  return QLineF(ends[0], ends[1]);
}

// Between the first and the second crossing of a row, the third and the fourth, and so on.
void fill(const std::vector<QLineF>& outline, const QSize& size, std::vector<QLineF>& inside) {
  std::map<int, std::vector<double>> crossings;  // x, by row.
  for (const QLineF& line : outline) {
    const double top = std::min(line.y1(), line.y2()), bottom = std::max(line.y1(), line.y2());
    const int first = std::max(0, int(std::ceil(top / kRowStep)));
    const int last = std::min(size.height() / kRowStep, int(std::ceil(bottom / kRowStep)) - 1);
    for (int row = first; row <= last; ++row) {
      const double share = (row * kRowStep - line.y1()) / (line.y2() - line.y1());
      crossings[row].push_back(line.x1() + share * (line.x2() - line.x1()));
    }
  }
  for (auto& [row, xs] : crossings) {
    std::sort(xs.begin(), xs.end());
    for (std::size_t i = 0; i + 1 < xs.size(); i += 2)
      inside.emplace_back(xs[i], row * kRowStep, xs[i + 1], row * kRowStep);
  }
}

}  // namespace

Section section_of(const Place& place, const Cut& cut, const QSize& size, double time) {
  const TriangleWorld& world = place.world;
  Section section;
  std::vector<QLineF> of_piece;
  const auto end_piece = [&] {
    fill(of_piece, size, section.inside);
    section.outline.insert(section.outline.end(), of_piece.begin(), of_piece.end());
    of_piece.clear();
  };
  PieceId piece = kNoPiece;
  RigidPose frame;
  bool moves = false;
  for (std::size_t i = 0; i < world.triangle_count(); ++i) {
    if (world.triangle_piece(i) != piece) {
      end_piece();
      piece = world.triangle_piece(i);
      moves = world.moves(piece);
      if (moves) frame = world.piece_frame(piece, time);
    }
    const Triangle& t = world.triangle(i);
    const auto at = [&](const Vec3& p) { return moves ? frame.point(p) : p; };
    if (const auto line = through({at(t.v0_C), at(t.v1_C), at(t.v2_C)}, cut, size)) of_piece.push_back(*line);
  }
  end_piece();
  return section;
}

}  // namespace lagniappe::app
