// SPDX-License-Identifier: GPL-3.0-or-later
// Guards and firings in words.
#pragma once

#include <QString>

#include "session/states_desk.h"

namespace lagniappe::app {

// "intent > 0.02 (0.98)" for a part of a guard.
QString part_words(const std::string& guard, const GuardPart& part);
// A line for each part, with a mark for whether it holds and, where it is known, since when. Rich text.
QString story_html(const std::string& guard, const GuardStory& story);
// "Walk to Rise", and what let it: "can_jump". As the tick saw it before its motion.
QString firing_words(const StatesDesk& desk, const Firing& firing);
QString firing_guard_words(const StatesDesk& desk, const Firing& firing);

// The transition of a row as it leaves a state; null if it does not.
const StateChart::Transition* transition_of(const StateChart& chart, StateId from, std::size_t row);

}  // namespace lagniappe::app
