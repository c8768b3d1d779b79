// SPDX-License-Identifier: MIT
#include "io/cbor.h"

#include <optional>
#include <vector>

namespace lagniappe {
namespace {

constexpr unsigned kUnsigned = 0, kBinary = 2, kText = 3, kArray = 4, kMap = 5, kSimple = 7;
constexpr unsigned kNoLength = 31;

struct Head {
  unsigned major, minor;
  std::uint64_t value;
  std::size_t size;  // Bytes of the head itself.
};

// Nothing where the bytes end within it, or it is of no known form.
std::optional<Head> head_at(std::string_view bytes, std::size_t at) {
  if (at >= bytes.size()) return std::nullopt;
  const auto first = static_cast<unsigned char>(bytes[at]);
  Head head{unsigned(first) >> 5, unsigned(first) & 31u, unsigned(first) & 31u, 1};
  if (head.minor < 24 || head.minor == kNoLength) return head;
  if (head.minor > 27) return std::nullopt;
  const std::size_t width = std::size_t{1} << (head.minor - 24);
  if (bytes.size() - at - 1 < width) return std::nullopt;
  head.value = 0;
  for (std::size_t i = 1; i <= width; ++i)
    head.value = head.value << 8 | static_cast<unsigned char>(bytes[at + i]);
  head.size += width;
  return head;
}

}  // namespace

bool CborCursor::head(unsigned major, std::uint64_t& value) {
  const auto head = head_at(bytes_, at_);
  if (!head || head->major != major || head->minor == kNoLength) return false;
  value = head->value;
  at_ += head->size;
  return true;
}

bool CborCursor::run(unsigned major, std::string_view& run) {
  const std::size_t before = at_;
  std::uint64_t size = 0;
  if (!head(major, size)) return false;
  if (size > bytes_.size() - at_) {
    at_ = before;
    return false;
  }
  run = bytes_.substr(at_, size);
  at_ += size;
  return true;
}

bool CborCursor::map(std::uint64_t& count) { return head(kMap, count); }
bool CborCursor::array(std::uint64_t& count) { return head(kArray, count); }
bool CborCursor::number(std::uint64_t& value) { return head(kUnsigned, value); }
bool CborCursor::text(std::string_view& text) { return run(kText, text); }
bool CborCursor::binary(std::string_view& bytes) { return run(kBinary, bytes); }

bool CborCursor::open_array() {
  const auto head = head_at(bytes_, at_);
  if (!head || head->major != kArray || head->minor != kNoLength) return false;
  ++at_;
  return true;
}

bool CborCursor::end_of_open() {
  const auto head = head_at(bytes_, at_);
  if (!head || head->major != kSimple || head->minor != kNoLength) return false;
  ++at_;
  return true;
}

bool is_plain_cbor(std::string_view bytes, std::size_t deepest) {
  std::vector<std::uint64_t> left = {1};  // Values still to come, by depth.
  std::size_t at = 0;
  while (!left.empty()) {
    if (left.back() == 0) {
      left.pop_back();
      continue;
    }
    --left.back();
    const auto head = head_at(bytes, at);
    if (!head || head->minor == kNoLength || head->major == 6) return false;
    at += head->size;
    if (head->major == kBinary || head->major == kText) {
      if (head->value > bytes.size() - at) return false;
      at += head->value;
    } else if (head->major == kArray || head->major == kMap) {
      // Each value takes a byte at least: what cannot be there is not counted to.
      if (head->value > bytes.size() - at || left.size() >= deepest) return false;
      left.push_back(head->major == kMap ? 2 * head->value : head->value);
    }
  }
  return at == bytes.size();
}

}  // namespace lagniappe
