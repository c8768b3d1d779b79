// SPDX-License-Identifier: MIT
// Tables of states as state charts in SCXML (W3C recommendation, 2015), for other tools.
//
// What is written: an outermost <state id="any"> holds all, groups are states that hold states, guards are
// `cond`, actions are <script> in <onentry>, <onexit> and <transition>; the datamodel is Lua. What SCXML has no
// word for (behaviour, stance, overrides, priority, shortest stay, order of the table) stands in attributes and
// elements of the namespace urn:lagniappe:states, which other tools keep or pass over. What is read back is the
// same table.
//
// A chart from elsewhere becomes a chart to fill in: states, one level of nesting and transitions are taken;
// conditions that are no guards here, and events, become the guard `false` with the old text as a comment, and
// are told. Its order is kept: SCXML asks inner states before outer ones and transitions in the order of the
// document, which is what equal priorities mean here.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/result.h"
#include "lagniappe/states.h"

namespace lagniappe {

inline constexpr std::string_view kScxmlNamespace = "urn:lagniappe:states";

std::string scxml_text(const StateTable& table, const std::string& name);

struct ScxmlChart {
  std::string name;  // Of the chart; empty if it has none.
  StateTable table;
  // What has no meaning here and was left out or must be filled in, a sentence each with its line.
  std::vector<std::string> remarks;
};

// Refused, with the line, where the text is no XML or no SCXML, or holds what a table cannot (parallel states,
// history, deeper nesting, several targets). The table that is returned can be made a chart of.
Result<ScxmlChart> parse_scxml(std::string_view text, const std::string& file);
Result<ScxmlChart> read_scxml(const std::string& path);

}  // namespace lagniappe
