// SPDX-License-Identifier: MIT
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>
#include <catch2/catch.hpp>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "io/exact_degrees.h"
#include "support/plain_numbers.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const Course& stair_course() {
  static const Course course = *parse_course(R"({"lagniappe":"course","version":1,"name":"Stair yard",
    "surfaces":[{"id":"silt","friction":0.4},{"id":"oak","climbable":true}],
    "pieces":[{"id":"yard","kind":"block","at":[0,-1,0],"size":[60,1,60],"turn":[33.3,0,0]},
              {"id":"flight","kind":"stairs","at":[0,0,-3],"width":3,"rise":0.18,"run":0.28,"count":6,"surface":"oak"},
              {"id":"coil","kind":"spiral-stairs","at":[9,0,0],"inner":0.2,"outer":2,"rise":0.17,"angle":-21.7,"count":9},
              {"id":"bank","kind":"ramp","at":[-9,0,0],"size":[3,1,7],"turn":[12.5,0.1,-0.7],"surface":"silt"},
              {"id":"ferry","kind":"block","at":[4,0,4],"size":[1,0.2,1],"turn":[1,2,3],
               "motion":{"period":7,"phase":0.1,"repeat":"back-and-forth","path":"curved","pivot":[0.5,0,0],
                 "keys":[{"at":0},{"at":0.3,"move":[1,0,2],"turn":[10.1,0,0],"ease":"smooth"},{"at":1,"move":[3,1,2]}]}},
              {"id":"pearl","kind":"ball","at":[20,0,0],"radius":0.7,"sag":0.013},
              {"id":"bean","kind":"pill","at":[20,0,4],"radius":0.3,"length":0.9,"turn":[3,77,1]},
              {"id":"hoop","kind":"ring","at":[20,0,8],"radius":1.1,"thickness":0.2,"sag":0.02},
              {"id":"hose","kind":"tube","at":[20,0,12],"points":[[0,0.4,0],[1.3,0.5,0.1],[2.2,0.9,1.7]],"radius":0.2,"sag":0.03},
              {"id":"loop","kind":"tube","at":[20,0,18],"points":[[0,0.4,0],[2,0.5,0],[1,0.9,2]],"radius":0.1,"closed":true,"sag":0.03},
              {"id":"net","kind":"triangles","at":[0,5,0],"vertices":[[0,0,0],[1,0,0],[0,0,1.1],[1,0.1,1]],
               "triangles":[[0,2,1],[1,2,3]],"surfaces":["silt",{"walk":"never","friction":0.25}],"surface_of":[2,1]}],
    "fields":[{"id":"far","kind":"ring","at":[90,0,0],"turn":[1,2,3],"radius":3.3,"thickness":0.7,"strength":-0.7,
               "falloff":"inverse","reach":2.2,"fade":0.3,"priority":-2,"on":"ferry"},
              {"id":"line","kind":"path","at":[90,1,0],"points":[[0,0.4,0],[2,0.5,0],[1,0.9,2]],"closed":true,"radius":0.6,
               "acceleration":3.1,"falloff":[[0,1],[2,0.3]],"reach":4,"combine":"adds"},
              {"id":"box","kind":"uniform","at":[0,90,0],"size":[1,2,3],"direction":[0.1,0.7,0.3]}],
    "marks":[{"id":"start","at":[0,0,5],"facing":12.345},{"id":"aside","at":[0,0,5],"up":[0.2,0.7,-0.1]}],
    "limits":{"low":[-50,-20,-50],"high":[50,40,50]}})",
                                             "stairs", "");
  return course;
}

