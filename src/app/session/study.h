// SPDX-License-Identifier: GPL-3.0-or-later
// The study: a folder with courses, profiles, takes and trials. Here: its takes.
#pragma once

#include <QObject>
#include <QThreadPool>
#include <functional>
#include <vector>

#include "session/recording.h"

namespace lagniappe::app {

class Study : public QObject {
  Q_OBJECT
 public:
  struct Entry {
    QString file;
    TakeAbout about;
    QString trouble;  // Why it cannot be read, or empty.
  };

  // Makes the folder if it is not there.
  explicit Study(const QString& folder, QObject* parent = nullptr);
  ~Study() override;  // Waits until everything is saved.

  QString folder() const { return folder_; }
  QString takes_folder() const { return folder_ + "/takes"; }

  // Newest first.
  const std::vector<Entry>& entries() const { return entries_; }
  const Entry* find(const QString& file) const;
  void refresh();  // Reads the folder again.

  // Saves a take that is complete() on another thread. Returns the name that the file gets.
  QString save(Take take);
  // Changes name, note or star of a saved take.
  void set_about(const QString& file, const TakeAbout& about);
  // Takes are not deleted but put aside, from where put_back() has them again.
  bool put_aside(const QString& file);
  bool put_back(const QString& file);
  void wait();  // Until everything is saved.
  // Takes that could not be saved are kept, and tried again.
  bool all_saved() const { return unsaved_.empty() && under_way_ == 0; }
  void save_again();

 signals:
  void changed();
  void saved(const QString& file);
  void failed(const QString& sentence);

 private:
  using Bytes = std::function<Result<std::string>()>;
  void write(const QString& file, const Bytes& bytes);
  void written(const QString& file, const Bytes& bytes, const QString& sentence);
  QString aside(const QString& file) const;

  QString folder_;
  std::vector<Entry> entries_;
  std::vector<std::pair<Entry, Bytes>> unsaved_;
  int under_way_ = 0;
  QThreadPool thread_;
};

}  // namespace lagniappe::app
