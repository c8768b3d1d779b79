// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/pad_reader.h"

#define SDL_MAIN_HANDLED
#include <SDL.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <utility>

namespace lagniappe::app {
namespace {

// What a press may be off by while a pad is there; and how long one waits for a pad that is plugged in.
constexpr auto kBetweenReads = std::chrono::milliseconds(2), kBetweenLooks = std::chrono::milliseconds(100);
// A stick at rest trembles by less.
constexpr double kTremble = 1.0 / 512.0;

constexpr std::pair<SDL_GameControllerButton, PadControl> kButtons[] = {
    {SDL_CONTROLLER_BUTTON_A, PadControl::FaceLow},
    {SDL_CONTROLLER_BUTTON_B, PadControl::FaceRight},
    {SDL_CONTROLLER_BUTTON_X, PadControl::FaceLeft},
    {SDL_CONTROLLER_BUTTON_Y, PadControl::FaceHigh},
    {SDL_CONTROLLER_BUTTON_LEFTSHOULDER, PadControl::LeftShoulder},
    {SDL_CONTROLLER_BUTTON_RIGHTSHOULDER, PadControl::RightShoulder},
    {SDL_CONTROLLER_BUTTON_LEFTSTICK, PadControl::LeftStickIn},
    {SDL_CONTROLLER_BUTTON_RIGHTSTICK, PadControl::RightStickIn},
    {SDL_CONTROLLER_BUTTON_DPAD_UP, PadControl::CrossUp},
    {SDL_CONTROLLER_BUTTON_DPAD_DOWN, PadControl::CrossDown},
    {SDL_CONTROLLER_BUTTON_DPAD_LEFT, PadControl::CrossLeft},
    {SDL_CONTROLLER_BUTTON_DPAD_RIGHT, PadControl::CrossRight},
    {SDL_CONTROLLER_BUTTON_BACK, PadControl::Back},
    {SDL_CONTROLLER_BUTTON_START, PadControl::Start},
};

PadControl control_of(int button) {
  for (const auto& [each, control] : kButtons)
    if (each == button) return control;
  return PadControl::None;
}

bool differs(double a, double b) {
  // Rest and the rim are reached whole.
  return a != b && (std::abs(a - b) >= kTremble || b == 0.0 || std::abs(b) == 1.0);
}

bool differs(const Vec2& a, const Vec2& b) { return differs(a.x, b.x) || differs(a.y, b.y); }

}  // namespace

// Everything of SDL is on this thread.
class PadReader::Loop {
 public:
  explicit Loop(PadReader& reader) : reader_(reader) {}
  ~Loop() {
    for (const auto& [id, pad] : pads_) SDL_GameControllerClose(pad.device);
    if (begun_) SDL_QuitSubSystem(SDL_INIT_GAMECONTROLLER);
  }

  // Returns why not, or nothing.
  std::string begin() {
    SDL_SetMainReady();
    SDL_SetHint(SDL_HINT_NO_SIGNAL_HANDLERS, "1");                // They are the program's.
    SDL_SetHint(SDL_HINT_JOYSTICK_ALLOW_BACKGROUND_EVENTS, "1");  // There is no window of SDL's.
    begun_ = SDL_InitSubSystem(SDL_INIT_GAMECONTROLLER) == 0;
    return begun_ ? std::string() : SDL_GetError();
  }

  void pass() {
    SDL_Event event;
    while (SDL_PollEvent(&event) != 0) take(event);
    for (auto& [id, pad] : pads_) watch(id, pad);
    reader_.add(std::exchange(events_, {}));
  }

  bool has_pads() const { return !pads_.empty(); }

 private:
  struct Pad {
    SDL_GameController* device;
    Sticks sticks;
    double left = 0.0, right = 0.0;

    double axis(SDL_GameControllerAxis which) const {
      return std::clamp(SDL_GameControllerGetAxis(device, which) / 32767.0, -1.0, 1.0);
    }
  };

  PadEvent& tell(PadEvent::Kind kind, int pad) {
    events_.push_back({kind, pad, now()});
    return events_.back();
  }

