// SPDX-License-Identifier: GPL-3.0-or-later
// What Ctrl+K finds besides actions: values, states, pieces, marks and takes.
#pragma once

#include "widgets/command_search.h"

namespace lagniappe::app {

class DrivePage;
class DriveSession;
class StatesDesk;
class TakeDesk;

// What is found, and what happens with it. `on_drive_page` brings that page up first; `show_state`
// its own.
struct SearchPlaces {
  DriveSession& session;
  TakeDesk& takes;
  StatesDesk& states;
  DrivePage& page;
  std::function<void()> on_drive_page;
  std::function<void(std::size_t state)> show_state;
  std::function<void(const QString& file)> open;
};

void add_named(const SearchPlaces& places, std::vector<SearchEntry>& entries);

}  // namespace lagniappe::app
