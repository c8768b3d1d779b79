// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/place_loader.h"

#include <QFileInfo>
#include <QStringList>
#include <QThreadPool>

#include "lagniappe/files.h"

namespace lagniappe::app {

// What a job on another thread may do: ask whether it is still wanted, and hand over what it has.
class PlaceLoader::Job {
 public:
  Job(PlaceLoader& loader, int number) : loader_(&loader), number_(number), newest_(loader.newest_) {}

  bool wanted() const { return *newest_ == number_; }
  void say(const QString& what) const {
    deliver_early([loader = loader_, what] { emit loader->stage(what); });
  }
  void progress(double share) const {
    deliver_early([loader = loader_, share] { emit loader->progress(share); });
  }
  void finish(const std::function<void()>& deliver) const {
    QMetaObject::invokeMethod(
        loader_, [loader = loader_, number = number_, deliver] { loader->finish(number, deliver); },
        Qt::QueuedConnection);
  }
  void fail(const QString& path, const Error& error) const {
    const QString sentence = QString::fromStdString(error.sentence());
    finish([loader = loader_, path, sentence] { emit loader->failed(path, sentence); });
  }
  PlaceLoader* loader() const { return loader_; }

 private:
  void deliver_early(const std::function<void()>& deliver) const {
    QMetaObject::invokeMethod(
        loader_,
        [newest = newest_, number = number_, deliver] {
          if (*newest == number) deliver();
        },
        Qt::QueuedConnection);
  }

  PlaceLoader* loader_;
  int number_;
  std::shared_ptr<std::atomic<int>> newest_;
};

PlaceLoader::PlaceLoader(QObject* parent) : QObject(parent) {}

PlaceLoader::~PlaceLoader() {
  ++*newest_;
  QThreadPool::globalInstance()->waitForDone();
}

void PlaceLoader::cancel() {
  if (!busy_) return;
  ++*newest_;
  busy_ = false;
  emit cancelled();
}

int PlaceLoader::begin(const QString& what) {
  busy_ = true;
  const int number = ++*newest_;
  emit stage(what);
  return number;
}

void PlaceLoader::finish(int number, const std::function<void()>& deliver) {
  if (*newest_ != number) return;
  busy_ = false;
  deliver();
}

void PlaceLoader::load(const QString& path) {
  // The job owns what it works on and looks between its stages whether it is still wanted.
  QThreadPool::globalInstance()->start([job = Job(*this, begin(tr("Reading %1").arg(path))), path] {
    auto course = read_course(path.toStdString());
    if (!course) return job.fail(path, course.error());
    job.say(tr("Building the world of %1").arg(path));
    const auto place = make_place(path.toStdString(), std::move(*course), [&] { return job.wanted(); });
    if (place) job.finish([loader = job.loader(), place] { emit loader->loaded(place); });
  });
}

namespace {

QString verdict_of(const Recording& recording, bool whole) {
  const Take& take = recording.take;
  if (!whole) return PlaceLoader::tr("recovered up to %1 s").arg(take.seconds(), 0, 'f', 2);
  if (!take.is_hashed())
    return PlaceLoader::tr("holds no hashes: whether it runs as it was recorded cannot be said");
  const auto difference = first_difference(recording.run, take);
  if (!difference) return PlaceLoader::tr("identical to the recording in all %1 ticks").arg(take.inputs.size());
  return PlaceLoader::tr("not as recorded: tick %1 is the first that differs").arg(*difference);
}

}  // namespace

void PlaceLoader::load_take(const QString& path, std::shared_ptr<const Place> now_shown, bool recover) {
  QThreadPool::globalInstance()->start([job = Job(*this, begin(tr("Reading %1").arg(path))), path, now_shown,
                                        recover] {
    const std::string file = path.toStdString();
    auto read = recover_take(file);
    if (!read) return job.fail(path, read.error());
    if (!read->whole && !recover) {
      const QString sentence = QString::fromStdString(read_take(file).error().sentence());
      return job.finish([loader = job.loader(), path, sentence] { emit loader->take_damaged(path, sentence); });
    }
    Take take = std::move(read->take);
    auto place = now_shown && now_shown->identity == take.course_identity ? now_shown : nullptr;
    if (!place) {
      job.say(tr("Building the world of %1").arg(path));
      place = make_place(take.course_file, *take.course, [&] { return job.wanted(); });
    }
    if (!place) return;
    take.course = std::shared_ptr<const Course>(place, &place->course);
    job.say(tr("Running %1").arg(path));
    auto run = run_take(take, place->world, [&](double share) {
      job.progress(share);
      return job.wanted();
    });
    if (!run) return;
    auto recording = std::make_shared<Recording>(
        Recording{std::move(take), place, std::move(*run), recover ? QString() : path});
    const QString verdict = verdict_of(*recording, read->whole);
    job.finish([loader = job.loader(), recording, verdict, path] {
      emit loader->take_loaded(recording, verdict, path);
    });
  });
}

void PlaceLoader::load_inputs(const QString& path, std::shared_ptr<const Place> place, const Profile& profile,
                              const std::string& profile_file, int tick_rate) {
  QThreadPool::globalInstance()->start(
      [job = Job(*this, begin(tr("Reading %1").arg(path))), path, place, profile, profile_file, tick_rate] {
        const auto script = read_inputs(path.toStdString());
        if (!script) return job.fail(path, script.error());
        const CharacterState start = start_state(profile, start_home(place->course), place->world);
        auto recording = std::make_shared<Recording>(begin_recording(start, place, profile, tick_rate));
        Take& take = recording->take;
        take.profile_file = profile_file;
        const double seconds = std::min(script->end() + kSecondsAfterScript, double(kMostTicks) / tick_rate);
        take.inputs = frames_of(*script, tick_rate, seconds);
        job.say(tr("Running %1").arg(path));
        auto run = run_take(take, place->world, [&](double share) {
          job.progress(share);
          return job.wanted();
        });
        if (!run) return;
        recording->run = std::move(*run);
        take.about.name = QFileInfo(path).fileName().section('.', 0, 0).toStdString();
        job.finish([loader = job.loader(), recording, path] {
          emit loader->take_loaded(recording,
                                   tr("inputs of %1, from the start").arg(QFileInfo(path).fileName()), path);
        });
      });
}

}  // namespace lagniappe::app
