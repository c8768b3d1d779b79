// SPDX-License-Identifier: MIT
// Changing single values and elements of a JSON text, with every other byte left as it is.
#pragma once

#include <string>
#include <string_view>

namespace lagniappe {

// Returns the text with the value at a pointer such as "/ground/response/time" replaced, or put in after the
// last member of its object: on a line of its own where the object is written over several lines. Objects on
// the way that are missing are put in too. REQUIRES: `text` is JSON whose whole is an object; the pointer needs
// no escapes, goes through objects only, and `value` is JSON.
std::string with_json_value(std::string text, std::string_view pointer, std::string_view value);

// Elements of the list at a pointer such as "/pieces" or "/pieces/3/motion/keys". What is put in stands apart
// from its neighbours as they do from theirs. REQUIRES: the list is there, and so is each element that is
// named; `value` is JSON; other elements keep their bytes.

// Puts `value` in before the element at `index`, or behind the last where there are just so many.
std::string with_json_element(std::string text, std::string_view list, std::size_t index,
                              std::string_view value);
std::string without_json_element(std::string text, std::string_view list, std::size_t index);
// The element at `from` is at `to` afterwards.
std::string with_json_element_moved(std::string text, std::string_view list, std::size_t from, std::size_t to);

}  // namespace lagniappe
