// SPDX-License-Identifier: GPL-3.0-or-later
// The rail at the left, with a button for each page.
#pragma once

#include <vector>

#include "pages/page.h"

namespace lagniappe::app {

QWidget* make_rail(const std::vector<Page*>& pages, const Actions& actions);

}  // namespace lagniappe::app
