// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/devices_pane.h"

#include <algorithm>

#include "devices/screen_pad.h"
#include "devices/stick_picture.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kAside = 12.0, kLine = 17.0, kTitle = 24.0, kRadius = 34.0, kTrigger = 12.0, kGap = 10.0;
constexpr double kDrawn = 2.0 * kRadius + kGap + kLine + kGap;  // Height of a device's picture.
constexpr int kPresses = 5;
constexpr double kLongestFrame = 0.25;  // s that one frame may run.

QString pair_text(const Vec2& v) { return QString("%1, %2").arg(v.x, 0, 'f', 2).arg(v.y, 0, 'f', 2); }

// "tick 1204, 3.2 ms in (0.19 of it)".
QString instant_text(std::size_t tick, double share, int tick_rate) {
  return QObject::tr("tick %1, %2 ms in (%3 of it)")
      .arg(tick + 1)
      .arg(1000.0 * share / tick_rate, 0, 'f', 1)
      .arg(share, 0, 'f', 2);
}

}  // namespace

DevicesPane::DevicesPane(const DriveSession& session, const Pads& pads, const ScreenPad& screen_pad,
                         QWidget* parent)
    : QWidget(parent), session_(session), pads_(pads), screen_pad_(screen_pad) {
  setAccessibleName(tr("Devices"));
  refresh();
}

QStringList DevicesPane::head() const {
  QStringList head;
  if (!pads_.trouble().isEmpty()) head += tr("Pads cannot be read: %1").arg(pads_.trouble());
  for (const QString& name : pads_.unknown())
    head += tr("%1: plugged in, but nobody knows how its controls lie; SDL_GAMECONTROLLERCONFIG can say it")
                .arg(name);
  if (pads_.pads().empty() && head.isEmpty()) head += tr("No pad is plugged in; one may be at any time.");
  return head;
}

QStringList DevicesPane::tail() const {
  const Profile::Look& look = session_.profile().look;
  QStringList tail = {tr("Ring: as it stands. Dot: as it counts, without the dead zone."),
                      tr("dead zone %1, stick power %2: on the card Look & camera")
                          .arg(look.dead_zone, 0, 'f', 2)
                          .arg(look.stick_power, 0, 'f', 2)};
  if (!presses_.isEmpty()) tail += tr("Presses, the last one first:");
  return tail + presses_;
}

QStringList DevicesPane::words_of(const Shown& device, const QStringList& down) const {
  const Profile::Look& look = session_.profile().look;
  const Vec2 move = shaped_stick(device.sticks.move, look.dead_zone);
  QStringList words = {tr("move %1, counts as %2").arg(pair_text(device.sticks.move), pair_text(move)),
                       tr("look %1, turns at %2 of its rate")
                           .arg(pair_text(device.sticks.look))
                           .arg(turn_share(look, device.sticks.look), 0, 'f', 2)};
  if (device.triggers)
    words += tr("triggers %1 and %2, pressed from %3 on")
                 .arg(device.triggers->first, 0, 'f', 2)
                 .arg(device.triggers->second, 0, 'f', 2)
                 .arg(Pads::kPulled, 0, 'f', 2);
  words += down.isEmpty() ? tr("nothing is down") : tr("down: %1").arg(down.join(", "));
  return words;
}

std::vector<DevicesPane::Shown> DevicesPane::shown_now() const {
  std::vector<Shown> shown;
  for (const Pads::Pad& pad : pads_.pads()) {
    QStringList down;
    for (const PadControl control : pad.down) down += name_of(control);
    shown.push_back({pad.name, pad.sticks, std::pair(pad.left_trigger, pad.right_trigger), {}});
    shown.back().words = words_of(shown.back(), down);
  }
  if (screen_pad_.isVisible()) {
    QStringList down;
    for (int i = 0; i < kActionCount; ++i)
      if (screen_pad_.is_down(static_cast<Action>(i))) down += qt(kActionNames[std::size_t(i)]);
    shown.push_back({tr("on-screen pad"), screen_pad_.sticks(), std::nullopt, {}});
    shown.back().words = words_of(shown.back(), down);
  }
  return shown;
}

