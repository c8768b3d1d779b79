// SPDX-License-Identifier: MIT
// What our files use of CBOR (RFC 8949), read head by head: no call nests, whatever the bytes say.
#pragma once

#include <cstdint>
#include <string_view>

namespace lagniappe {

// Walks over CBOR. Every method returns false, and stays, where the bytes are not what is asked for, or end.
class CborCursor {
 public:
  explicit CborCursor(std::string_view bytes) : bytes_(bytes) {}

  bool at_end() const { return at_ == bytes_.size(); }
  bool map(std::uint64_t& count);    // Of a length that is said beforehand; so the next three.
  bool array(std::uint64_t& count);  //
  bool text(std::string_view& text);
  bool binary(std::string_view& bytes);
  bool number(std::uint64_t& value);  // Not negative.
  bool open_array();                  // One whose end is a break.
  bool end_of_open();                 // The break.

 private:
  bool head(unsigned major, std::uint64_t& value);
  bool run(unsigned major, std::string_view& run);

  std::string_view bytes_;
  std::size_t at_ = 0;
};

// Whether `bytes` are one whole CBOR value that a recursive reader may be given: nested no deeper than
// `deepest`, every length said beforehand, nothing behind it.
bool is_plain_cbor(std::string_view bytes, std::size_t deepest);

}  // namespace lagniappe
