// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/retaker.h"

#include <QStringList>
#include <utility>

#include "lagniappe/profile_fields.h"

namespace lagniappe::app {
namespace {

constexpr int kMostNamed = 3;  // Changes that a ghost's name tells.

std::shared_ptr<const Ghost> run_ghost(const Recording& shown, Take take,
                                       const std::shared_ptr<const Place>& place, const Progress& progress) {
  std::optional<Run> run = run_take(take, place->world, progress);
  if (!run) return nullptr;
  return std::make_shared<const Ghost>(make_ghost(
      shown, std::make_shared<const Recording>(Recording{std::move(take), place, std::move(*run), {}})));
}

}  // namespace

QString changes_text(const Take& from, const Take& to) {
  QStringList texts;
  for (const ProfileDifference& d : differences(from.profile, to.profile))
    texts.append(QString("%1 %2 %3")
                     .arg(QString::fromStdString(d.path), QString::fromStdString(d.to),
                          QString::fromUtf8(d.unit.data(), qsizetype(d.unit.size())))
                     .trimmed());
  if (from.tick_rate != to.tick_rate) texts.append(Retaker::tr("%1 ticks/s").arg(to.tick_rate));
  if (from.course_identity != to.course_identity)
    texts.append(Retaker::tr("course %1").arg(QString::fromStdString(to.course->name)));
  if (texts.isEmpty()) return Retaker::tr("nothing changed");
  const auto more = texts.size() - kMostNamed;
  const QString text = texts.mid(0, kMostNamed).join(", ");
  return more > 0 ? Retaker::tr("%1 and %n more", nullptr, int(more)).arg(text) : text;
}

Ghost make_ghost(const Recording& shown, std::shared_ptr<const Recording> recording) {
  const bool same_course = shown.take.course_identity == recording->take.course_identity;
  Comparison against = compare(shown.run, recording->run, same_course);
  return {changes_text(shown.take, recording->take), std::move(recording), std::move(against)};
}

Retaker::Retaker(QObject* parent) : QObject(parent) {}

void Retaker::cancel() {
  next_ = nullptr;
  from_.reset();
  if (job_.give_up()) emit cancelled();
}

void Retaker::request(const Recording& shown, std::uint64_t revision, const Profile& profile,
                      std::shared_ptr<const Place> place, int tick_rate) {
  const bool same = revision == std::exchange(revision_, revision);
  const auto make = [profile, place, tick_rate](const Recording& from) {
    return retake_of(from.take, profile, std::shared_ptr<const Course>(place, &place->course), place->identity,
                     place->world, tick_rate);
  };
  const double ticks = double(shown.run.ticks()) * std::max(1.0, double(tick_rate) / shown.run.tick_rate());
  next_ = nullptr;
  if (ticks <= double(kMostTicksAtOnce)) {
    job_.give_up();
    emit done(run_ghost(shown, make(shown), place, {}));
    return;
  }
  if (!same || !from_ || from_->run.ticks() != shown.run.ticks())
    from_ =
        std::make_shared<const Recording>(shown);  // A long take is copied once, not for each drag of a value.
  next_ = [this, from = from_, make, place] { start(from, make, place); };
  if (!job_.busy() || !same || ticks > double(kMostTicksToEnd)) start_next();
}

void Retaker::start_next() {
  if (const auto next = std::exchange(next_, nullptr)) next();
}

void Retaker::start(const std::shared_ptr<const Recording>& from,
                    const std::function<Take(const Recording&)>& make,
                    const std::shared_ptr<const Place>& place) {
  job_.start([this, from, make, place](const NewestJob::Handle& job) {
    const auto ghost = run_ghost(*from, make(*from), place, [&](double share) {
      job.deliver([this, share] { emit progress(share); });
      return job.wanted();
    });
    if (!ghost) return;
    job.finish([this, ghost] {
      emit done(ghost);
      start_next();
    });
  });
}

}  // namespace lagniappe::app
