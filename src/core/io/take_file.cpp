// SPDX-License-Identifier: MIT
// A take is a CBOR map {lagniappe: "take", version: 1, checksum, body}; `body` is a byte string that holds the
// CBOR of everything else, and the checksum is over it. Equal inputs in a row are stored once, with their
// count.
#include <fmt/format.h>

#include "io/json_document.h"
#include "lagniappe/files.h"
#include "math/hash.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostTicks = 480ull * 3600 * 24;
constexpr std::size_t kMostDepth = 16;

std::uint64_t checksum_of(std::string_view bytes) {
  Hash hash;
  hash.add(bytes);
  return hash.value();
}

// One list of fields for both directions: `f(name, value)` is called for each.
template <typename State, typename Each>
void each_field(State& s, Each&& f) {
  f("foot", s.foot_C);
  f("velocity", s.velocity_C);
  f("acceleration", s.acceleration_C);
  f("frame", s.frame_CB);
  f("yaw", s.yaw);
  f("pitch", s.pitch);
  f("facing", s.facing);
  f("capsule_height", s.capsule_height);
  f("ground_verdict", s.ground.verdict);
  f("ground_piece", s.ground.piece);
  f("ground_normal", s.ground.normal_C);
  f("ground_point", s.ground.point_C);
  f("ground_walk", s.ground.surface.walk);
  f("ground_is_ground", s.ground.surface.ground);
  f("ground_climbable", s.ground.surface.climbable);
  f("ground_friction", s.ground.surface.friction);
  f("ground_velocity", s.ground_velocity_C);
  f("ground_trend", s.ground_trend_C);
  f("wall_normal", s.wall_normal_C);
  f("time", s.time);
  f("carried", s.carried);
  f("carried_yaw", s.carried_yaw);
  f("home_foot", s.home.foot_C);
  f("home_frame", s.home.frame_CB);
  f("home_yaw", s.home.yaw);
  f("state_time", s.state_time);
  f("since_grounded", s.since_grounded);
  f("since_jump_press", s.since_jump_press);
  f("run_up_speed", s.run_up_speed);
  f("travelled", s.travelled);
  f("eye_offset", s.eye_offset_C);
  f("tick", s.tick);
  f("times_put_home", s.times_put_home);
  f("air_jumps_used", s.air_jumps_used);
  f("held", s.held.bits);
  f("state", s.state);
}

struct FieldWriter {
  Json& json;
  template <typename T>
  void operator()(const char* name, const T& value) const {
    if constexpr (std::is_enum_v<T>) {
      json[name] = static_cast<int>(value);
    } else if constexpr (std::is_same_v<T, Vec3>) {
      json[name] = {value.x, value.y, value.z};
    } else if constexpr (std::is_same_v<T, Quat>) {
      json[name] = {value.w, value.x, value.y, value.z};
    } else {
      json[name] = value;
    }
  }
};

struct FieldReader {
  const JsonCursor& map;
  template <typename T>
  void operator()(const char* name, T& value) const {
    const JsonCursor cursor = map.at(name);
    if constexpr (std::is_same_v<T, StateId>) {
      value = static_cast<T>(cursor.integer(0, kStateCount - 1));
    } else if constexpr (std::is_same_v<T, Verdict>) {
      value = static_cast<T>(cursor.integer(0, static_cast<int>(kVerdictNames.size()) - 1));
    } else if constexpr (std::is_same_v<T, Surface::Walk>) {
      value = static_cast<T>(cursor.integer(0, static_cast<int>(Surface::Walk::Never)));
    } else if constexpr (std::is_same_v<T, bool>) {
      value = cursor.truth();
    } else if constexpr (std::is_same_v<T, Vec3>) {
      value = cursor.vec3({-1e9, 1e9});
    } else if constexpr (std::is_same_v<T, Quat>) {
      const auto e = cursor.elements();
      if (e.size() != 4) cursor.fail("a rotation has 4 numbers");
      const NumberRange unit = {-1.0, 1.0};
      value = Quat(e[0].number(unit), e[1].number(unit), e[2].number(unit), e[3].number(unit));
      if (std::abs(glm::length(value) - 1.0) > 1e-6) cursor.fail("this is no rotation");
    } else if constexpr (std::is_integral_v<T>) {
      if (!cursor.value().is_number_integer()) cursor.fail("a whole number is wanted here");
      value = cursor.value().get<T>();
    } else {
      value = cursor.number({-1e12, 1e12});
    }
  }
};

Json frame_list(const InputFrame& f) {
  Json list = {f.move.x,      f.move.y,      f.look_delta.x, f.look_delta.y,
               f.turn_rate.x, f.turn_rate.y, f.held.bits,    f.pressed.bits};
  if (f.look) list.insert(list.end(), {f.look->x, f.look->y});
  return list;
}

