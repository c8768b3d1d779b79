// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/jump_locks_row.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>

#include "cards/value_line.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr std::array<const char*, 4> kNames = {"height", "time to apex", "gravity", "take-off speed"};

QString name_of(JumpValue which) { return JumpLocksRow::tr(kNames[static_cast<std::size_t>(which)]); }

}  // namespace

JumpLocksRow::JumpLocksRow(JumpLocks& locks, ValuesDesk& desk, QWidget* parent)
    : QWidget(parent),
      locks_(locks),
      desk_(desk),
      height_(new ValueRow("jump.height", desk)),
      gravity_(new ValueRow("gravity", desk)),
      time_(new ValueField("jump time to apex", "s")),
      take_off_(new ValueField("jump take-off speed", "m/s")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 4);
  column->setSpacing(0);
  for (const auto& [row, which] :
       {std::pair{height_, JumpValue::Height}, std::pair{gravity_, JumpValue::Gravity}}) {
    row->lead_with(lock_button(which));
    row->assign_by([this, which = which](double value, int gesture) { change(which, value, gesture); });
  }
  column->addWidget(height_);
  column->addWidget(follower(JumpValue::TimeToApex, time_));
  column->addWidget(gravity_);
  column->addWidget(follower(JumpValue::TakeOff, take_off_));
}

QToolButton* JumpLocksRow::lock_button(JumpValue which) {
  auto* button = buttons_[static_cast<std::size_t>(which)] = new QToolButton;
  button->setObjectName("lock");
  button->setCheckable(true);
  button->setIconSize({12, 12});
  button->setAccessibleName(tr("Lock the %1").arg(name_of(which)));
  connect(button, &QToolButton::clicked, this, [this, which] { lock(which); });
  return button;
}

// A value that is not in the profile, but can be set all the same.
QWidget* JumpLocksRow::follower(JumpValue which, ValueField* field) {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(14, 2, 0, 2);
  line->setSpacing(6);
  auto* name = new QLabel(name_of(which));
  name->setBuddy(field);
  field->setFixedWidth(104);
  line->addWidget(lock_button(which));
  line->addWidget(name, 1);
  line->addWidget(field);
  connect_line(*field, desk_, "jump.height", tr("The jump stays as it was"),
               [this, which](double value, int gesture) { change(which, value, gesture); });
  return row;
}

// Two are always locked: locking another lets go the one that was locked first.
void JumpLocksRow::lock(JumpValue which) {
  if (!locks_.has(which)) locks_ = {locks_.second, which};
  emit desk_.changed();
}

void JumpLocksRow::change(JumpValue which, double value, int gesture) {
  desk_.attend(which == JumpValue::Gravity ? "gravity" : "jump.height");
  const auto made = with_jump_value(desk_.now(), locks_, which, value);
  if (made) {
    desk_.set(*made, name_of(which), gesture);
    return;
  }
  desk_.tell_refused(tr("The jump stays as it was"),
                     tr("With what is locked no jump has a %1 of %2.").arg(name_of(which)).arg(value));
}

void JumpLocksRow::show_profiles(const Profile& now, const Profile& reference) {
  height_->show_profiles(now, reference);
  gravity_->show_profiles(now, reference);
  time_->show_value(jump_value(now, JumpValue::TimeToApex));
  take_off_->show_value(jump_value(now, JumpValue::TakeOff));
  for (std::size_t i = 0; i < buttons_.size(); ++i) {
    const bool locked = locks_.has(static_cast<JumpValue>(i));
    buttons_[i]->setChecked(locked);
    buttons_[i]->setIcon(theme::icon(locked ? "lock" : "lock-open"));
    buttons_[i]->setToolTip(locked ? tr("Locked: stays when another of the four is changed")
                                   : tr("Follows. Click to lock it; the one that was locked first is let go"));
  }
}

}  // namespace lagniappe::app
