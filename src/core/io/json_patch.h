// SPDX-License-Identifier: MIT
// Changing single values of a JSON text, with every other byte left as it is.
#pragma once

#include <string>
#include <string_view>

namespace lagniappe {

// Returns the text with the value at a pointer such as "/ground/response/time" replaced, or put in after the
// last member of its object: on a line of its own where the object is written over several lines. Objects on
// the way that are missing are put in too. REQUIRES: `text` is JSON whose whole is an object; the pointer needs
// no escapes, goes through objects only, and `value` is JSON.
std::string with_json_value(std::string text, std::string_view pointer, std::string_view value);

}  // namespace lagniappe