Take random_take(std::uint64_t seed) {
  Random random(seed);
  const TriangleWorld world = build_world(stair_course());
  Take take;
  take.course = std::make_shared<const Course>(stair_course());
  take.profile.name = "Warden \"test\"";
  take.profile.ground.steepest_walkable = radians(random.between(20, 60));
  take.profile.jump.air_jumps = random.below(4);
  take.start = run(standing_at(take.profile, random.point(3.0), 0.4), take.profile, world, 60, 0.5,
                   [](double) { return push(0.3, 1); });
  take.tick_rate = 144;
  take.course_identity = identity_of(world);
  take.profile_identity = identity_of(take.profile);
  take.about = {"stairs, walk",
                "a note\nof two lines",
                true,
                "2026-11-23T10:00:00Z",
                {{1, 2}, {3, 4.5}},
                0,
                "Yard",
                "Otter",
                {"keys and mouse", "Brass \"Pad\""},
                60};
  for (int i = 0; i < 200; ++i) {
    InputFrame input = push(random.between(-1, 1), random.between(-1, 1));
    input.held.bits = static_cast<std::uint32_t>(random.below(128));
    if (i % 3 == 0) input.look = Vec2(random.between(-3, 3), 0.1);
    if (i % 6 == 0) input.look_at = static_cast<float>(random.between(0.1, 0.9));
    for (int k = 0, parts = random.below(kMostEarlierSticks + 1); k < parts; ++k)
      input.earlier[std::size_t(k)] = {Vec2(random.between(-1, 1), 0.5), Vec2(random.between(-1, 1), 0.0),
                                       static_cast<float>(random.between(0.12 * k + 0.01, 0.12 * k + 0.12))};
    for (int k = random.below(4); k >= 0; --k) take.inputs.push_back(input);
  }
  take.dropped = {{17, 0.25}};
  note_device(take.devices, 0, "keys and mouse");
  note_device(take.devices, take.inputs.size() / 2, "Brass \"Pad\"");
  take.about.ticks = take.inputs.size();
  keep_hashes(*run_take(take, world), take);
  return take;
}

// Runs the take on what it holds, nothing else.
void runs_as_recorded(const Take& take) {
  const TriangleWorld world = build_world(*take.course);
  CHECK(identity_of(world) == take.course_identity);
  CHECK(identity_of(take.profile) == take.profile_identity);
  REQUIRE(take.hashes.size() == take.inputs.size());
  CHECK_FALSE(first_difference(*run_take(take, world), take));
}

std::string file_text(const std::string& path) {
  std::ifstream file(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(file), {}};
}

}  // namespace

TEST_CASE("A take reads back to the same run, bit for bit, from CBOR and from JSON") {
  for (std::uint64_t seed = 1; seed < 8; ++seed) {
    const Take take = random_take(seed);
    const auto back = parse_take(take_bytes(take), "x.take");
    REQUIRE(back);
    CHECK(back->inputs.size() == take.inputs.size());
    CHECK(back->tick_rate == 144);
    CHECK(back->profile.name == take.profile.name);
    CHECK(back->about.note == take.about.note);
    CHECK(back->about.path == take.about.path);
    CHECK(back->dropped.at(0).seconds == 0.25);
    CHECK(back->devices.size() == 2);
    CHECK(back->devices == take.devices);
    runs_as_recorded(*back);
    const auto from_json = parse_take_json(take_json(take), "x.json");
    REQUIRE(from_json);
    runs_as_recorded(*from_json);
    CHECK(take_bytes(*from_json) == take_bytes(take));
  }
}

TEST_CASE("A take of sticks with shares that make no sense is written as it was driven, and read back") {
  Take take = random_take(2);
  take.inputs[3].earlier = {
      {{Vec2(1, 0), Vec2(0.0), 0.6f}, {Vec2(-1, 0), Vec2(0.0), 0.3f}, {Vec2(0, 1), Vec2(0.0), 0.9f}}};
  take.inputs[5].earlier = {{{Vec2(1, 0), Vec2(0.0), 1.0f}}};
  const auto back = parse_take(take_bytes(take), "x.take");
  REQUIRE(back);
  for (const std::size_t i : {3u, 5u}) {
    for (const double share : {0.0, 0.45, 0.7, 0.95})
      CHECK(sticks_at(back->inputs[i], share).move == sticks_at(take.inputs[i], share).move);
  }
}

