// SPDX-License-Identifier: MIT
// JSON documents whose refusals name line, column and path.
//
// Readers throw ReadFailure inside; read_document() turns it into an Error, so nothing leaves this folder as an
// exception.
#pragma once

#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/result.h"
#include "lagniappe/vector.h"

namespace lagniappe {

using Json = nlohmann::json;

// What is wrong at a JSON pointer ("" is the whole document).
struct ReadFailure {
  std::string pointer;
  std::string what;
};

struct NumberRange {
  double low, high;
  bool above_low = false;  // Excludes `low` itself.
};
inline constexpr NumberRange kAnyPosition = {-1e6, 1e6};
inline constexpr NumberRange kAnySize = {0.0, 1e5, true};
inline constexpr NumberRange kAnyDegrees = {-3600.0, 3600.0};

// A value and where it stands. Cheap to copy; the document must outlive it. Every method throws ReadFailure
// where the value is not what is asked for.
class JsonCursor {
 public:
  JsonCursor(const Json& value, std::string pointer) : value_(&value), pointer_(std::move(pointer)) {}

  // Refuses keys that are not in `known`, naming the nearest one that is. The heading keys are always known.
  void only_keys(const std::vector<std::string_view>& known) const;
  bool has(std::string_view key) const;
  bool is_list() const;
  JsonCursor at(std::string_view key) const;  // Refuses where it is missing.
  std::vector<JsonCursor> elements() const;   // Of an array.

  double number(const NumberRange& range) const;
  int integer(int low, int high) const;
  std::uint64_t whole(std::uint64_t low, std::uint64_t high) const;  // To the last digit.
  bool truth() const;                                                // true or false.
  std::string text() const;                                          // Any string.
  std::string name() const;  // A string that is not empty, without control characters.
  Vec3 vec3(const NumberRange& range) const;
  Vec2 vec2(const NumberRange& range) const;
  std::size_t one_of(const std::vector<std::string_view>& words) const;  // Index in `words`.

  // Leave `value` as it is where the key is missing.
  void number_if(std::string_view key, const NumberRange& range, double& value) const;
  void degrees_if(std::string_view key, const NumberRange& range, double& radians_value) const;

  // The same value as a document of its own within another: its heading keys are known too.
  JsonCursor as_document() const {
    JsonCursor copy = *this;
    copy.is_document_ = true;
    return copy;
  }

  [[noreturn]] void fail(const std::string& what) const { throw ReadFailure{pointer_, what}; }
  const std::string& pointer() const { return pointer_; }
  const Json& value() const { return *value_; }

 private:
  void must_be(bool right, const char* wanted) const;

  const Json* value_;
  std::string pointer_;
  bool is_document_ = pointer_.empty();
};

// Adds a row's `id` to those seen; refuses one seen before.
void must_be_new(const JsonCursor& row, const std::string& id, std::set<std::string>& seen);

// Reads `text` as a document with the heading `"lagniappe": kind, "version": 1` and hands it to `read(cursor)`.
// Refuses text that is not JSON, nests deeper than 64, or names a key twice in one object.
template <typename Read>
auto read_document(std::string_view text, const std::string& file, std::string_view kind, Read read)
    -> Result<decltype(read(std::declval<JsonCursor>()))>;

// The parts of read_document().
Result<Json> parse_json(std::string_view text, const std::string& file);
void check_heading(const JsonCursor& document, std::string_view kind);
Error locate(std::string_view text, const std::string& file, const ReadFailure& failure);

template <typename Read>
auto read_document(std::string_view text, const std::string& file, std::string_view kind, Read read)
    -> Result<decltype(read(std::declval<JsonCursor>()))> {
  const Result<Json> json = parse_json(text, file);
  if (!json) return refuse(json.error());
  try {
    const JsonCursor document(*json, "");
    check_heading(document, kind);
    return read(document);
  } catch (const ReadFailure& failure) {
    return refuse(locate(text, file, failure));
  }
}

// Returns the byte at which the value at the pointer begins; nothing where there is no such value. REQUIRES:
// JSON.
std::optional<std::size_t> find_json_value(std::string_view text, const std::string& pointer);

// The text of a value; what is no UTF-8 in it is replaced. Nothing else in this folder writes JSON.
std::string dumped(const Json& json, int indent = -1);
std::string dumped(const nlohmann::ordered_json& json, int indent = -1);

// Reads a file, or as much of it as `most` bytes. Refuses what is missing, no file, unreadable, or, where all
// of it is wanted, over 1 GiB.
Result<std::string> read_text(const std::string& path, std::size_t most = std::string::npos);

// Returns where in the text something is no UTF-8; nothing where all is. Asked before text from outside gets
// into anything that will be written as JSON.
std::optional<std::size_t> find_no_utf8(std::string_view text);

// "line 3, column 14" of a byte.
std::string line_and_column(std::string_view text, std::size_t byte);

}  // namespace lagniappe
