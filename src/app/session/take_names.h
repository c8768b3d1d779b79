// SPDX-License-Identifier: GPL-3.0-or-later
// Takes in a list: what each is called there, and in which order and groups they stand.
#pragma once

#include <QStringList>
#include <vector>

#include "session/study.h"

namespace lagniappe::app {

// Returns a name for each entry. Where several have one name, what tells them apart is added: the course, else
// the profile, else the tick rate, else when it was recorded.
QStringList told_apart(const std::vector<Study::Entry>& entries);

enum class TakeOrder { Newest, ByDay, ByCourse, ByProfile, ByName, Longest };

struct TakeGroup {
  QString heading;                   // Empty: no groups.
  std::vector<std::size_t> entries;  // Indices.
};
std::vector<TakeGroup> grouped(const std::vector<Study::Entry>& entries, const QStringList& names,
                               TakeOrder order);

// "29 Nov 15:04:22", in local time; empty where it is not known.
QString recorded_text(const TakeAbout& about, const QString& format = "d MMM HH:mm");

}  // namespace lagniappe::app
