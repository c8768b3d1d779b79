// SPDX-License-Identifier: GPL-3.0-or-later
// The study: a folder with courses, profiles, takes and trials. Here: its takes.
#pragma once

#include <QObject>
#include <QStringList>
#include <QThreadPool>
#include <functional>
#include <map>
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

  // Newest first. What cannot be read is among them, with the reason.
  const std::vector<Entry>& entries() const { return entries_; }
  const Entry* find(const QString& file) const;
  void refresh();  // Reads the folder again.

  // Saves a take that is complete() on another thread. Returns the name that the file gets: no other take has
  // it or had it, in this program or in another one on the same study.
  QString save(Take take);
  // Changes name, note or star of a saved take.
  void set_about(const QString& file, const TakeAbout& about);
  // Takes are not deleted but put aside, from where put_back() has them again.
  bool put_aside(const QString& file);
  bool put_back(const QString& file);
  // Those that lie aside, newest first, read when it is asked; and one of them back among the takes: returns
  // its file, empty where it could not be had.
  std::vector<Entry> aside() const;
  std::size_t aside_count() const;
  QString bring_back(const QString& aside);
  // The same once all of `parts` are on the disk; never, if they do not get there.
  void put_aside_once_saved(const QString& file, const QStringList& parts);
  void wait();  // Until everything is saved, or has failed, and that is known here.

  // What could not be saved is kept in memory: it can be tried again, saved elsewhere, or given up.
  bool all_saved() const { return unsaved_.empty() && under_way_ == 0; }
  QStringList unsaved_names() const;  // Of the takes.
  void save_again();
  // Returns what went wrong, or nothing. Those that are saved are no longer unsaved.
  QString save_elsewhere(const QString& folder);
  void give_up_unsaved();

 signals:
  void changed();
  void saved(const QString& file);
  void failed(const QString& sentence);

 private:
  using Bytes = std::function<Result<std::string>()>;
  struct Job {
    QString file;
    TakeAbout about;
    Bytes bytes;
  };
  struct Aside {
    QString file;
    QStringList parts;
  };
  void write(const Job& job);
  void written(const Job& job, const QString& sentence);
  void put_aside_what_is_due();
  bool is_waiting(const QString& file) const;
  QString unused_name(const QString& stem) const;
  Entry entry_of(const QString& file) const;

  QString folder_;
  std::vector<Entry> entries_;
  std::map<int, Job> waiting_;  // By number: not on the disk yet.
  std::vector<Job> unsaved_;    // In the order in which they failed.
  std::vector<Aside> due_aside_;
  std::map<QString, QString> aside_;  // Where those that were put aside are, by where they were.
  int under_way_ = 0, jobs_ = 0;
  QThreadPool thread_;
};

}  // namespace lagniappe::app
