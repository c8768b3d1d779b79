// SPDX-License-Identifier: GPL-3.0-or-later
// Opens courses, models and takes away from the window's thread.
#pragma once

#include <QObject>
#include <QString>
#include <memory>

#include "session/newest_job.h"
#include "session/recording.h"

namespace lagniappe::app {

class PlaceLoader : public QObject {
  Q_OBJECT
 public:
  explicit PlaceLoader(QObject* parent = nullptr);

  // Begins to load a course or a model; a load already under way is given up.
  void load(const QString& path);
  // Begins to load a take, and runs it. `now_shown` is used again if the take ran on the same place. With
  // `recover`, what can be read of a damaged take or a journal.
  void load_take(const QString& path, std::shared_ptr<const Place> now_shown, bool recover = false);
  // Begins to run an inputs document on a place from its start, as a take.
  void load_inputs(const QString& path, std::shared_ptr<const Place> place, const Profile& profile,
                   const std::string& profile_file, int tick_rate);
  void cancel();
  bool busy() const { return job_.busy(); }

 signals:
  void stage(const QString& what);  // What is being done, in words.
  void progress(double share);
  void loaded(std::shared_ptr<const lagniappe::app::Place> place);
  // `verdict`: whether the run is the one that was recorded, in words.
  // Recovered, it has no file yet: it was read from `path`, which stays.
  void take_loaded(std::shared_ptr<lagniappe::app::Recording> recording, const QString& verdict,
                   const QString& path);
  void failed(const QString& path, const QString& sentence);
  void take_damaged(const QString& path, const QString& sentence);  // But something can be recovered.
  void cancelled();

 private:
  // What a load may do besides.
  class Job;
  template <typename Work>
  void start(const QString& path, Work work);

  NewestJob job_{*this};
};

}  // namespace lagniappe::app
