// SPDX-License-Identifier: MIT
#include "io/take_document.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <functional>
#include <limits>

#include "io/document_writers.h"
#include "lagniappe/states.h"
#include "sim/state_fields.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostPathPoints = 4096;

struct FieldWriter {
  Json& json;
  template <typename T>
  void operator()(const char* name, const T& value, FieldOf) const {
    if constexpr (std::is_enum_v<T>) {
      json[name] = static_cast<int>(value);
    } else if constexpr (std::is_same_v<T, Vec3>) {
      json[name] = {value.x, value.y, value.z};
    } else if constexpr (std::is_same_v<T, Quat>) {
      json[name] = {value.w, value.x, value.y, value.z};
    } else if constexpr (std::is_same_v<T, glm::vec3>) {
      json[name] = {value.x, value.y, value.z};
    } else {
      json[name] = value;
    }
  }
};

// What a take did not know yet stays as it is by default.
struct FieldReader {
  const JsonCursor& map;
  const PartVersions& known;
  template <typename T>
  void operator()(const char* name, T& value, FieldOf field) const {
    if (field.since > known[static_cast<std::size_t>(field.part)] && !map.has(name)) return;
    const JsonCursor cursor = map.at(name);
    if constexpr (std::is_same_v<T, StateId>) {
      value = static_cast<T>(cursor.integer(0, kMostStates - 1));
    } else if constexpr (std::is_same_v<T, Verdict>) {
      value = static_cast<T>(cursor.integer(0, static_cast<int>(kVerdictNames.size()) - 1));
    } else if constexpr (std::is_same_v<T, Hold::Kind>) {
      value = static_cast<T>(cursor.integer(0, static_cast<int>(kHoldNames.size()) - 1));
    } else if constexpr (std::is_same_v<T, Surface::Walk>) {
      value = static_cast<T>(cursor.integer(0, static_cast<int>(Surface::Walk::Never)));
    } else if constexpr (std::is_same_v<T, bool>) {
      value = cursor.truth();
    } else if constexpr (std::is_same_v<T, Vec3>) {
      value = cursor.vec3({-1e9, 1e9});
    } else if constexpr (std::is_same_v<T, glm::vec3>) {
      value = glm::vec3(cursor.vec3({-1e9, 1e9}));
    } else if constexpr (requires { value.fill(0.0f); }) {
      const auto e = cursor.elements();
      if (e.size() != value.size()) cursor.fail(fmt::format("there should be {} numbers", value.size()));
      for (std::size_t i = 0; i < e.size(); ++i) value[i] = static_cast<float>(e[i].number({-1e12, 1e12}));
    } else if constexpr (std::is_same_v<T, Quat>) {
      const auto e = cursor.elements();
      if (e.size() != 4) cursor.fail("a rotation has 4 numbers");
      const NumberRange unit = {-1.0, 1.0};
      value = Quat(e[0].number(unit), e[1].number(unit), e[2].number(unit), e[3].number(unit));
      if (std::abs(glm::length(value) - 1.0) > 1e-6) cursor.fail("this is no rotation");
    } else if constexpr (std::is_integral_v<T> && std::is_signed_v<T>) {
      value = static_cast<T>(cursor.integer(std::numeric_limits<T>::min(), std::numeric_limits<T>::max()));
    } else if constexpr (std::is_integral_v<T>) {
      value = static_cast<T>(cursor.whole(std::numeric_limits<T>::min(), std::numeric_limits<T>::max()));
    } else {
      value = static_cast<T>(cursor.number({-1e12, 1e12}));
    }
  }
};

Json earlier_sticks(const InputFrame& f) {
  Json list = Json::array();
  // As sticks_at() goes through them: a game may fill them as it likes.
  for (double share = 0.0;;) {
    const SticksUntil s = sticks_at(f, share);
    if (s.until >= 1.0f) break;
    list.push_back({double(s.until), s.move.x, s.move.y, s.turn_rate.x, s.turn_rate.y});
    share = s.until;
  }
  return list;
}

