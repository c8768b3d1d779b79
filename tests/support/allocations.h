// SPDX-License-Identifier: MIT
// Counts heap allocations of this thread.
#pragma once

#include <cstddef>

namespace lagniappe::test {
std::size_t allocations();  // Since the program began.
}
