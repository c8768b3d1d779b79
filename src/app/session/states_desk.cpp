// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/states_desk.h"

#include "session/table_base.h"

namespace lagniappe::app {
namespace {

constexpr double kLookBack = 20.0;     // s that are searched for when a part became what it is.
constexpr double kShareOfTakes = 0.4;  // Of a check's progress.

std::vector<QString> takes_of(const Study& study) {
  std::vector<QString> files;
  for (const auto& entry : study.entries()) files.push_back(entry.file);
  return files;
}

// What a study's take uses of the profile's table; nothing where it cannot be read.
std::optional<TableUse> use_of_take(const QString& file, const Profile& profile, const Progress& progress) {
  const auto take = read_take(file.toStdString());
  if (!take) return std::nullopt;
  const TriangleWorld world = build_world(*take->course);
  const Take again = retake_of(*take, profile, take->course, take->course_identity, world, take->tick_rate);
  const auto half = [&](double from) {
    return [&progress, from](double share) { return progress(from + 0.5 * share); };
  };
  const auto run = run_take(again, world, half(0.0));
  if (!run) return std::nullopt;
  return use_of(*run, again, world, half(0.5));
}

}  // namespace

StatesDesk::StatesDesk(HandlingDesk& handling, TakeDesk& takes, DriveSession& session, QObject* parent)
    : QObject(parent),
      handling_(handling),
      takes_(takes),
      session_(session),
      matrix_(std::make_unique<StateMatrix>(shared_chart_of(handling.now()))) {
  connect(&handling_, &HandlingDesk::changed, this, &StatesDesk::take_table);
  connect(&takes_, &TakeDesk::ghosts_changed, this, &StatesDesk::refresh);
}

StatesDesk::~StatesDesk() = default;

bool StatesDesk::change(const StateTable& wanted, const QString& what, int gesture) {
  StateTable table = wanted;
  // So that its file can say what differs: rows in the order of the table that it is based on, then its own.
  if (table.based_on_built_in) table.transitions = based_on_built_in(table).transitions;
  const auto chart = StateChart::make(table);
  if (!chart) {
    handling_.tell_refused(tr("%1: the table stays as it was").arg(what),
                           QString::fromStdString(chart.error().place + ": " + chart.error().what));
    emit table_changed();
    return false;
  }
  Profile profile = handling_.now();
  profile.states = *chart;
  return handling_.set(profile, what, gesture);
}

void StatesDesk::take_table() {
  const auto chart = shared_chart_of(handling_.now());
  if (chart->table() == table()) return;
  cancel_check();
  use_.reset();
  std::optional<std::pair<std::string, std::string>> kept;
  if (chosen_)
    kept = {matrix_->sources()[chosen_->source].name,
            std::string(this->chart().name_of(StateId(chosen_->column)))};
  matrix_ = std::make_unique<StateMatrix>(chart);
  compared_.reset();
  read_of_ = nullptr;
  chosen_.reset();
  for (std::size_t s = 0; kept && s < matrix_->sources().size(); ++s) {
    const auto column = chart->find(kept->second);
    if (matrix_->sources()[s].name == kept->first && column) chosen_ = CellPlace{s, std::size_t(*column)};
  }
  refresh();
  emit table_changed();
  // The same cell is no other choice, wherever it stands now: nobody is led to it.
  if (kept && !chosen_) emit chosen_changed();
}

bool StatesDesk::is_by_table(const Recording& recording) const {
  auto other = shared_chart_of(recording.take.profile);
  if (other == matrix_->shared_chart()) return true;
  if (other != compared_) {
    compared_equal_ = other->table() == table();
    compared_ = std::move(other);
  }
  return compared_equal_;
}

const Recording* StatesDesk::subject() const {
  const auto ghost = takes_.current_ghost();
  if (session_.has_shown() && is_by_table(session_.shown())) return &session_.shown();
  if (ghost && is_by_table(*ghost->recording)) return ghost->recording.get();
  return nullptr;
}

bool StatesDesk::subject_is_retake() const {
  const Recording* read = subject();
  return read != nullptr && read != &session_.shown();
}

std::size_t StatesDesk::tick() const {
  const Recording* read = subject();
  if (read == nullptr) return 0;
  // Under another tick rate the same time.
  const double seconds = double(session_.playhead()) / session_.shown().run.tick_rate();
  const auto tick = static_cast<std::size_t>(std::lround(seconds * read->run.tick_rate()));
  return std::min(tick, read->run.ticks());
}

void StatesDesk::show_tick(std::size_t tick) {
  const Recording* read = subject();
  if (read == nullptr) return;
  const double seconds = double(tick) / read->run.tick_rate();
  const auto shown = static_cast<std::size_t>(std::lround(seconds * session_.shown().run.tick_rate()));
  session_.set_playhead(std::min(shown, session_.shown().run.ticks()));
  refresh();
}

StateId StatesDesk::state_now() const {
  const Recording* read = subject();
  return read == nullptr ? chart().fallback() : read->run.state(tick()).state;
}

QString StatesDesk::time_text(std::size_t tick) const {
  const Recording* read = subject();
  return read == nullptr ? QString() : QString::number(double(tick) / read->run.tick_rate(), 'f', 3) + " s";
}

void StatesDesk::refresh() {
  const Recording* read = subject();
  const bool other = read != read_of_ || revision_ != session_.revision();
  const std::size_t ticks = read == nullptr ? 0 : read->run.ticks();
  if (other || ticks != read_) {
    const std::size_t before = firings_.size();
    if (other || ticks < read_) firings_.clear(), read_ = 0;
    if (read != nullptr) {
      const auto more = firings_of(read->run, read->take, read->place->world, read_ + 1);
      firings_.insert(firings_.end(), more.begin(), more.end());
    }
    read_of_ = read;
    ghost_ = takes_.current_ghost();  // What is read of is not let go meanwhile.
    revision_ = session_.revision();
    read_ = ticks;
    if (other || firings_.size() != before) {
      matrix_->count(firings_);
      emit firings_changed();
    }
  }
  if (tick_ == tick() && !other) return;
  tick_ = tick();
  emit moved();
}

void StatesDesk::choose(std::optional<CellPlace> cell) {
  if (cell == chosen_) return;
  chosen_ = cell;
  emit chosen_changed();
}

std::vector<Firing> StatesDesk::chosen_firings() const {
  return chosen_ ? matrix_->firings_of_cell(firings_, chosen_->source, chosen_->column) : std::vector<Firing>();
}

SignalView StatesDesk::view_of(const Recording& recording, const Values& values, std::size_t tick,
                               bool before_motion) const {
  SignalView view = view_at(recording.run, recording.take, recording.place->world, values, tick);
  if (!before_motion || tick == 0) return view;
  const CharacterState& before = recording.run.state(tick - 1);
  return {before, before, view.input, values, view.world, view.dt, view.now};
}

GuardStory StatesDesk::story(const StateChart::Transition& transition, std::size_t tick, bool with_story,
                             bool before_motion) const {
  const Recording& read = *subject();
  const std::size_t in_force = before_motion && tick > 0 ? tick - 1 : tick;
  const Values values = chart().values_in(read.run.state(in_force).state, read.take.profile);
  GuardStory story{
      transition.row, explain(chart(), transition, view_of(read, values, tick, before_motion)), {}, {}};
  if (!with_story) return story;
  const std::size_t parts = story.verdict.parts.size();
  story.since.assign(parts, 0.0);
  story.for_ever.assign(parts, true);
  const auto most = std::min(tick, static_cast<std::size_t>(kLookBack * read.run.tick_rate()));
  std::size_t open = parts;
  for (std::size_t back = 1; back <= most && open > 0; ++back) {
    const GuardVerdict then = explain(chart(), transition, view_of(read, values, tick - back, before_motion));
    for (std::size_t p = 0; p < parts; ++p) {
      if (!story.for_ever[p]) continue;
      if (then.parts[p].holds == story.verdict.parts[p].holds) {
        story.since[p] = double(back) / read.run.tick_rate();
      } else {
        story.for_ever[p] = false;
        --open;
      }
    }
  }
  return story;
}

std::vector<double> StatesDesk::signal_values() const {
  const Recording* read = subject();
  if (read == nullptr) return {};
  const CharacterState& state = read->run.state(tick());
  const Values values = chart_of(read->take.profile).values_in(state.state, read->take.profile);
  const SignalView view = view_of(*read, values, tick(), false);
  std::vector<double> all;
  for (const Signal& s : all_signals()) all.push_back(s.value(view));
  for (std::size_t i = 0; i < table().memory.size(); ++i) all.push_back(double(state.memory[i]));
  return all;
}

void StatesDesk::check(std::size_t random_ticks) {
  cancel_check();
  use_.reset();
  const std::vector<QString> files = takes_of(takes_.study());
  job_.start([this, files, random_ticks, profile = handling_.now(),
              place = session_.shared_place()](const NewestJob::Handle& job) {
    const auto part = [&](double from, double size) {
      return [this, &job, from, size](double share) {
        job.deliver([this, at = from + size * share] { emit check_progress(at); });
        return job.wanted();
      };
    };
    auto use = std::make_shared<TableUse>(chart_of(profile));
    const double each = files.empty() ? 0.0 : kShareOfTakes / double(files.size());
    for (std::size_t i = 0; i < files.size() && job.wanted(); ++i) {
      if (const auto of_take = use_of_take(files[i], profile, part(double(i) * each, each))) use->add(*of_take);
    }
    const double begin = files.empty() ? 0.0 : kShareOfTakes;
    if (place != nullptr && job.wanted()) {
      use->add(drive_randomly(profile, homes_of(place->course), place->world, {random_ticks},
                              part(begin, 1.0 - begin)));
    }
    job.finish([this, use] {
      use_ = use;
      emit checked();
    });
  });
}

void StatesDesk::cancel_check() {
  if (job_.give_up()) emit checked();
}

QString StatesDesk::failure_of(const QString& script) const {
  const Recording* read = subject();
  if (read == nullptr) return {};
  for (const Finding& f : read->run.findings()) {
    const QString note = QString::fromStdString(f.note);
    if (f.kind != Finding::Kind::ScriptFailed || !note.startsWith(script + ":")) continue;
    return tr("Failed at %1, line %2").arg(time_text(f.first), note.mid(script.size() + 1));
  }
  return {};
}

std::vector<TableFinding> StatesDesk::findings() const {
  std::vector<TableFinding> all = check_table(chart());
  if (use_ == nullptr) return all;
  const auto of_use = findings_of(*use_, chart());
  all.insert(all.end(), of_use.begin(), of_use.end());
  return all;
}

}  // namespace lagniappe::app
