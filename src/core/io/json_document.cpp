// SPDX-License-Identifier: MIT
#include "io/json_document.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "math/ascii.h"
#include "states/words.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostDepth = 64;

// Input for the parser that knows how many bytes were taken.
struct CountingIterator {
  using iterator_category = std::input_iterator_tag;
  using value_type = char;
  using difference_type = std::ptrdiff_t;
  using pointer = const char*;
  using reference = const char&;

  const char* at;
  std::size_t* taken;

  reference operator*() const { return *at; }
  CountingIterator& operator++() {
    ++at;
    ++*taken;
    return *this;
  }
  CountingIterator operator++(int) {
    CountingIterator old = *this;
    ++*this;
    return old;
  }
  bool operator==(const CountingIterator& other) const { return at == other.at; }
  bool operator!=(const CountingIterator& other) const { return at != other.at; }
};

std::string escaped(std::string_view key) {
  std::string out;
  for (const char c : key) out += c == '~' ? "~0" : c == '/' ? "~1" : std::string(1, c);
  return out;
}

// Walks the text once, following the path of each value. Refuses what parse_json() refuses; can also stop at a
// path, to tell where it stands.
class Walker : public nlohmann::json_sax<Json> {
 public:
  Walker(std::string_view text, const std::size_t& taken) : text_(text), taken_(taken) {}

  const std::string* sought = nullptr;  // Where to stop.
  std::optional<std::size_t> found_at;  // Byte of the sought value.
  std::string what;                     // Why the text is refused.
  std::size_t wrong_at = 0;

  bool null() override { return value(); }
  bool boolean(bool) override { return value(); }
  bool number_integer(number_integer_t) override { return value(); }
  bool number_unsigned(number_unsigned_t) override { return value(); }
  bool number_float(number_float_t, const string_t&) override { return value(); }
  bool string(string_t&) override { return value(); }
  bool binary(binary_t&) override { return value(); }
  bool start_object(std::size_t) override { return begin(true); }
  bool start_array(std::size_t) override { return begin(false); }
  bool end_object() override { return end(); }
  bool end_array() override { return end(); }

  bool key(string_t& name) override {
    const std::size_t at = token_begin();
    token_end_ = taken_;
    if (!open_.back().keys.insert(name).second) {
      return refuse_here(at, fmt::format("the key \"{}\" stands twice in this object", name));
    }
    open_.back().key = escaped(name);
    return true;
  }

  bool parse_error(std::size_t position, const std::string& token,
                   const nlohmann::detail::exception& error) override {
    if (!what.empty() || found_at) return false;
    const bool too_large = error.id == 406;
    const bool at_end = position > text_.size() || text_.empty();
    wrong_at = position > 0 ? position - 1 : 0;
    if (text_.find_first_not_of(" \t\r\n") == std::string_view::npos) {
      what = "the file is empty; it should hold a JSON document";
    } else if (too_large) {
      what = fmt::format("the number {} is too large to be held", token);
    } else if (at_end) {
      what = "the file ends in the middle of the JSON document; it seems to be cut off";
    } else {
      what = "this is not valid JSON: " + reason(error.what());
    }
    return false;
  }

 private:
  struct Open {
    bool object;
    std::string key;        // Of the member being read.
    std::size_t index = 0;  // Of the element being read.
    std::set<std::string> keys{};
  };

  // The parser's own reason without its numbering and position.
  static std::string reason(std::string text) {
    const std::size_t at = text.find("syntax error");
    if (at != std::string::npos) text = text.substr(at);
    const std::size_t last_read = text.find("; last read");
    if (last_read != std::string::npos) text.resize(last_read);
    text.erase(std::remove_if(text.begin(), text.end(), [](unsigned char c) { return c < 32 || c > 126; }),
               text.end());
    return text;
  }

  std::size_t token_begin() const {
    const std::size_t mark = token_end_ == 0 && text_.starts_with("\xEF\xBB\xBF") ? 3 : 0;  // Byte order mark.
    const std::size_t at = text_.find_first_not_of(" \t\r\n:,", token_end_ + mark);
    return at == std::string_view::npos ? text_.size() : at;
  }

  std::string path() const {
    std::string out;
    for (const Open& o : open_) out += "/" + (o.object ? o.key : std::to_string(o.index));
    return out;
  }

  // Called at the beginning of every value; false stops the walk.
  bool meet() {
    const std::size_t at = token_begin();
    token_end_ = taken_;
    if (sought == nullptr || path() != *sought) return true;
    found_at = at;
    return false;
  }
  void done() {
    if (!open_.empty()) ++open_.back().index;
  }
  bool value() {
    if (!meet()) return false;
    done();
    return true;
  }
  bool begin(bool object) {
    const std::size_t at = token_begin();
    if (!meet()) return false;
    if (open_.size() == kMostDepth) {
      return refuse_here(at, fmt::format("brackets are nested deeper than {}", kMostDepth));
    }
    open_.push_back({object, {}});
    return true;
  }
  bool end() {
    token_end_ = taken_;
    open_.pop_back();
    done();
    return true;
  }
  bool refuse_here(std::size_t at, std::string reason) {
    what = std::move(reason);
    wrong_at = at;
    return false;
  }

