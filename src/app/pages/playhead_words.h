// SPDX-License-Identifier: GPL-3.0-or-later
// What is to be said of the tick under the playhead: what was found, what was refused, and what is behind that.
#pragma once

#include <QString>
#include <optional>

#include "session/drive_session.h"
#include "viewport/readouts.h"

namespace lagniappe::app {

// Findings and refusals, each once. `ledger`: of that tick.
std::vector<Readouts::Told> told_at_playhead(const DriveSession& session, const Ledger& ledger);

// From what was refused to what one can change.
struct WhatIsBehind {
  QString sentence;
  std::string path;              // The profile's value that refused; empty where none did.
  QString enough;                // As one would type it; empty where no value of it would have been.
  std::optional<StateId> state;  // Whose row of the table did, or whose own value.
};
WhatIsBehind behind_refusal(const DriveSession& session, const LedgerEntry& refused);

}  // namespace lagniappe::app
