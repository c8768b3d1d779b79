// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/unsaved_values.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>

namespace lagniappe::app {
namespace {

constexpr int kMostNames = 1000;
const QString kEnding = QStringLiteral(".profile.json");

// Beside the file, locked while its owner lives: the file itself is replaced whenever it is written.
QString lock_of(const QString& file) { return file.chopped(kEnding.size()) + ".lock"; }

}  // namespace

UnsavedValues::~UnsavedValues() {
  if (lock_) lock_->remove();
}

void UnsavedValues::keep(const std::string& text) {
  for (int i = 0; !lock_ && i < kMostNames; ++i) {
    const QString file =
        QString("%1/unsaved-%2-%3").arg(folder_).arg(QCoreApplication::applicationPid()).arg(i) + kEnding;
    // In a container numbers of programs repeat: what one of the same number left is not to be replaced.
    if (QFile::exists(file)) continue;
    auto lock = GrowingFile::create(lock_of(file).toStdString());
    if (!lock && !QFile::exists(lock_of(file))) return;  // The folder cannot be written.
    if (!lock) continue;
    lock_ = std::move(*lock);
    file_ = file;
  }
  if (lock_) (void)write_file(file_.toStdString(), text);
}

void UnsavedValues::clear() {
  if (!file_.isEmpty()) QFile::remove(file_);
}

QStringList UnsavedValues::left_behind(const QString& folder) {
  QStringList left;
  for (const QFileInfo& info : QDir(folder).entryInfoList({"unsaved*" + kEnding}, QDir::Files, QDir::Name)) {
    const QString lock = lock_of(info.absoluteFilePath());
    if (!QFile::exists(lock) || GrowingFile::is_left_behind(lock.toStdString()))
      left.append(info.absoluteFilePath());
  }
  return left;
}

void UnsavedValues::remove(const QString& file) {
  QFile::remove(file);
  QFile::remove(lock_of(file));
}

}  // namespace lagniappe::app