InputFrame read_frame(const JsonCursor& list) {
  const auto e = list.elements();
  if (e.size() != 8 && e.size() != 10) list.fail("an input has 8 or 10 numbers");
  const auto pair = [&](std::size_t i) { return Vec2(e[i].number({-1e6, 1e6}), e[i + 1].number({-1e6, 1e6})); };
  const int all = (1 << kActionCount) - 1;
  InputFrame frame{pair(0), pair(2), pair(4), std::nullopt, {}, {}};
  frame.held.bits = static_cast<std::uint32_t>(e[6].integer(0, all));
  frame.pressed.bits = static_cast<std::uint32_t>(e[7].integer(0, all));
  if (e.size() == 10) frame.look = pair(8);
  return frame;
}

Json runs_of(const std::vector<InputFrame>& inputs) {
  Json runs = Json::array();
  for (const InputFrame& input : inputs) {
    Json list = frame_list(input);
    if (!runs.empty() && runs.back()[1] == list) {
      runs.back()[0] = runs.back()[0].get<std::uint64_t>() + 1;
    } else {
      runs.push_back({1u, std::move(list)});
    }
  }
  return runs;
}

Take read_body(const JsonCursor& body) {
  Take take;
  const JsonCursor start = body.at("start");
  each_field(take.start, FieldReader{start});
  take.tick_rate = body.at("tick_rate").integer(10, 480);
  take.course_name = body.at("course").text();
  take.profile_name = body.at("profile").text();
  FieldReader{body}("course_identity", take.course_identity);
  FieldReader{body}("profile_identity", take.profile_identity);
  for (const JsonCursor& run : body.at("inputs").elements()) {
    const auto e = run.elements();
    if (e.size() != 2) run.fail("a run of inputs has a count and an input");
    const auto count = static_cast<std::size_t>(e[0].integer(1, 1'000'000'000));
    if (count > kMostTicks - take.inputs.size()) run.fail("the take is longer than a day");
    take.inputs.insert(take.inputs.end(), count, read_frame(e[1]));
  }
  return take;
}

// Stops the parser, which recurses, before hostile bytes nest too deep for the stack.
class DepthGuard : public nlohmann::json_sax<Json> {
 public:
  bool null() override { return true; }
  bool boolean(bool) override { return true; }
  bool number_integer(number_integer_t) override { return true; }
  bool number_unsigned(number_unsigned_t) override { return true; }
  bool number_float(number_float_t, const string_t&) override { return true; }
  bool string(string_t&) override { return true; }
  bool binary(binary_t&) override { return true; }
  bool key(string_t&) override { return true; }
  bool start_object(std::size_t) override { return ++depth_ <= kMostDepth; }
  bool start_array(std::size_t) override { return ++depth_ <= kMostDepth; }
  bool end_object() override { return depth_-- > 0; }
  bool end_array() override { return depth_-- > 0; }
  bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
    return false;
  }

 private:
  std::size_t depth_ = 0;
};

Json parse_cbor(std::string_view bytes) {
  DepthGuard guard;
  if (!Json::sax_parse(bytes.begin(), bytes.end(), &guard, nlohmann::detail::input_format_t::cbor)) {
    throw ReadFailure{"", "it is no whole CBOR document; it seems to be cut off or damaged"};
  }
  return Json::from_cbor(bytes.begin(), bytes.end());
}

}  // namespace

std::string take_bytes(const Take& take) {
  Json start;
  each_field(take.start, FieldWriter{start});
  const Json body = {{"start", start},
                     {"tick_rate", take.tick_rate},
                     {"course", take.course_name},
                     {"profile", take.profile_name},
                     {"course_identity", take.course_identity},
                     {"profile_identity", take.profile_identity},
                     {"inputs", runs_of(take.inputs)}};
  const std::vector<std::uint8_t> packed = Json::to_cbor(body);
  const std::string_view view(reinterpret_cast<const char*>(packed.data()), packed.size());
  const Json outer = {
      {"lagniappe", "take"}, {"version", 1}, {"checksum", checksum_of(view)}, {"body", Json::binary(packed)}};
  const std::vector<std::uint8_t> bytes = Json::to_cbor(outer);
  return std::string(bytes.begin(), bytes.end());
}

Result<Take> parse_take(std::string_view bytes, const std::string& file) {
  try {
    const Json outer = parse_cbor(bytes);
    const JsonCursor document(outer, "");
    check_heading(document, "take");
    const JsonCursor body = document.at("body");
    if (!body.value().is_binary()) body.fail("the body must be a byte string");
    const auto& packed = body.value().get_binary();
    const std::string_view view(reinterpret_cast<const char*>(packed.data()), packed.size());
    if (document.at("checksum").value() != checksum_of(view))
      body.fail("the checksum does not fit: the take is damaged");
    const Json inner = parse_cbor(view);
    return read_body(JsonCursor(inner, "/body"));
  } catch (const ReadFailure& failure) {
    return refuse({file, failure.pointer.empty() ? "the whole take" : failure.pointer, failure.what});
  } catch (const nlohmann::json::exception& error) {
    return refuse({file, "the whole take", "it is no whole CBOR document; it seems to be cut off or damaged"});
  }
}

Result<Take> read_take(const std::string& path) {
  return read_text(path).and_then([&](const std::string& bytes) { return parse_take(bytes, path); });
}

}  // namespace lagniappe