TEST_CASE("Sticks that moved within a tick as none can are refused with their place") {
  const auto refusal = [](const char* input) {
    nlohmann::json json = nlohmann::json::parse(take_json(random_take(1)));
    json["parts"][0]["inputs"][0][1] = nlohmann::json::parse(input);
    const auto take = parse_take_json(json.dump(), "x.json");
    return take ? std::string("fine") : take.error().sentence();
  };
  CHECK(refusal("[0,0,0,0,0,0,0,0,1,0,0.5,[],[],[[0.1,0,1,0,0],[0.2,0,0,0,0],[0.3,0,0,0,0]]]") == "fine");
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,0]"),
             Catch::Contains("8, 10 or 11 numbers") && Catch::Contains("inputs"));
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,[]]"), Catch::Contains("no list, or two, or three"));
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,[],[],[]]"), Catch::Contains("1 to 7 earlier parts"));
  CHECK_THAT(
      refusal("[0,0,0,0,0,0,0,0,[],[],[[0.1,0,0,0,0],[0.2,0,0,0,0],[0.3,0,0,0,0],[0.4,0,0,0,0],[0.5,0,0,0,0],"
              "[0.6,0,0,0,0],[0.7,0,0,0,0],[0.8,0,0,0,0]]]"),
      Catch::Contains("1 to 7 earlier parts"));
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,[],[],[[0.1,0,0,0]]]"),
             Catch::Contains("a share of the tick and 4 numbers"));
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,[],[],[[0.5,0,0,0,0],[0.2,0,0,0,0]]]"), Catch::Contains("rise"));
  CHECK_THAT(refusal("[0,0,0,0,0,0,0,0,[],[],[[0,0,0,0,0]]]"), Catch::Contains("between 0 and 1"));
}

TEST_CASE("Devices go with the ticks that they drove: in parts, at other rates, and noted once") {
  std::vector<DeviceUse> devices;
  note_device(devices, 0, "keys and mouse");
  note_device(devices, 7, "keys and mouse");
  note_device(devices, 40, "Brass Pad");
  note_device(devices, 40, "keys and mouse");  // Who is last in a tick; and it went on all the time.
  note_device(devices, 60, "on-screen pad");
  note_device(devices, 90, "keys and mouse");
  CHECK(devices ==
        std::vector<DeviceUse>{{0, "keys and mouse"}, {60, "on-screen pad"}, {90, "keys and mouse"}});
  CHECK(names_of(devices) == std::vector<std::string>{"keys and mouse", "on-screen pad"});
  Take take = random_take(2);
  REQUIRE(take.inputs.size() > 100);
  take.devices = devices;
  CHECK(part_of(take, 70, 95, take.start).devices ==
        std::vector<DeviceUse>{{0, "on-screen pad"}, {20, "keys and mouse"}});
  CHECK(part_of(take, 10, 20, take.start).about.devices == std::vector<std::string>{"keys and mouse"});
  const TriangleWorld world = build_world(*take.course);
  const Take slower = retake_of(take, take.profile, take.course, take.course_identity, world, 48);
  CHECK(slower.devices ==
        std::vector<DeviceUse>{{0, "keys and mouse"}, {20, "on-screen pad"}, {30, "keys and mouse"}});
}

TEST_CASE("Devices that are out of order, or are no tick and name, are refused with their place") {
  const auto refusal = [](const nlohmann::json& devices) {
    nlohmann::json json = nlohmann::json::parse(take_json(random_take(3)));
    json["parts"][0]["devices"] = devices;
    const auto take = parse_take_json(json.dump(), "x.json");
    return take ? std::string("fine") : take.error().sentence();
  };
  CHECK(refusal({{0, "keys and mouse"}, {9, "Brass Pad"}}) == "fine");
  CHECK_THAT(refusal({{9, "Brass Pad"}, {0, "keys and mouse"}}), Catch::Contains("before the one above it"));
  CHECK_THAT(refusal({{9}}), Catch::Contains("a tick and a name"));
  CHECK_THAT(refusal({{"keys and mouse", 9}}), Catch::Contains("parts"));
  CHECK_THAT(refusal({{1000000, "Brass Pad"}}), Catch::Contains("devices"));
}

TEST_CASE("A take embeds every kind of piece, surface and motion, and models as triangles") {
  for (const char* file : {"courses/tidewheel.course.json", "courses/tidewheel.glb"}) {
    const auto course = read_course(std::string(LAGNIAPPE_SOURCE_DIR "/") + file);
    REQUIRE(course);
    Take take;
    take.course = std::make_shared<const Course>(*course);
    take.course_identity = identity_of(build_world(*course));
    const auto back = parse_take(take_bytes(take), "x.take");
    REQUIRE(back);
    CHECK(identity_of(build_world(*back->course)) == take.course_identity);
    CHECK(back->course->marks.size() == course->marks.size());
  }
}

