// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/place_loader.h"

#include <QFileInfo>
#include <QStringList>

#include "lagniappe/files.h"

namespace lagniappe::app {

class PlaceLoader::Job {
 public:
  Job(PlaceLoader& loader, const NewestJob::Handle& handle) : loader_(&loader), handle_(handle) {}

  bool wanted() const { return handle_.wanted(); }
  void say(const QString& what) const {
    handle_.deliver([loader = loader_, what] { emit loader->stage(what); });
  }
  // For what runs a take: tells how far it is, and whether to go on.
  Progress running() const {
    return [job = *this](double share) {
      job.handle_.deliver([loader = job.loader_, share] { emit loader->progress(share); });
      return job.wanted();
    };
  }
  void finish(std::function<void()> deliver) const { handle_.finish(std::move(deliver)); }
  void fail(const QString& path, const Error& error) const {
    const QString sentence = QString::fromStdString(error.sentence());
    finish([loader = loader_, path, sentence] { emit loader->failed(path, sentence); });
  }
  PlaceLoader* loader() const { return loader_; }

 private:
  PlaceLoader* loader_;
  NewestJob::Handle handle_;
};

PlaceLoader::PlaceLoader(QObject* parent) : QObject(parent) {}

void PlaceLoader::cancel() {
  if (job_.give_up()) emit cancelled();
}

// The work owns what it works on and looks between its stages whether it is still wanted.
template <typename Work>
void PlaceLoader::start(const QString& path, Work work) {
  job_.start([this, work = std::move(work)](const NewestJob::Handle& handle) { work(Job(*this, handle)); });
  emit stage(tr("Reading %1").arg(path));
}

void PlaceLoader::load(const QString& path) {
  start(path, [path](const Job& job) {
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
  start(path, [path, now_shown, recover](const Job& job) {
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
    auto run = run_take(take, place->world, job.running());
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
  start(path, [path, place, profile, profile_file, tick_rate](const Job& job) {
    const auto script = read_inputs(path.toStdString());
    if (!script) return job.fail(path, script.error());
    const CharacterState start = start_state(profile, start_home(place->course), place->world);
    auto recording = std::make_shared<Recording>(begin_recording(start, place, profile, tick_rate));
    Take& take = recording->take;
    take.profile_file = profile_file;
    const double seconds = std::min(script->end() + kSecondsAfterScript, double(kMostTicks) / tick_rate);
    take.inputs = frames_of(*script, tick_rate, seconds);
    job.say(tr("Running %1").arg(path));
    auto run = run_take(take, place->world, job.running());
    if (!run) return;
    recording->run = std::move(*run);
    take.about.name = QFileInfo(path).fileName().section('.', 0, 0).toStdString();
    job.finish([loader = job.loader(), recording, path] {
      emit loader->take_loaded(recording, tr("inputs of %1, from the start").arg(QFileInfo(path).fileName()),
                               path);
    });
  });
}

}  // namespace lagniappe::app