Json frame_list(const InputFrame& f) {
  Json list = {f.move.x,      f.move.y,      f.look_delta.x, f.look_delta.y,
               f.turn_rate.x, f.turn_rate.y, f.held.bits,    f.pressed.bits};
  if (f.look) list.insert(list.end(), {f.look->x, f.look->y});
  if (f.look && f.look_at != 0.0f) list.push_back(double(f.look_at));
  // Instants within the tick: [button, share] of what went down, then of what went up, then of how the sticks
  // stood before; left out where all is at its beginning.
  Json down = Json::array(), up = Json::array();
  for (std::size_t i = 0; i < kActionCount; ++i) {
    if (f.pressed_at[i] != 0.0f) down.push_back({i, double(f.pressed_at[i])});
    if (f.released_at[i] != 0.0f) up.push_back({i, double(f.released_at[i])});
  }
  const Json sticks = earlier_sticks(f);
  if (!down.empty() || !up.empty() || !sticks.empty()) list.insert(list.end(), {down, up});
  if (!sticks.empty()) list.push_back(sticks);
  return list;
}

void read_instants(const JsonCursor& list, std::array<float, kActionCount>& at) {
  for (const JsonCursor& one : list.elements()) {
    const auto e = one.elements();
    if (e.size() != 2) one.fail("an instant has the number of a button and a share of the tick");
    at[static_cast<std::size_t>(e[0].integer(0, kActionCount - 1))] =
        static_cast<float>(e[1].number({0.0, 1.0}));
  }
}

using Elements = std::vector<JsonCursor>;

Vec2 pair_at(const Elements& e, std::size_t i) {
  return {e[i].number({-1e6, 1e6}), e[i + 1].number({-1e6, 1e6})};
}

void read_sticks(const JsonCursor& list, InputFrame& frame) {
  const Elements all = list.elements();
  if (all.empty() || all.size() > frame.earlier.size())
    list.fail(fmt::format("sticks stood otherwise in 1 to {} earlier parts of a tick", frame.earlier.size()));
  float since = 0.0f;
  for (std::size_t i = 0; i < all.size(); ++i) {
    const Elements e = all[i].elements();
    if (e.size() != 5) all[i].fail("sticks have a share of the tick and 4 numbers");
    const auto until = static_cast<float>(e[0].number({0.0, 1.0}));
    if (until <= since || until >= 1.0f) e[0].fail("shares of the tick rise, between 0 and 1");
    frame.earlier[i] = {pair_at(e, 1), pair_at(e, 3), since = until};
  }
}

InputFrame read_frame(const JsonCursor& list) {
  const Elements e = list.elements();
  std::size_t numbers = 0;
  while (numbers < e.size() && !e[numbers].is_list()) ++numbers;
  const std::size_t lists = e.size() - numbers;
  if (numbers < 8 || numbers == 9 || numbers > 11) list.fail("an input has 8, 10 or 11 numbers");
  if (lists == 1 || lists > 3) list.fail("after its numbers an input has no list, or two, or three");
  const auto pair = [&](std::size_t i) { return pair_at(e, i); };
  const int all = (1 << kActionCount) - 1;
  InputFrame frame;
  frame.move = pair(0);
  frame.look_delta = pair(2);
  frame.turn_rate = pair(4);
  frame.held.bits = static_cast<std::uint32_t>(e[6].integer(0, all));
  frame.pressed.bits = static_cast<std::uint32_t>(e[7].integer(0, all));
  if (numbers >= 10) frame.look = pair(8);
  if (numbers == 11) frame.look_at = static_cast<float>(e[10].number({0.0, 1.0}));
  if (lists >= 2) {
    read_instants(e[numbers], frame.pressed_at);
    read_instants(e[numbers + 1], frame.released_at);
  }
  if (lists == 3) read_sticks(e[numbers + 2], frame);
  return frame;
}

