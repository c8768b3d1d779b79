// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/air_jumps_row.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "cards/value_line.h"
#include "lagniappe/handling.h"

namespace lagniappe::app {

AirJumpsRow::AirJumpsRow(ValuesDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 0, 0, 0);
  column->setSpacing(2);
  for (int k = 1; k <= kMost; ++k) {
    auto* row = lines_[std::size_t(k - 1)] = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* field = fields_[std::size_t(k - 1)] = new ValueField(QString("air jump %1 height").arg(k), "m");
    field->setFixedWidth(104);
    field->setToolTip(tr("Height of air jump %1 above where it begins, however fast the fall").arg(k));
    line->addWidget(new QLabel(tr("air jump %1: height").arg(k)), 1);
    line->addWidget(field);
    column->addWidget(row);
    connect_line(*field, desk_, "jump.air_jump_height", tr("The air jump stays as it was"),
                 [this, k](double value, int gesture) { change(k, value, gesture); });
  }
}

void AirJumpsRow::change(int jump, double height, int gesture) {
  Profile profile = desk_.now();
  Curve curve;
  curve.count = std::clamp(int(profile.jump.air_jumps), jump, kMost);
  for (int k = 1; k <= curve.count; ++k)
    curve.points[k - 1] = Vec2(k, k == jump ? std::clamp(height, 0.0, 100.0) : jump_height(profile, k));
  profile.jump.air_jump_height = curve;
  desk_.set(profile, tr("height of air jump %1").arg(jump), gesture);
}

void AirJumpsRow::show_profile(const Profile& now) {
  for (int k = 1; k <= kMost; ++k) {
    lines_[std::size_t(k - 1)]->setVisible(k <= now.jump.air_jumps);
    fields_[std::size_t(k - 1)]->show_value(jump_height(now, k));
  }
}

}  // namespace lagniappe::app