  void take(const SDL_Event& event) {
    using Kind = PadEvent::Kind;
    if (event.type == SDL_CONTROLLERDEVICEADDED) open(event.cdevice.which);
    if (event.type == SDL_JOYDEVICEADDED && SDL_IsGameController(event.jdevice.which) == SDL_FALSE)
      tell(Kind::Unknown, -1).name = text_of(SDL_JoystickNameForIndex(event.jdevice.which));
    if (event.type == SDL_CONTROLLERDEVICEREMOVED) close(event.cdevice.which);
    if (event.type != SDL_CONTROLLERBUTTONDOWN && event.type != SDL_CONTROLLERBUTTONUP) return;
    const PadControl control = control_of(event.cbutton.button);
    if (control == PadControl::None || !pads_.contains(event.cbutton.which)) return;
    const bool down = event.type == SDL_CONTROLLERBUTTONDOWN;
    tell(down ? Kind::Down : Kind::Up, event.cbutton.which).control = control;
  }

  void open(int index) {
    SDL_GameController* device = SDL_GameControllerOpen(index);
    if (device == nullptr) return;  // It is gone again.
    const int id = SDL_JoystickInstanceID(SDL_GameControllerGetJoystick(device));
    if (!pads_.emplace(id, Pad{device, {}}).second) return SDL_GameControllerClose(device);
    tell(PadEvent::Kind::Came, id).name = text_of(SDL_GameControllerName(device));
  }

  void close(int id) {
    const auto pad = pads_.find(id);
    if (pad == pads_.end()) return;
    SDL_GameControllerClose(pad->second.device);
    pads_.erase(pad);
    tell(PadEvent::Kind::Lost, id);
  }

  void watch(int id, Pad& pad) {
    const Sticks sticks = {{pad.axis(SDL_CONTROLLER_AXIS_LEFTX), -pad.axis(SDL_CONTROLLER_AXIS_LEFTY)},
                           {pad.axis(SDL_CONTROLLER_AXIS_RIGHTX), -pad.axis(SDL_CONTROLLER_AXIS_RIGHTY)}};
    if (differs(pad.sticks.move, sticks.move) || differs(pad.sticks.look, sticks.look)) {
      pad.sticks = sticks;
      tell(PadEvent::Kind::Sticks, id).sticks = sticks;
    }
    const double left = pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT),
                 right = pad.axis(SDL_CONTROLLER_AXIS_TRIGGERRIGHT);
    if (!differs(pad.left, left) && !differs(pad.right, right)) return;
    pad.left = left;
    pad.right = right;
    PadEvent& event = tell(PadEvent::Kind::Triggers, id);
    event.left_trigger = left;
    event.right_trigger = right;
  }

  static std::string text_of(const char* name) { return name == nullptr || *name == 0 ? "a pad" : name; }

  PadReader& reader_;
  std::map<int, Pad> pads_;
  std::vector<PadEvent> events_;
  bool begun_ = false;
};

PadReader::PadReader(std::function<void()> something)
    : something_(std::move(something)), thread_([this] {
        Loop loop(*this);
        const std::string trouble = loop.begin();
        {
          const std::lock_guard lock(mutex_);
          trouble_ = trouble;
        }
        reads_ = trouble.empty();
        while (reads_ && !stop_) {
          loop.pass();
          std::this_thread::sleep_for(loop.has_pads() ? kBetweenReads : kBetweenLooks);
        }
      }) {}

PadReader::~PadReader() {
  stop_ = true;
  thread_.join();
}

void PadReader::add(std::vector<PadEvent> events) {
  if (events.empty()) return;
  bool first = false;
  {
    const std::lock_guard lock(mutex_);
    first = events_.empty();
    events_.insert(events_.end(), std::make_move_iterator(events.begin()),
                   std::make_move_iterator(events.end()));
  }
  if (first) something_();
}

std::vector<PadEvent> PadReader::take() {
  const std::lock_guard lock(mutex_);
  return std::exchange(events_, {});
}

std::string PadReader::trouble() const {
  const std::lock_guard lock(mutex_);
  return trouble_;
}

double PadReader::now() {
  return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

}  // namespace lagniappe::app