  std::string_view text_;
  const std::size_t& taken_;
  std::size_t token_end_ = 0;
  std::vector<Open> open_;
};

// Runs the walker over the text; false where it stopped.
bool walk(std::string_view text, Walker& walker, std::size_t& taken) {
  return Json::sax_parse(CountingIterator{text.data(), &taken},
                         CountingIterator{text.data() + text.size(), &taken}, &walker);
}

std::string nearest(std::string_view key, const std::vector<std::string_view>& known) {
  return std::string(*std::min_element(known.begin(), known.end(), [&](auto a, auto b) {
    return edit_distance(key.substr(0, 64), a) < edit_distance(key.substr(0, 64), b);
  }));
}

// A piece of the file's text that is fit for one line of a message.
std::string shown(std::string_view text) {
  std::string out(text.substr(0, 40));
  for (char& c : out) {
    if (static_cast<unsigned char>(c) < 32) c = ' ';
  }
  while (!out.empty() && (out.back() & 0xC0) == 0x80) out.pop_back();  // No half characters.
  return out.size() < text.size() ? out + "..." : out;
}

}  // namespace

std::string line_and_column(std::string_view text, std::size_t byte) {
  byte = std::min(byte, text.size());
  const std::string_view before = text.substr(0, byte);
  const auto line = 1 + std::count(before.begin(), before.end(), '\n');
  const std::size_t line_start = before.rfind('\n') == std::string_view::npos ? 0 : before.rfind('\n') + 1;
  return fmt::format("line {}, column {}", line, byte - line_start + 1);
}

std::string dumped(const Json& json, int indent) {
  return json.dump(indent, ' ', false, Json::error_handler_t::replace);
}

