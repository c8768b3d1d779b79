// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/take_desk.h"

namespace lagniappe::app {
namespace {

constexpr double kJournalEvery = 0.4;  // s; at least twice a second, with room for a slow frame.
constexpr double kShortestKept = 0.5;  // s.

constexpr std::size_t kWayPoints = 96;

// A few points of a stretch's way, for a small picture.
std::vector<Vec2> way_of(const Run& run, const Stretch& stretch) {
  std::vector<Vec2> way;
  for (std::size_t i = 0; i < kWayPoints; ++i) {
    const Vec3 foot = run.state(stretch.first + (stretch.last - stretch.first) * i / (kWayPoints - 1)).foot_C;
    way.emplace_back(foot.x, foot.z);
  }
  return way;
}

}  // namespace

TakeDesk::TakeDesk(DriveSession& session, Undo& undo, const QString& study_folder, QObject* parent)
    : QObject(parent), session_(session), undo_(undo), study_(study_folder), journal_(study_.takes_folder()) {
  session_.on_left([this](const Recording& recording) { save_left(recording); });
  connect(&retaker_, &Retaker::done, this, [this](const std::shared_ptr<const Ghost>& ghost) {
    ghost_ = ghost;
    emit ghosts_changed();
  });
  connect(&retaker_, &Retaker::progress, this, &TakeDesk::retake_progress);
  connect(&retaker_, &Retaker::cancelled, this, &TakeDesk::ghosts_changed);
  connect(&journal_, &Journal::failed, this,
          [this](const QString& sentence) { emit problem(tr("The take is not journalled"), sentence); });
  // Until a take is saved its journal is of use.
  connect(&study_, &Study::saved, &journal_, [this] {
    if (study_.all_saved()) journal_.drop_closed();
  });
  connect(&study_, &Study::failed, this, [this](const QString& sentence) { emit not_saved(sentence); });
}

TakeDesk::~TakeDesk() {
  close_recording();
  session_.on_left({});
}

void TakeDesk::close_recording() {
  session_.finish();
  study_.wait();  // Journals of what was saved go.
  journal_.wait();
}

void TakeDesk::save_left(const Recording& recording) {
  const bool short_of = recording.run.seconds() < kShortestKept || !is_worth_keeping(recording);
  const bool keep = recording.run.ticks() > 0 && (!short_of || recording.take.about.star);
  if (keep) {
    Recording finished = recording;
    complete(finished);
    session_.set_about(finished.take.about);
    session_.set_file(study_.save(std::move(finished.take)));
  }
  journal_.close(keep);
}

void TakeDesk::pass(double now) {
  if (!session_.has_shown()) return;
  if (revision_ != session_.revision()) {
    revision_ = session_.revision();
    pins_.clear();
    ghost_.reset();
    other_place_.reset();
    values_at_showing_ = session_.profile();
    watch_values();
    undo_.end(shown_era_);
    emit shown_changed();
    emit ghosts_changed();
  }
  if (was_live_ && !session_.live()) {
    update_ghost();
    emit rested();
  }
  was_live_ = session_.live();
  const bool due = now - journalled_at_ >= kJournalEvery || now < journalled_at_;
  if (!due || !session_.is_open() || !is_worth_keeping(session_.shown())) return;
  journalled_at_ = now;
  journal_.keep(session_.shown(), session_.revision());
}

void TakeDesk::take_values(const Profile& profile, int tick_rate, std::shared_ptr<const Place> place) {
  session_.set_profile(profile);
  session_.set_tick_rate(tick_rate);
  other_place_ = std::move(place);
  watch_values();
  update_ghost();
  emit values_changed();
}

void TakeDesk::begin_profile(const Profile& profile) {
  values_era_.end();
  take_values(profile, session_.tick_rate(), other_place_);
  undo_.end(values_era_);
}

void TakeDesk::set_tick_rate(int rate) {
  if (rate == session_.tick_rate()) return;
  const auto set = [this](int r) { take_values(session_.profile(), r, other_place_); };
  undo_.swap(tr("tick rate"), set, rate, session_.tick_rate());
}

void TakeDesk::retake_on(std::shared_ptr<const Place> place) {
  const auto set = [this](const std::shared_ptr<const Place>& p) {
    take_values(session_.profile(), session_.tick_rate(), p);
  };
  undo_.swap(tr("retake on another course"), set, place, other_place_, {&shown_era_});
}

void TakeDesk::try_place(std::shared_ptr<const Place> place) {
  if (session_.has_shown() && place && place->identity == session_.shown().place->identity) place = nullptr;
  take_values(session_.profile(), session_.tick_rate(), std::move(place));
}

void TakeDesk::retake_unchanged() {
  if (!session_.has_shown()) return;
  const Recording& shown = session_.shown();
  retaker_.request(shown, session_.revision(), shown.take.profile, shown.place, shown.run.tick_rate());
}

void TakeDesk::update_ghost() {
  if (!session_.has_shown() || session_.live()) return;
  const Recording& shown = session_.shown();
  const auto place = other_place_ ? other_place_ : shown.place;
  const bool changed = identity_of(session_.profile()) != shown.take.profile_identity ||
                       session_.tick_rate() != shown.run.tick_rate() ||
                       place->identity != shown.place->identity;
  if (changed && shown.run.ticks() > 0) {
    retaker_.request(shown, session_.revision(), session_.profile(), place, session_.tick_rate());
    return;
  }
  retaker_.cancel();
  if (!ghost_) return;
  ghost_.reset();
  emit ghosts_changed();
}

std::vector<std::shared_ptr<const Ghost>> TakeDesk::ghosts() const {
  std::vector<std::shared_ptr<const Ghost>> all;
  if (ghost_) all.push_back(ghost_);
  all.insert(all.end(), pins_.begin(), pins_.end());
  return all;
}

void TakeDesk::pin() {
  if (ghost_) pin_ghost(ghost_);
}

void TakeDesk::pin_take(std::shared_ptr<const Recording> recording) {
  if (!session_.has_shown()) return;
  Ghost ghost = make_ghost(session_.shown(), recording);
  ghost.name = QString::fromStdString(recording->take.about.name);
  pin_ghost(std::make_shared<const Ghost>(std::move(ghost)));
}

void TakeDesk::pin_ghost(const std::shared_ptr<const Ghost>& ghost) {
  auto with = pins_;
  with.push_back(ghost);
  change_pins(tr("pin"), with);
}

void TakeDesk::unpin(std::size_t n) {
  if (n >= pins_.size()) return;
  auto without = pins_;
  without.erase(without.begin() + std::ptrdiff_t(n));
  change_pins(tr("take a pin out"), without);
}

void TakeDesk::name_pin(std::size_t n, const QString& name) {
  if (n >= pins_.size()) return;
  Ghost named = *pins_[n];
  named.name = name;
  auto renamed = pins_;
  renamed[n] = std::make_shared<const Ghost>(std::move(named));
  change_pins(tr("name a pin"), renamed);
}

void TakeDesk::change_pins(const QString& what, const std::vector<std::shared_ptr<const Ghost>>& pins) {
  const auto set = [this](const std::vector<std::shared_ptr<const Ghost>>& to) {
    pins_ = to;
    emit ghosts_changed();
  };
  undo_.swap(what, set, pins, pins_, {&shown_era_});
}

void TakeDesk::show_recording(Recording recording) {
  session_.show(std::move(recording));
  pass(journalled_at_);
  update_ghost();
  emit values_changed();
}

void TakeDesk::keep_ghost() {
  if (!ghost_) return;
  Recording kept = *ghost_->recording;
  kept.take.about = {};
  kept.take.about.recorded = now_text();
  session_.finish();
  const Recording before = session_.shown();
  complete(kept);
  kept.file = study_.save(kept.take);
  undo_.push(
      tr("keep the retake"),
      [this, kept] {
        study_.put_back(kept.file);
        show_recording(kept);
      },
      [this, kept, before] {
        study_.put_aside(kept.file);
        show_recording(before);
      });
}

void TakeDesk::put_back() {
  if (!session_.has_shown()) return;
  const Recording& shown = session_.shown();
  struct Driven {
    Profile profile;
    int rate;
    std::shared_ptr<const Place> place;
  };
  const auto set = [this](Driven to) {
    to.profile.name = session_.profile().name;
    take_values(to.profile, to.rate, to.place);
  };
  undo_.swap(tr("put the values back"), set, Driven{values_at_showing_, shown.run.tick_rate(), nullptr},
             Driven{session_.profile(), session_.tick_rate(), other_place_}, {&values_era_});
}

void TakeDesk::watch_values() {
  moved_ = session_.has_shown() &&
           (identity_of(session_.profile()) != identity_of(values_at_showing_) ||
            session_.tick_rate() != session_.shown().run.tick_rate() || other_place_ != nullptr);
}

// What is known of the whole is known of its part: nothing is run again.
QString TakeDesk::save_part(const Stretch& stretch, const QString& suffix) {
  Recording whole = session_.shown();
  complete(whole);
  Take take = part_of(whole.take, stretch.first, stretch.last, whole.run.state(stretch.first));
  take.about.name += suffix.toStdString();
  take.about.ticks = stretch.last - stretch.first;
  take.about.path = way_of(whole.run, stretch);
  return study_.save(std::move(take));
}

void TakeDesk::keep_stretch(const Stretch& stretch) {
  if (!session_.has_shown() || stretch.first >= stretch.last) return;
  const double rate = session_.shown().run.tick_rate();
  const QString file = save_part(stretch, tr(", %1 to %2 s")
                                              .arg(double(stretch.first) / rate, 0, 'f', 1)
                                              .arg(double(stretch.last) / rate, 0, 'f', 1));
  undo_.push(
      tr("keep a stretch"), [this, file] { study_.put_back(file); }, [this, file] { study_.put_aside(file); });
}

void TakeDesk::split(std::size_t tick) {
  if (!session_.has_shown() || tick == 0 || tick >= session_.shown().run.ticks()) return;
  session_.finish();
  const QString whole = session_.shown().file;
  const QStringList parts = {save_part({0, tick}, tr(", first part")),
                             save_part({tick, session_.shown().run.ticks()}, tr(", second part"))};
  undo_.push(
      tr("split"),
      [this, whole, parts] {
        for (const QString& part : parts) study_.put_back(part);
        if (!whole.isEmpty()) study_.put_aside_once_saved(whole, parts);
      },
      [this, whole, parts] {
        if (!whole.isEmpty()) study_.put_back(whole);
        for (const QString& part : parts) study_.put_aside(part);
      });
}

void TakeDesk::change_about(const QString& file, const TakeAbout& about, const QString& what) {
  const Study::Entry* entry = study_.find(file);
  if (entry == nullptr) return;
  const auto set = [this, file](const TakeAbout& a) {
    study_.set_about(file, a);
    if (session_.has_shown() && session_.shown().file == file) session_.set_about(a);
    emit shown_changed();
  };
  undo_.swap(what, set, about, entry->about);
}

void TakeDesk::star_open() {
  if (!session_.has_shown() || !session_.is_open()) return;
  TakeAbout about = session_.shown().take.about;
  about.star = !about.star;
  session_.set_about(about);
  emit shown_changed();
}

void TakeDesk::bring_back(const QString& aside) {
  const QString file = study_.bring_back(aside);
  if (file.isEmpty()) return;
  undo_.push(
      tr("bring a take back"), [this, file] { study_.put_back(file); },
      [this, file] { study_.put_aside(file); });
}

void TakeDesk::put_aside(const QString& file) {
  undo_.push(
      tr("put a take aside"), [this, file] { study_.put_aside(file); },
      [this, file] { study_.put_back(file); });
}

}  // namespace lagniappe::app
