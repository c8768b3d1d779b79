// SPDX-License-Identifier: MIT
// The part of a profile's document that is its table of states.
#pragma once

#include "io/json_document.h"
#include "lagniappe/states.h"

namespace lagniappe {

inline constexpr std::size_t kMostTransitionRows = 2000;

inline constexpr std::string_view kStateKeys[] = {"based_on", "complete", "states", "transitions",
                                                  "remove",   "order",    "memory", "fallback"};

// An override as one line of JSON, and back. The second throws ReadFailure.
std::string override_text(const Override& o);
Override override_of(const std::string& path, const std::string& text);

// Null where the document has no states. Throws ReadFailure.
std::shared_ptr<const StateChart> read_states(const JsonCursor& document);

// Adds the keys to a profile's document: the whole table, which stands when the one it is based on has changed.
void put_states(const StateTable& table, Json& document);

// Returns each key with its value as text, a line for each state and transition, so that version control shows
// what changed: what differs from the table that this one is based on, or all of it. `indent` is that of the
// keys. `was_based`: the document says so until now.
std::vector<std::pair<std::string, std::string>> states_text(const StateTable& table, const std::string& indent,
                                                             bool was_based);

}  // namespace lagniappe