std::string dumped(const nlohmann::ordered_json& json, int indent) {
  return json.dump(indent, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

// The well-formed sequences of the Unicode Standard, table 3-7.
std::optional<std::size_t> find_no_utf8(std::string_view text) {
  const auto byte = [&](std::size_t i) { return i < text.size() ? static_cast<unsigned char>(text[i]) : 0u; };
  for (std::size_t at = 0; at < text.size();) {
    const unsigned first = byte(at), second = byte(at + 1);
    if (first < 0x80) {
      ++at;
      continue;
    }
    const std::size_t more = first >= 0xF0 ? 3 : first >= 0xE0 ? 2 : 1;
    const unsigned low = first == 0xE0   ? 0xA0
                         : first == 0xF0 ? 0x90
                                         : 0x80,
                   high = first == 0xED   ? 0x9F
                          : first == 0xF4 ? 0x8F
                                          : 0xBF;
    if (first < 0xC2 || first > 0xF4 || second < low || second > high) return at;
    for (std::size_t i = 2; i <= more; ++i) {
      if (byte(at + i) < 0x80 || byte(at + i) > 0xBF) return at;
    }
    at += more + 1;
  }
  return std::nullopt;
}

Result<Json> parse_json(std::string_view text, const std::string& file) {
  std::size_t taken = 0;
  Walker walker(text, taken);
  if (!walk(text, walker, taken)) return refuse({file, line_and_column(text, walker.wrong_at), walker.what});
  return Json::parse(text);
}

std::optional<std::size_t> find_json_value(std::string_view text, const std::string& pointer) {
  std::size_t taken = 0;
  Walker walker(text, taken);
  walker.sought = &pointer;
  walk(text, walker, taken);
  return walker.found_at;
}

void must_be_new(const JsonCursor& row, const std::string& id, std::set<std::string>& seen) {
  if (!seen.insert(id).second)
    row.at("id").fail(fmt::format("the id \"{}\" is used before; each must be its own", id));
}

Error locate(std::string_view text, const std::string& file, const ReadFailure& failure) {
  const std::string place = line_and_column(text, find_json_value(text, failure.pointer).value_or(0));
  return {file, failure.pointer.empty() ? place : place + " (" + failure.pointer + ")", failure.what};
}

void check_heading(const JsonCursor& document, std::string_view kind) {
  if (!document.value().is_object()) document.fail("a document must be an object, {...}");
  if (!document.has("lagniappe")) {
    document.fail(
        fmt::format("this is no Lagniappe document: it should begin with \"lagniappe\": \"{}\"", kind));
  }
  const std::string found = document.at("lagniappe").text();
  if (found != kind) {
    document.at("lagniappe")
        .fail(fmt::format("this document is a \"{}\", but a \"{}\" is wanted here", shown(found), kind));
  }
  const JsonCursor version = document.at("version");
  if (version.value() != 1) version.fail("this version is not known; this program reads version 1");
}

void JsonCursor::must_be(bool right, const char* wanted) const {
  if (right) return;
  fail(fmt::format("{} is wanted here, not {}", wanted, shown(dumped(*value_))));
}

void JsonCursor::only_keys(const std::vector<std::string_view>& known) const {
  must_be(value_->is_object(), "an object");
  for (const auto& [key, unused] : value_->items()) {
    const bool heading = is_document_ && (key == "lagniappe" || key == "version");
    if (heading || std::find(known.begin(), known.end(), key) != known.end()) continue;
    throw ReadFailure{pointer_ + "/" + escaped(key),
                      fmt::format("the key \"{}\" is not known; the nearest known key is \"{}\"", shown(key),
                                  nearest(key, known))};
  }
}

bool JsonCursor::is_list() const { return value_->is_array(); }

bool JsonCursor::has(std::string_view key) const { return value_->is_object() && value_->contains(key); }

JsonCursor JsonCursor::at(std::string_view key) const {
  must_be(value_->is_object(), "an object");
  const auto found = value_->find(key);
  if (found == value_->end()) fail(fmt::format("the key \"{}\" is missing here", key));
  return {*found, pointer_ + "/" + escaped(key)};
}

std::vector<JsonCursor> JsonCursor::elements() const {
  must_be(value_->is_array(), "a list");
  std::vector<JsonCursor> out;
  out.reserve(value_->size());
  for (std::size_t i = 0; i < value_->size(); ++i)
    out.emplace_back((*value_)[i], pointer_ + "/" + std::to_string(i));
  return out;
}

double JsonCursor::number(const NumberRange& range) const {
  must_be(value_->is_number(), "a number");
  const double x = value_->get<double>();
  const bool inside = x <= range.high && (range.above_low ? x > range.low : x >= range.low);
  if (!inside) {
    fail(fmt::format("{} is out of range: it must be {} {} and at most {}", x,
                     range.above_low ? "above" : "at least", range.low, range.high));
  }
  return x;
}

int JsonCursor::integer(int low, int high) const {
  const double x = number({double(low), double(high)});
  if (x != std::floor(x)) fail(fmt::format("a whole number is wanted here, not {}", x));
  return static_cast<int>(x);
}

std::uint64_t JsonCursor::whole(std::uint64_t low, std::uint64_t high) const {
  must_be(value_->is_number_integer(), "a whole number");
  const bool negative = !value_->is_number_unsigned() && value_->get<std::int64_t>() < 0;
  const std::uint64_t x = negative ? 0 : value_->get<std::uint64_t>();
  if (negative || x < low || x > high)
    fail(fmt::format("{} is out of range: it must be at least {} and at most {}", dumped(*value_), low, high));
  return x;
}

bool JsonCursor::truth() const {
  must_be(value_->is_boolean(), "true or false");
  return value_->get<bool>();
}

std::string JsonCursor::text() const {
  must_be(value_->is_string(), "a text");
  return value_->get<std::string>();
}

std::string JsonCursor::name() const {
  const std::string value = text();
  if (value.empty()) fail("a name must not be empty");
  if (std::any_of(value.begin(), value.end(), ascii::is_control))
    fail("a name must be a line of text, without control characters");
  return value;
}

namespace {
std::vector<JsonCursor> fixed(const JsonCursor& list, std::size_t count) {
  auto elements = list.elements();
  if (elements.size() != count)
    list.fail(fmt::format("a list of {} numbers is wanted here, not of {}", count, elements.size()));
  return elements;
}
}  // namespace

Vec3 JsonCursor::vec3(const NumberRange& range) const {
  const auto e = fixed(*this, 3);
  return {e[0].number(range), e[1].number(range), e[2].number(range)};
}

Vec2 JsonCursor::vec2(const NumberRange& range) const {
  const auto e = fixed(*this, 2);
  return {e[0].number(range), e[1].number(range)};
}

std::size_t JsonCursor::one_of(const std::vector<std::string_view>& words) const {
  const std::string found = text();
  const auto at = std::find(words.begin(), words.end(), found);
  if (at == words.end())
    fail(fmt::format("\"{}\" is not known here; the nearest known word is \"{}\"", shown(found),
                     nearest(found, words)));
  return static_cast<std::size_t>(at - words.begin());
}

void JsonCursor::number_if(std::string_view key, const NumberRange& range, double& value) const {
  if (has(key)) value = at(key).number(range);
}

void JsonCursor::degrees_if(std::string_view key, const NumberRange& range, double& radians_value) const {
  if (has(key)) radians_value = radians(at(key).number(range));
}

}  // namespace lagniappe