TEST_CASE("A damaged take is refused with a sentence, wherever it is damaged") {
  const std::string whole = take_bytes(random_take(3));
  Random random(17);
  for (std::size_t n = 0; n < whole.size(); n += 1 + whole.size() / 97)
    CHECK_FALSE(parse_take(whole.substr(0, n), "x.take"));
  int accepted = 0;
  for (int i = 0; i < 500; ++i) {
    std::string damaged = whole;
    damaged[static_cast<std::size_t>(random.below(int(whole.size())))] ^= char(1 << random.below(8));
    const auto take = parse_take(damaged, "x.take");
    accepted += take.has_value();
    if (!take) CHECK_FALSE(take.error().what.empty());
  }
  CHECK(accepted == 0);
  CHECK_FALSE(parse_take(std::string(200000, '\x81'), "x.take"));  // Nested lists.
  CHECK_FALSE(parse_take("", "x.take"));
  CHECK_FALSE(parse_take(whole + "x", "x.take"));
}

TEST_CASE("What was journalled before a take broke off is recovered, and runs as it was recorded") {
  const Take take = random_take(5);
  TakeJournal journal(take);
  std::string bytes;
  std::vector<std::pair<std::size_t, std::size_t>> written;  // Bytes and ticks.
  Take growing = take;
  growing.inputs.clear();
  growing.hashes.clear();
  for (std::size_t i = 0; i < take.inputs.size(); ++i) {
    growing.inputs.push_back(take.inputs[i]);
    growing.hashes.push_back(take.hashes[i]);
    if (i % 70 != 69) continue;
    bytes += journal.next(growing);
    written.emplace_back(bytes.size(), i + 1);
  }
  for (const auto& [size, ticks] : written) {
    // Cut right after a part, and amid the next one.
    for (const std::size_t cut : {size, std::min(size + 9, bytes.size())}) {
      const auto recovered = recover_take(std::string_view(bytes).substr(0, cut), "x.journal");
      REQUIRE(recovered);
      CHECK_FALSE(recovered->whole);
      CHECK(recovered->take.inputs.size() == ticks);
      runs_as_recorded(recovered->take);
    }
  }
  growing.inputs = take.inputs;
  growing.hashes = take.hashes;
  bytes += journal.end(growing);
  const auto whole = parse_take(bytes, "x.take");
  REQUIRE(whole);
  CHECK(whole->inputs.size() == take.inputs.size());
}

TEST_CASE("A flipped bit among the inputs costs only what comes after it") {
  Take take = random_take(9);
  const std::vector<InputFrame> once = take.inputs;
  while (take.inputs.size() < 9000) take.inputs.insert(take.inputs.end(), once.begin(), once.end());
  take.hashes.clear();
  std::string bytes = take_bytes(take);
  bytes[bytes.size() - 200] ^= 4;
  const auto recovered = recover_take(bytes, "x.take");
  REQUIRE(recovered);
  CHECK_FALSE(recovered->whole);
  CHECK(recovered->take.inputs.size() == 8192);  // Two whole parts.
  const auto refused = parse_take(bytes, "x.take");
  REQUIRE_FALSE(refused);
  CHECK(refused.error().sentence() ==
        "x.take: after tick 8192: the take is damaged or cut off here; the 56.89 s before it can be recovered");
}

TEST_CASE("What a take is about is read without the rest") {
  const std::string path = "/tmp/lagniappe-about-" + std::to_string(::getpid()) + ".take";
  const Take take = random_take(2);
  REQUIRE(write_file(path, take_bytes(take)));
  const auto about = read_take_about(path);
  REQUIRE(about);
  CHECK(about->name == "stairs, walk");
  CHECK(about->star);
  CHECK(about->ticks == take.inputs.size());
  REQUIRE(write_file(path, "no take at all"));
  CHECK_FALSE(read_take_about(path));
  REQUIRE(write_file(path, file_text(LAGNIAPPE_SOURCE_DIR "/profiles/heron.profile.json")));
  CHECK_FALSE(read_take_about(path));
  ::unlink(path.c_str());
}

TEST_CASE("Angles are written so that they read back to the same bits") {
  Random random(4);
  for (int i = 0; i < 100000; ++i) {
    const double angle = radians(random.between(-400, 400));
    REQUIRE(radians(exact_degrees(angle)) == angle);
  }
}

TEST_CASE("Angles come back from a file as they were written") {
  for (int i = -36000; i <= 36000; ++i) {
    const double written = i / 100.0;
    REQUIRE(exact_degrees(radians(written)) == written);
  }
  Random random(5);
  for (int i = 0; i < 100000; ++i) {
    const double written = std::round(random.between(-360, 360) * 1e6) / 1e6;
    REQUIRE(exact_degrees(radians(written)) == written);
  }
}

