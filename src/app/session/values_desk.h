// SPDX-License-Identifier: GPL-3.0-or-later
// What cards are about: values that are shown, compared with others, and changed. The profile's own, or those
// of one of its states.
#pragma once

#include <QObject>
#include <QString>

#include "lagniappe/profile.h"

namespace lagniappe::app {

class ValuesDesk : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

  virtual const Profile& now() const = 0;
  // What the values can be put back to, and what that is called.
  virtual const Profile& saved() const = 0;
  virtual QString saved_name() const = 0;
  // What marks and dashed drawings are against.
  virtual const Profile& reference() const = 0;
  virtual QString reference_name() const = 0;

  // Changes values; what does not fit together is refused as in a file. Changes of one gesture, such as a drag,
  // are undone at once; each call with gesture 0 is undone by itself.
  virtual bool set(const Profile& profile, const QString& what, int gesture = 0) = 0;
  bool assign(const QString& path, const QString& text, int gesture = 0);
  virtual void set_note(const QString& path, const QString& note) = 0;
  virtual int new_gesture() = 0;

  // The value that was touched last: what is felt.
  void attend(const QString& path) { attended_ = path; }
  QString attended() const { return attended_; }
  // Drives with the attended value times `factor`, within its range, until stop_feeling(). No change for undo.
  virtual void feel(double factor) = 0;
  virtual void stop_feeling() = 0;

  // What was typed cannot be: the values stay as they are, and whoever shows them shows them anew.
  void tell_refused(const QString& title, const QString& why) {
    emit refused(title, why);
    emit changed();
  }

 signals:
  void changed();                                          // Values, saved values or reference.
  void refused(const QString& title, const QString& why);  // About values alone.

 private:
  QString attended_;
};

}  // namespace lagniappe::app