// Out of what was recorded: where in its tick each press is.
void DevicesPane::note_presses() {
  if (!session_.has_shown()) return;
  const Take& take = session_.shown().take;
  if (revision_ != session_.revision()) {
    revision_ = session_.revision();
    presses_.clear();
    seen_ = take.inputs.size();
    // What is driven may have begun with the presses of this very frame.
    if (session_.is_open()) seen_ -= std::min<std::size_t>(seen_, std::size_t(kLongestFrame * take.tick_rate));
  }
  for (; seen_ < take.inputs.size(); ++seen_) {
    const InputFrame& input = take.inputs[seen_];
    for (int i = 0; i < kActionCount; ++i) {
      if (!input.pressed.has(static_cast<Action>(i))) continue;
      const double share = double(input.pressed_at[std::size_t(i)]);
      presses_.prepend(
          tr("%1: %2").arg(qt(kActionNames[std::size_t(i)]), instant_text(seen_, share, take.tick_rate)));
    }
  }
  while (presses_.size() > kPresses) presses_.removeLast();
}

void DevicesPane::refresh() {
  const QStringList before = lines();
  note_presses();
  shown_ = shown_now();
  head_ = head();
  if (lines() == before && isVisible()) return;
  const double drawn = double(shown_.size()) * (kTitle + kDrawn);
  setMinimumHeight(int(2.0 * kGap + drawn + kLine * double(lines().size() + 3 * head_.size())));
  setAccessibleDescription(lines().join("; "));
  update();
}

QStringList DevicesPane::lines() const {
  QStringList all = head_;
  for (const Shown& device : shown_) all += QStringList(device.name) + device.words;
  return all + tail();
}

double DevicesPane::paint_lines(QPainter& painter, const QStringList& lines, double y) const {
  for (const QString& line : lines) {
    const QRectF room(kAside, y, width() - 2.0 * kAside, 3.0 * kLine);
    QRectF used;
    painter.drawText(room, Qt::TextWordWrap | Qt::AlignTop, line, &used);
    y += std::max(kLine, used.height());
  }
  return y;
}

double DevicesPane::paint_device(QPainter& painter, const Shown& device, double y) const {
  const Profile::Look& look = session_.profile().look;
  painter.setFont(theme::text_font(12, true));
  painter.setPen(theme::ink());
  painter.drawText(QRectF(kAside, y, width() - 2.0 * kAside, kTitle), Qt::AlignVCenter, device.name);
  y += kTitle;
  const double middle = y + kGap + kRadius;
  double x = kAside + kRadius;
  const auto caption = [&](double at, const QString& text) {
    painter.setFont(theme::text_font(11));
    painter.setPen(theme::ink2());
    painter.drawText(QRectF(at - 40.0, middle + kRadius + 2.0, 80.0, kLine), Qt::AlignCenter, text);
  };
  const Vec2 move = shaped_stick(device.sticks.move, look.dead_zone);
  paint_stick(painter, {x, middle}, kRadius, {device.sticks.move, move, look.dead_zone});
  caption(x, tr("move"));
  x += 2.0 * kRadius + kGap;
  const double share = turn_share(look, device.sticks.look), pushed = length(device.sticks.look);
  const Vec2 turns = pushed > 0.0 ? device.sticks.look * (share / pushed) : Vec2(0.0);
  paint_stick(painter, {x, middle}, kRadius, {device.sticks.look, turns, look.dead_zone});
  caption(x, tr("look"));
  x += kRadius + kGap;
  paint_turn_curve(painter, {x, middle - kRadius, 1.4 * kRadius, 2.0 * kRadius}, look, device.sticks.look);
  caption(x + 0.7 * kRadius, tr("turns"));
  x += 1.4 * kRadius + kGap;
  if (device.triggers) {
    caption(x + kTrigger + 0.5 * kGap, tr("triggers"));
    for (const double pulled : {device.triggers->first, device.triggers->second}) {
      paint_trigger(painter, {x, middle - kRadius, kTrigger, 2.0 * kRadius}, pulled, Pads::kPulled);
      x += kTrigger + kGap;
    }
  }
  painter.setFont(theme::number_font(11));
  painter.setPen(theme::ink());
  return paint_lines(painter, device.words, y + kDrawn);
}

void DevicesPane::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme::sheet());
  painter.setFont(theme::text_font(12));
  painter.setPen(theme::ink());
  double y = paint_lines(painter, head_, kGap);
  for (const Shown& device : shown_) y = paint_device(painter, device, y);
  painter.setFont(theme::number_font(11));
  painter.setPen(theme::ink2());
  paint_lines(painter, tail(), y + kGap);
}

}  // namespace lagniappe::app
