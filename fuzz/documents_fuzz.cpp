// SPDX-License-Identifier: MIT
// Every reader of text and bytes, by the first byte: none may crash, and a refusal must be one whole sentence.
#include <cstdlib>
#include <string>

#include "lagniappe/files.h"
#include "lagniappe/scxml.h"
#include "lagniappe/step.h"

using namespace lagniappe;

namespace {

template <typename T>
void look_at(const Result<T>& result) {
  if (result) return;
  const Error& error = result.error();
  if (error.file.empty() || error.place.empty() || error.what.empty()) std::abort();
  if (error.sentence().find('\n') != std::string::npos) std::abort();
}

// Other values saved into the text of a profile must read back as they are.
void save_another(std::string_view text) {
  Profile other;
  other.jump.height = 1.7;
  other.ground.response.time = 0.3;
  other.look.lowest_pitch = radians(-61.0);
  other.notes["jump.height"] = "the \"sill\"\n";
  const auto saved = profile_text(other, text, "fuzz");
  if (!saved) std::abort();
  const auto read = parse_profile(*saved, "fuzz");
  if (!read || identity_of(*read) != identity_of(other) || read->notes != other.notes) std::abort();
}

// Whatever guards and scripts a table has, the character stays somewhere.
void drive(const Profile& profile) {
  static const TriangleWorld world = [] {
    TriangleWorld::Builder builder;
    builder.begin_piece("floor");
    builder.add({Vec3(-50, 0, -50), Vec3(-50, 0, 50), Vec3(50, 0, 50)});
    builder.add({Vec3(-50, 0, -50), Vec3(50, 0, 50), Vec3(50, 0, -50)});
    return builder.commit({Box{Vec3(-100), Vec3(100)}});
  }();
  CharacterState state = start_state(profile, Home{}, world);
  InputFrame input;
  input.move = Vec2(0.3, 1.0);
  for (std::uint32_t tick = 0; tick < 6; ++tick) {
    input.pressed.bits = input.held.bits = 0b101011u >> tick & 0x3fu;
    state = step(state, input, profile, world, 1.0 / 60.0);
    if (!is_finite(state.foot_C) || !is_finite(state.velocity_C)) std::abort();
  }
}

// A chart that was read is written, and read back to the same.
void look_at_chart(std::string_view text) {
  const auto chart = parse_scxml(text, "fuzz");
  look_at(chart);
  if (!chart) return;
  const auto again = parse_scxml(scxml_text(chart->table, chart->name), "fuzz");
  if (!again || again->table != chart->table) std::abort();
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  if (size == 0) return 0;
  const std::string_view text(reinterpret_cast<const char*>(data) + 1, size - 1);
  switch (data[0] % 6) {
    case 0: {
      const auto course = parse_course(text, "fuzz", "/nonexistent");
      look_at(course);
      if (course && course->pieces.size() < 50) build_world(*course);
      break;
    }
    case 1: {
      const auto profile = parse_profile(text, "fuzz");
      look_at(profile);
      if (profile) save_another(text);
      if (profile && profile->states) drive(*profile);
      break;
    }
    case 2:
      look_at(parse_inputs(text, "fuzz"));
      break;
    case 3:
      look_at(parse_take_json(text, "fuzz"));
      break;
    case 5:
      look_at_chart(text);
      break;
    default: {
      const auto recovered = recover_take(text, "fuzz");
      // What is recovered can be written, and is whole then.
      if (recovered && !parse_take(take_bytes(recovered->take), "fuzz")) std::abort();
      look_at(parse_take(text, "fuzz"));
    }
  }
  return 0;
}
