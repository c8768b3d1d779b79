// SPDX-License-Identifier: MIT
// The kinds of pieces and of fields, and their keys, as a sheet or as JSON.
#pragma once

namespace lagniappe::cli {

// Prints them; returns the exit code.
int show_pieces(bool json);
int show_fields(bool json);
int show_zones(bool json);

}  // namespace lagniappe::cli
