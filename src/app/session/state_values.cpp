// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/state_values.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

// A value as an override has it, in the file's unit.
Override override_with(const std::string& path, const Profile& profile) {
  Override o{path, Override::Kind::Value, 0.0, {}, {}};
  if (const ProfileField* field = find_field(path)) o.number = field->typed(profile);
  if (const ProfileCurve* curve = find_curve(path)) o.curve = curve->get(profile);
  if (const ProfileChoice* choice = find_choice(path)) o.number = choice->get(profile);
  return o;
}

// What the state would have without a word of its own on `path`.
Profile without_own(const StateTable& table, std::size_t state, const std::string& path,
                    const Profile& profile) {
  StateTable bare = table;
  std::erase_if(bare.states[state].overrides, [&](const Override& o) { return o.path == path; });
  const auto chart = StateChart::make(bare);
  Profile values = profile;
  if (chart) static_cast<Values&>(values) = (*chart)->values_in(StateId(state), profile);
  return values;
}

}  // namespace

StateValues::StateValues(StatesDesk& states, HandlingDesk& handling, QObject* parent)
    : ValuesDesk(parent), states_(states), handling_(handling) {
  connect(&handling_, &HandlingDesk::changed, this, &StateValues::take_values);
  connect(&states_, &StatesDesk::table_changed, this, &StateValues::take_values);
  connect(this, &ValuesDesk::refused, &handling_, &ValuesDesk::refused);
  take_values();
}

void StateValues::show_state(StateId state) {
  state_ = state;
  take_values();
}

void StateValues::take_values() {
  if (static_cast<std::size_t>(state_) >= states_.chart().size()) state_ = StateId{};
  now_ = handling_.now();
  static_cast<Values&>(now_) = states_.chart().values_in(state_, handling_.now());
  emit changed();
}

bool StateValues::may_differ(const std::string& path) {
  return !path.starts_with("capsule.") && !path.starts_with("look.") && !path.starts_with("camera.");
}

bool StateValues::set(const Profile& profile, const QString& what, int gesture) {
  StateTable table = states_.table();
  const auto at = static_cast<std::size_t>(state_);
  std::vector<Override>& own = table.states[at].overrides;
  for (const ProfileDifference& d : differences(now_, profile)) {
    if (!may_differ(d.path)) continue;
    const Profile bare = without_own(table, at, d.path, handling_.now());
    std::erase_if(own, [&](const Override& o) { return o.path == d.path; });
    if (value_text(bare, d.path) != value_text(profile, d.path)) own.push_back(override_with(d.path, profile));
  }
  const QString name = QString::fromStdString(table.states[at].name);
  const bool taken = states_.change(table, tr("%1 in %2").arg(what, name), gesture);
  take_values();
  return taken;
}

void StateValues::feel(double) {
  emit refused(tr("Only the profile's own values can be felt"),
               tr("Type it into the state, or feel it on the cards of the Drive page."));
}

}  // namespace lagniappe::app
