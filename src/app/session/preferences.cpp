// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/preferences.h"

#include <QStandardPaths>
#include <algorithm>

namespace lagniappe::app {
namespace {

using Kind = PrefRow::Kind;
constexpr PrefRow::Word kRates[] = {{"as the screen", 0}, {"144", 144}, {"120", 120}, {"60", 60},
                                    {"30", 30},           {"24", 24},   {"10", 10}};
constexpr PrefRow::Word kScales[] = {{"as the desktop", 0}, {"100 %", 1},    {"125 %", 1.25},
                                     {"150 %", 1.5},        {"175 %", 1.75}, {"200 %", 2}};
constexpr PrefRow::Word kLights[] = {{"as the desktop", -1}, {"Daylight", 0}, {"Lantern", 1}};

constexpr PrefRow kRows[] = {
    {Pref::MouseSpeed,
     "Driving",
     "mouse/speed",
     "Mouse speed",
     "Times the profile's own look.mouse, which is part of the handling and travels with it; this is yours",
     Kind::Number,
     0.1,
     10.0,
     1.0,
     "\u00d7",
     {},
     false},
    {Pref::MouseUpsideDown,
     "Driving",
     "mouse/upsideDown",
     "Mouse away looks down",
     "Instead of up, in the view and with the free camera",
     Kind::Switch,
     0,
     1,
     0,
     "",
     {},
     false},
    {Pref::DrawRate, "Drawing", "drawRate", "Frames per second, at most",
     "Fewer spare the machine. Ticks stay as they are", Kind::Choice, 0, 240, 0, "frames/s", kRates, false},
    {Pref::Light, "Drawing", "lantern", "Theme", "Lantern is light on dark", Kind::Choice, -1, 1, -1, "",
     kLights, false},
    {Pref::Scale, "Drawing", "scale", "Scale of the window", "Of everything that is drawn in it", Kind::Choice,
     0, 4, 0, "", kScales, true},
    {Pref::SnapshotEvery,
     "Files",
     "snapshotEvery",
     "A snapshot of the values every",
     "Before a change, if the last one is older; takes are journalled twice a second whatever stands here",
     Kind::Number,
     1,
     120,
     5,
     "min",
     {},
     false},
    {Pref::Study,
     "Files",
     "study",
     "Study",
     "Where takes, snapshots and the first profile are kept. What lies in the present one stays there",
     Kind::Folder,
     0,
     0,
     0,
     "",
     {},
     true},
};

const PrefRow& row_of(Pref pref) {
  return *std::find_if(std::begin(kRows), std::end(kRows), [&](const PrefRow& r) { return r.pref == pref; });
}

}  // namespace

std::span<const PrefRow> pref_rows() { return kRows; }

Preferences::Preferences(QSettings& settings, QObject* parent) : QObject(parent), settings_(settings) {}

double Preferences::number(Pref pref) const {
  const PrefRow& row = row_of(pref);
  const QVariant kept = settings_.value(row.key);
  // Switches are written as words.
  if (kept.toString() == "true" || kept.toString() == "false") return kept.toBool() ? 1.0 : 0.0;
  bool is_number = false;
  const double value = kept.toDouble(&is_number);
  return is_number && value >= row.low && value <= row.high ? value : row.initial;
}

QString Preferences::text(Pref pref) const {
  const QString home = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/study";
  const QString kept = settings_.value(row_of(pref).key).toString();
  return pref == Pref::Study && kept.isEmpty() ? home : kept;
}

void Preferences::set(Pref pref, const QVariant& value) {
  settings_.setValue(row_of(pref).key, value);
  emit changed(pref);
}

void Preferences::set_back(Pref pref) {
  settings_.remove(row_of(pref).key);
  emit changed(pref);
}

void Preferences::step(Pref pref, int by) {
  const auto words = row_of(pref).words;
  const auto now = std::find_if(words.begin(), words.end(),
                                [value = number(pref)](const PrefRow::Word& w) { return w.value == value; });
  const auto at = now == words.end() ? 0 : now - words.begin();
  const auto to = std::clamp<std::ptrdiff_t>(at + by, 0, std::ptrdiff_t(words.size()) - 1);
  to == 0 ? set_back(pref) : set(pref, words[std::size_t(to)].value);
}

bool Preferences::is_set(Pref pref) const { return settings_.contains(row_of(pref).key); }

}  // namespace lagniappe::app
