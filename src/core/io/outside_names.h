// SPDX-License-Identifier: MIT
// Names that come from files: what may be opened because a file says so, and what may be a name of ours.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace lagniappe {

// Returns why a file that is named in a document is not opened; nothing if it may be: a plain relative name,
// below the document's own folder.
std::optional<std::string> file_name_fault(std::string_view name);

// The text as a name: control characters become blanks, and what is no UTF-8 a question mark.
std::string plain_name(std::string_view text);

}  // namespace lagniappe
