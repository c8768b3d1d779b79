// SPDX-License-Identifier: GPL-3.0-or-later
// Keeps the take that is being driven on disk while it grows, on a thread of its own: what is lost by a crash
// is less than half a second.
#pragma once

#include <QObject>
#include <QStringList>
#include <QThreadPool>
#include <memory>

#include "session/recording.h"

namespace lagniappe::app {

class Journal : public QObject {
  Q_OBJECT
 public:
  // Journals are files in `folder`, locked while their program lives.
  explicit Journal(const QString& folder, QObject* parent = nullptr);
  ~Journal() override;  // Waits until everything is written.

  // Writes what is new in the recording and syncs it. Another `revision` begins another journal.
  void keep(const Recording& recording, std::uint64_t revision);
  // Nothing more comes. The journal goes at once, or, if the recording is still to be saved, with
  // drop_closed().
  void close(bool until_saved);
  void drop_closed();
  void wait();

  // Journals of programs that ended without dropping them.
  static QStringList left_behind(const QString& folder);

 signals:
  void failed(const QString& sentence);  // Once for each journal; driving goes on.

 private:
  class File;
  QString folder_;
  QThreadPool thread_;
  std::shared_ptr<File> file_;
  std::vector<std::shared_ptr<File>> closed_;
  std::uint64_t revision_ = 0;
  std::size_t handed_over_ = 0;  // Ticks.
  std::size_t dropped_handed_over_ = 0;
};

}  // namespace lagniappe::app
