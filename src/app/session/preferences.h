// SPDX-License-Identifier: GPL-3.0-or-later
// What a person prefers, whatever is open: one table for the settings page, the settings file and whoever goes
// by them. Keys are kept beside it, under kKeys.
#pragma once

#include <QObject>
#include <QSettings>
#include <QVariant>
#include <span>

namespace lagniappe::app {

enum class Pref { MouseSpeed, MouseUpsideDown, DrawRate, Scale, Light, SnapshotEvery, Study };

struct PrefRow {
  enum class Kind { Number, Switch, Choice, Folder };
  struct Word {
    const char* text;
    double value;
  };
  Pref pref;
  const char* group;
  const char* key;  // In the settings file.
  const char *name, *help;
  Kind kind;
  double low, high, initial;
  const char* unit;
  std::span<const Word> words;  // Of a choice.
  bool at_start;                // It holds from the next start on.
};

std::span<const PrefRow> pref_rows();

class Preferences : public QObject {
  Q_OBJECT
 public:
  static constexpr const char* kKeys = "keys";  // Group of the settings file: name of what is done = its key.

  explicit Preferences(QSettings& settings, QObject* parent = nullptr);

  // What is not set, or cannot be, is as it was at first. Lengths of time in the row's unit.
  double number(Pref pref) const;
  bool is_on(Pref pref) const { return number(pref) != 0.0; }
  QString text(Pref pref) const;
  void set(Pref pref, const QVariant& value);
  void set_back(Pref pref);
  void step(Pref pref, int by);  // Of a choice, so many words on in its list; it ends at the ends.
  bool is_set(Pref pref) const;
  QSettings& settings() { return settings_; }

 signals:
  void changed(lagniappe::app::Pref pref);

 private:
  QSettings& settings_;
};

}  // namespace lagniappe::app