TEST_CASE("A trace reads back to the same numbers") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  Take take;
  take.start = standing_at(profile, {0.1, 0, 1.0 / 3.0});
  for (int i = 0; i < 60; ++i) take.inputs.push_back(push(std::sin(i / 60.0), 0.7));
  const Run ran = *run_take(take, world);
  std::istringstream csv(trace_csv(ran, take, world));
  std::string line;
  std::getline(csv, line);
  CHECK(std::count(line.begin(), line.end(), ',') == 29);
  for (std::size_t i = 0; i <= ran.ticks(); ++i) {
    const CharacterState& s = ran.state(i);
    REQUIRE(std::getline(csv, line));
    std::vector<std::string> cell(1);
    for (const char c : line) {
      if (c == ',') {
        cell.emplace_back();
      } else {
        cell.back().push_back(c);
      }
    }
    REQUIRE(cell.size() == 30);
    CHECK(number_of(cell[3]) == s.foot_C.x);
    CHECK(number_of(cell[5]) == s.foot_C.z);
    CHECK(number_of(cell[8]) == s.velocity_C.z);
    CHECK(cell[2] == built_in_chart()->name_of(s.state));
    CHECK(cell[14] == (s.grounded() ? "1" : "0"));
    CHECK(number_of(cell[23]) == -profile.gravity);  // Where no field says otherwise.
    // What was asked for: the stick, limited, at full speed, as the look begins along -Z.
    const Vec2 stick = i > 0 ? shaped_stick(take.inputs[i - 1].move, profile.look.dead_zone) : Vec2(0.0);
    const Vec2 asked = stick * profile.ground.speed;
    CHECK(number_of(cell[27]) == Approx(asked.x).margin(1e-9));
    CHECK(number_of(cell[28]) == 0.0);
    CHECK(number_of(cell[29]) == Approx(-asked.y).margin(1e-9));
  }
}

