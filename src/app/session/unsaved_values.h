// SPDX-License-Identifier: GPL-3.0-or-later
// The values that are not saved yet, kept on the disk by one program while it runs. Another program on the same
// folder has a file of its own, and leaves this one alone for as long as its owner lives.
#pragma once

#include <QString>
#include <QStringList>
#include <optional>
#include <string>

#include "lagniappe/files.h"

namespace lagniappe::app {

class UnsavedValues {
 public:
  explicit UnsavedValues(const QString& folder) : folder_(folder) {}
  ~UnsavedValues();  // What is kept stays, and is left behind.
  UnsavedValues(const UnsavedValues&) = delete;
  UnsavedValues& operator=(const UnsavedValues&) = delete;

  void keep(const std::string& text);
  void clear();

  // Files of programs that have ended.
  static QStringList left_behind(const QString& folder);
  static void remove(const QString& file);

 private:
  QString folder_, file_;
  std::optional<GrowingFile> lock_;
};

}  // namespace lagniappe::app
