// SPDX-License-Identifier: MIT
// A take as JSON values: what its CBOR and its JSON form have in common.
//
// `about` is what people say of it; `head` all that is known when the recording begins; each of `parts` holds
// the inputs of a stretch, and the last says how many there are in all.
#pragma once

#include "io/json_document.h"
#include "lagniappe/take.h"

namespace lagniappe {

Json about_json(const TakeAbout& about);
Json head_json(const Take& take);
// The inputs from `first` on, with their hashes and dropped times.
Json part_json(const Take& take, std::size_t first, std::size_t last);
Json end_json(const Take& take);

// Throw ReadFailure.
TakeAbout read_about(const JsonCursor& about);
Take read_head(const JsonCursor& head);
// Adds what the part holds. Returns true for the last one.
bool read_part(const JsonCursor& part, Take& take);

// Takes back the hashes of parts whose fields have been laid out anew since; what is held there is let go.
void forget_unproved(Take& take);

}  // namespace lagniappe