namespace {

// Runs `body` in a process of its own, whose limits may be set, and returns what it returns.
int in_another_process(const std::function<int()>& body) {
  const pid_t child = ::fork();
  if (child == 0) ::_exit(body());
  int status = 0;
  ::waitpid(child, &status, 0);
  return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

}  // namespace

TEST_CASE("Writing replaces a file whole or leaves it as it was") {
  const std::string path = "/tmp/lagniappe-write-test-" + std::to_string(::getpid()) + ".txt";
  REQUIRE(write_file(path, "one"));
  REQUIRE(write_file(path, "two and more"));
  CHECK(file_text(path) == "two and more");
  CHECK_FALSE(write_file("/nowhere/at/all.txt", "x"));
  CHECK(write_file("/dev/null", "x"));

  SECTION("when the disk is full") {
    const int refused = in_another_process([&] {
      const rlimit small{4096, 4096};
      ::signal(SIGXFSZ, SIG_IGN);
      ::setrlimit(RLIMIT_FSIZE, &small);
      const auto written = write_file(path, std::string(100000, 'x'));
      return written ? 0 : written.error().what.find("cannot be written") != std::string::npos ? 1 : 2;
    });
    CHECK(refused == 1);
  }
  SECTION("when the folder is read-only") {
    const std::string folder = path + ".folder";
    std::filesystem::create_directory(folder);
    REQUIRE(write_file(folder + "/kept.txt", "kept"));
    ::chmod(folder.c_str(), 0555);
    const int refused = in_another_process([&] {
      if (::geteuid() == 0 && ::setuid(65534) != 0) return 3;
      return write_file(folder + "/kept.txt", "new") ? 0 : 1;
    });
    CHECK(refused == 1);
    CHECK(file_text(folder + "/kept.txt") == "kept");
    ::chmod(folder.c_str(), 0755);
    std::filesystem::remove_all(folder);
  }
  CHECK(file_text(path) == "two and more");
  for (const auto& entry : std::filesystem::directory_iterator("/tmp"))
    CHECK(entry.path().string().find(path + ".part") == std::string::npos);
  ::unlink(path.c_str());
}

TEST_CASE("Takes that were recorded before open and are proved in what they knew") {
  // The first two forms: one hash over the whole state, and one for each of five parts.
  for (const char* name : {"undivided", "five-parts"}) {
    INFO(name);
    const auto take = read_take(std::string(LAGNIAPPE_SOURCE_DIR "/tests/core/io/kept/") + name + ".take");
    REQUIRE(take);
    REQUIRE(take->is_hashed());
    CHECK(take->inputs.size() == 210);
    const TriangleWorld world = build_world(*take->course);
    const Run run = *run_take(*take, world);
    CHECK_FALSE(first_difference(run, *take));
    // The proof stays when the take is written anew.
    Take kept = *take;
    keep_hashes(run, kept);
    const auto again = parse_take(take_bytes(kept), "again.take");
    REQUIRE(again);
    CHECK(again->undivided_hashes == take->undivided_hashes);
    CHECK(again->hashes == take->hashes);
    // And it sees a difference: a press that was not there.
    Take other = *take;
    other.inputs[100].pressed.set(Action::Jump, true);
    other.inputs[100].held.set(Action::Jump, true);
    CHECK(first_difference(*run_take(other, world), other) == 101u);
  }
}

TEST_CASE("A part that a take does not know has its defaults, and proves nothing") {
  const Take take = random_take(5);
  auto document = nlohmann::ordered_json::parse(take_json(take));
  auto& head = document["head"];
  head["parts"].erase("seen");
  for (const char* field : {"travelled", "eye_offset", "stride", "slides", "snapped"})
    head["start"].erase(field);
  document["parts"][0]["hashes"].erase("seen");
  const auto read = parse_take_json(document.dump(), "old.take");
  REQUIRE(read);
  CHECK(read->start.travelled == 0.0);
  const TriangleWorld world = build_world(*read->course);
  CHECK_FALSE(first_difference(*run_take(*read, world), *read));
  // What it knows must be there, and hashes of each part it knows.
  auto lacking = document;
  lacking["head"]["start"].erase("velocity");
  CHECK_FALSE(parse_take_json(lacking.dump(), "old.take"));
  lacking = document;
  lacking["parts"][0]["hashes"].erase("ground");
  CHECK_FALSE(parse_take_json(lacking.dump(), "old.take"));
  lacking = document;
  lacking["parts"][0]["hashes"]["seen"] = "";
  CHECK_FALSE(parse_take_json(lacking.dump(), "old.take"));
  // What knows nothing claims no proof.
  lacking = document;
  lacking["head"]["parts"] = nlohmann::ordered_json::object();
  lacking["parts"][0]["hashes"] = nlohmann::ordered_json::object();
  const auto unproved = parse_take_json(lacking.dump(), "old.take");
  REQUIRE(unproved);
  CHECK_FALSE(unproved->is_hashed());
}

TEST_CASE("A part that has been laid out anew since is read, proves nothing, and all else is proved") {
  const Take take = random_take(5);
  auto document = nlohmann::ordered_json::parse(take_json(take));
  auto& head = document["head"];
  head["parts"]["hold"] = 1;
  head["start"]["hold_kind"] = 1;
  for (const char* field : {"hold_at", "hold_numbers"}) head["start"].erase(field);
  const auto read = parse_take_json(document.dump(), "old.take");
  REQUIRE(read);
  CHECK_FALSE(read->start.holding());
  CHECK(read->parts[static_cast<std::size_t>(StatePart::Hold)] == 0);
  CHECK(read->parts[static_cast<std::size_t>(StatePart::Body)] == 1);
  CHECK_FALSE(first_difference(*run_take(*read, build_world(*read->course)), *read));
  const auto again = parse_take_json(take_json(*read), "again.take");
  REQUIRE(again);
  CHECK(again->hashes == read->hashes);
}

TEST_CASE("A take of a later version of the program is refused and says why") {
  auto document = nlohmann::ordered_json::parse(take_json(random_take(5)));
  document["head"]["parts"]["shadow"] = 1;
  const auto unknown = parse_take_json(document.dump(), "new.take");
  REQUIRE_FALSE(unknown);
  CHECK(unknown.error().sentence().find("this part of a state is not known here") != std::string::npos);
  CHECK(unknown.error().sentence().find("/head/parts/shadow") != std::string::npos);
  document["head"]["parts"].erase("shadow");
  document["head"]["parts"]["ground"] = 99;
  const auto later = parse_take_json(document.dump(), "new.take");
  REQUIRE_FALSE(later);
  CHECK(later.error().sentence().find("version 1 of this part can be read, this is 99") != std::string::npos);
}