// Equal inputs in a row are stored once, with their count.
Json runs_of(const Take& take, std::size_t first, std::size_t last) {
  Json runs = Json::array();
  for (std::size_t i = first; i < last; ++i) {
    Json list = frame_list(take.inputs[i]);
    if (!runs.empty() && runs.back()[1] == list) {
      runs.back()[0] = runs.back()[0].get<std::uint64_t>() + 1;
    } else {
      runs.push_back({1u, std::move(list)});
    }
  }
  return runs;
}

void read_runs(const JsonCursor& runs, std::vector<InputFrame>& inputs) {
  for (const JsonCursor& run : runs.elements()) {
    const auto e = run.elements();
    if (e.size() != 2) run.fail("a run of inputs has a count and an input");
    const auto count = static_cast<std::size_t>(e[0].integer(1, 1'000'000'000));
    if (count > kMostTicks - inputs.size())
      run.fail(fmt::format("with these the take has more than {} ticks, which is the most that can be held",
                           kMostTicks));
    inputs.insert(inputs.end(), count, read_frame(e[1]));
  }
}

// Hashes are hexadecimal digits, so many for each tick: whole numbers of 64 bits get lost in many readers of
// JSON.
constexpr std::size_t kDigitsOfPart = 8, kDigitsUndivided = 16;

void read_hashes(const JsonCursor& cursor, std::size_t digits_each, std::size_t ticks,
                 const std::function<void(std::size_t, std::uint64_t)>& take) {
  const std::string digits = cursor.text();
  if (digits.size() != digits_each * ticks)
    cursor.fail(fmt::format("there must be {} digits for each tick", digits_each));
  for (std::size_t i = 0; i < ticks; ++i) {
    std::uint64_t hash = 0;
    const char *begin = digits.data() + i * digits_each, *end = begin + digits_each;
    const auto [at, wrong] = std::from_chars(begin, end, hash, 16);
    if (wrong != std::errc() || at != end) cursor.fail("these are no hexadecimal digits");
    take(i, hash);
  }
}

// Of `ticks` more ticks.
void read_hashes(const JsonCursor& cursor, std::size_t ticks, Take& take) {
  if (cursor.value().is_string())
    return read_hashes(cursor, kDigitsUndivided, ticks,
                       [&](std::size_t, std::uint64_t hash) { take.undivided_hashes.push_back(hash); });
  if (take.parts == PartVersions{}) return;  // What knows no part proves nothing.
  std::vector<std::string_view> names;
  for (std::size_t part = 0; part < kStatePartCount; ++part)
    if (take.parts[part] > 0) names.push_back(kStateParts[part].name);
  cursor.only_keys(names);
  const std::size_t before = take.hashes.size();
  take.hashes.resize(before + ticks);
  for (std::size_t part = 0; part < kStatePartCount; ++part) {
    if (take.parts[part] == 0) continue;
    read_hashes(cursor.at(kStateParts[part].name), kDigitsOfPart, ticks,
                [&](std::size_t i, std::uint64_t hash) {
                  take.hashes[before + i][part] = static_cast<std::uint32_t>(hash);
                });
  }
}

std::string digits_of(const std::vector<std::uint64_t>& hashes, std::size_t first, std::size_t last) {
  std::string digits;
  for (std::size_t i = first; i < last; ++i) fmt::format_to(std::back_inserter(digits), "{:016x}", hashes[i]);
  return digits;
}

Json part_digits(const Take& take, std::size_t first, std::size_t last) {
  Json json = Json::object();
  for (std::size_t part = 0; part < kStatePartCount; ++part) {
    if (take.parts[part] == 0) continue;
    std::string digits;
    for (std::size_t i = first; i < last; ++i)
      fmt::format_to(std::back_inserter(digits), "{:08x}", take.hashes[i][part]);
    json[std::string(kStateParts[part].name)] = std::move(digits);
  }
  return json;
}

Json parts_json(const PartVersions& versions) {
  Json json = Json::object();
  for (std::size_t i = 0; i < versions.size(); ++i) {
    if (versions[i] > 0) json[std::string(kStateParts[i].name)] = versions[i];
  }
  return json;
}

PartVersions read_parts(const JsonCursor& map) {
  PartVersions versions{};
  if (!map.value().is_object()) map.fail("the parts of a state are an object of names and versions");
  for (const auto& member : map.value().items()) {
    const std::string& name = member.key();
    const auto row = std::find_if(kStateParts.begin(), kStateParts.end(),
                                  [&](const StatePartRow& each) { return each.name == name; });
    if (row == kStateParts.end())
      map.at(name).fail("this part of a state is not known here: a later version of the program recorded it");
    const int version = map.at(name).integer(1, 1'000'000);
    if (version > row->version)
      map.at(name).fail(fmt::format(
          "version {} of this part can be read, this is {}: a later version of the program recorded it",
          row->version, version));
    versions[static_cast<std::size_t>(row - kStateParts.begin())] = version;
  }
  return versions;
}

void read_dropped(const JsonCursor& part, Take& take) {
  if (!part.has("dropped")) return;
  for (const JsonCursor& drop : part.at("dropped").elements()) {
    const auto e = drop.elements();
    if (e.size() != 2) drop.fail("dropped time is a tick and seconds");
    take.dropped.push_back(
        {static_cast<std::uint64_t>(e[0].integer(0, 2'000'000'000)), e[1].number({0.0, 1e9})});
  }
}

void read_devices(const JsonCursor& part, Take& take) {
  if (!part.has("devices")) return;
  for (const JsonCursor& use : part.at("devices").elements()) {
    const auto e = use.elements();
    if (e.size() != 2) use.fail("a device is a tick and a name");
    const std::uint64_t from = e[0].whole(0, take.inputs.size());
    if (!take.devices.empty() && from < take.devices.back().from_tick)
      use.fail("this device drove before the one above it");
    note_device(take.devices, from, e[1].text());
  }
}

}  // namespace

Json about_json(const TakeAbout& about) {
  Json path = Json::array();
  for (const Vec2& p : about.path) path.push_back({p.x, p.y});
  Json json = {{"name", about.name},         {"note", about.note}, {"star", about.star},
               {"recorded", about.recorded}, {"path", path},       {"ticks", about.ticks}};
  if (!about.devices.empty()) json["devices"] = about.devices;
  if (about.tick_rate == 0) return json;
  json.update({{"course", about.course}, {"profile", about.profile}, {"tick_rate", about.tick_rate}});
  return json;
}

Json head_json(const Take& take) {
  Json start;
  each_field(take.start, FieldWriter{start});
  return {{"start", start},
          {"parts", parts_json(take.parts)},
          {"tick_rate", take.tick_rate},
          {"course", course_json(*take.course)},
          {"course_identity", fmt::format("{:016x}", take.course_identity)},
          {"course_file", take.course_file},
          {"profile", profile_json(take.profile)},
          {"profile_identity", fmt::format("{:016x}", take.profile_identity)},
          {"profile_file", take.profile_file}};
}

Json part_json(const Take& take, std::size_t first, std::size_t last) {
  Json part = {{"inputs", runs_of(take, first, last)}};
  if (take.hashes.size() >= last) part["hashes"] = part_digits(take, first, last);
  if (take.undivided_hashes.size() >= last) part["hashes"] = digits_of(take.undivided_hashes, first, last);
  for (const DroppedTime& drop : take.dropped) {
    // What was dropped after the last tick belongs to the last part.
    const bool behind = last == take.inputs.size() && drop.after_tick >= last;
    if (drop.after_tick >= first && (drop.after_tick < last || behind))
      part["dropped"].push_back({drop.after_tick, drop.seconds});
  }
  for (const DeviceUse& use : take.devices) {
    if (use.from_tick >= first && use.from_tick < last) part["devices"].push_back({use.from_tick, use.device});
  }
  return part;
}

Json end_json(const Take& take) { return {{"end", take.inputs.size()}}; }

TakeAbout read_about(const JsonCursor& cursor) {
  cursor.only_keys(
      {"name", "note", "star", "recorded", "path", "ticks", "devices", "course", "profile", "tick_rate"});
  TakeAbout about;
  about.name = cursor.at("name").text();
  about.note = cursor.at("note").text();
  about.star = cursor.at("star").truth();
  about.recorded = cursor.at("recorded").text();
  const auto points = cursor.at("path").elements();
  if (points.size() > kMostPathPoints) cursor.at("path").fail("the path has too many points");
  for (const JsonCursor& point : points) about.path.push_back(point.vec2({-1e9, 1e9}));
  about.ticks = cursor.at("ticks").whole(0, std::numeric_limits<std::uint64_t>::max());
  if (cursor.has("devices"))
    for (const JsonCursor& name : cursor.at("devices").elements()) about.devices.push_back(name.text());
  if (!cursor.has("tick_rate")) return about;
  about.course = cursor.at("course").text();
  about.profile = cursor.at("profile").text();
  about.tick_rate = cursor.at("tick_rate").integer(10, 480);
  return about;
}

Take read_head(const JsonCursor& head) {
  head.only_keys({"start", "parts", "tick_rate", "course", "course_identity", "course_file", "profile",
                  "profile_identity", "profile_file"});
  const auto identity = [&](std::string_view key) {
    std::uint64_t one = 0;
    read_hashes(head.at(key), kDigitsUndivided, 1, [&](std::size_t, std::uint64_t hash) { one = hash; });
    return one;
  };
  Take take;
  const JsonCursor start = head.at("start");
  // Takes from before parts were named know the first version of those there were.
  take.parts = head.has("parts") ? read_parts(head.at("parts")) : PartVersions{1, 1, 1, 1, 1};
  each_field(take.start, FieldReader{start, take.parts});
  take.tick_rate = head.at("tick_rate").integer(10, 480);
  const JsonCursor course = head.at("course").as_document(), profile = head.at("profile").as_document();
  check_heading(course, "course");
  take.course = std::make_shared<const Course>(read_course_document(course, std::nullopt));
  check_heading(profile, "profile");
  take.profile = read_profile_document(profile);
  take.course_identity = identity("course_identity");
  take.profile_identity = identity("profile_identity");
  take.course_file = head.at("course_file").text();
  take.profile_file = head.at("profile_file").text();
  return take;
}

bool read_part(const JsonCursor& part, Take& take) {
  if (part.has("end")) {
    part.only_keys({"end"});
    const std::size_t ticks = part.at("end").whole(0, std::numeric_limits<std::uint64_t>::max());
    if (ticks != take.inputs.size())
      part.at("end").fail("there should be more ticks, or fewer, than there are");
    return true;
  }
  part.only_keys({"inputs", "hashes", "dropped", "devices"});
  const std::size_t before = take.inputs.size();
  const auto hashed = [&](std::size_t ticks) {
    return std::max(take.hashes.size(), take.undivided_hashes.size()) == ticks;
  };
  const bool all_before = hashed(before);
  read_runs(part.at("inputs"), take.inputs);
  if (all_before && part.has("hashes")) read_hashes(part.at("hashes"), take.inputs.size() - before, take);
  if (!hashed(take.inputs.size())) {
    take.hashes.clear();
    take.undivided_hashes.clear();
  }
  read_dropped(part, take);
  read_devices(part, take);
  return false;
}
void forget_unproved(Take& take) {
  for (std::size_t part = 0; part < kStatePartCount; ++part) {
    if (take.parts[part] >= kStateParts[part].proved_from) continue;
    take.parts[part] = 0;
    for (PartHashes& each : take.hashes) each[part] = 0;
    if (static_cast<StatePart>(part) == StatePart::Hold) take.start.hold = Hold{};
  }
}

}  // namespace lagniappe
