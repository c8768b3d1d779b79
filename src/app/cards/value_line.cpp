// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/value_line.h"

namespace lagniappe::app {

void connect_line(ValueField& field, ValuesDesk& desk, const QString& path, const QString& stays,
                  const std::function<void(double value, int gesture)>& change) {
  QObject::connect(&field, &ValueField::entered, &field, [change](double value) { change(value, 0); });
  QObject::connect(&field, &ValueField::refused, &field,
                   [&desk, stays](const QString& why) { desk.tell_refused(stays, why); });
  QObject::connect(&field, &ValueField::touched, &field, [&desk, path] { desk.attend(path); });
  QObject::connect(&field, &ValueField::felt, &field,
                   [&desk](double factor) { factor > 0.0 ? desk.feel(factor) : desk.stop_feeling(); });
  QObject::connect(&field, &ValueField::nudged, &field,
                   [&desk, change, gesture = 0](double value, bool begins) mutable {
                     if (begins || gesture == 0) gesture = desk.new_gesture();
                     change(value, gesture);
                   });
}

}  // namespace lagniappe::app
