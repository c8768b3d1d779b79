// SPDX-License-Identifier: MIT
#include "world/face_tree.h"

namespace lagniappe {
namespace {

std::vector<Box> boxes_of(const std::vector<WorldFace>& faces) {
  std::vector<Box> boxes;
  boxes.reserve(faces.size());
  for (const WorldFace& face : faces) boxes.push_back(bounds(face.triangle));
  return boxes;
}

}  // namespace

FaceTree::FaceTree(std::vector<WorldFace> faces) : tree_(boxes_of(faces)) {
  faces_.reserve(faces.size());
  for (const std::uint32_t item : tree_.items()) {
    faces_.push_back(faces[item]);
    box_.join(bounds(faces[item].triangle));
  }
}

}  // namespace lagniappe
