// SPDX-License-Identifier: GPL-3.0-or-later
#include "example_run.h"

#include <QFile>
#include <QTextStream>
#include <algorithm>

#include "main_window.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {

const std::vector<ExampleRun::Scene>& ExampleRun::scenes() {
  static const std::vector<Scene> all = {
      {0.4, "start", nullptr},
      {1.75, "jump", nullptr},
      {3.6, "sluice-stairs",
       [](MainWindow& w) {
         w.actions()[Act::Capsule]->setChecked(true);
         w.actions()[Act::Arrows]->setChecked(true);
       }},
      {4.2, "contacts",
       [](MainWindow& w) {
         w.actions()[Act::Contacts]->setChecked(true);
         w.actions()[Act::Probe]->setChecked(true);
       }},
      {6.0, "catwalk",
       [](MainWindow& w) {
         for (const Act a : {Act::Capsule, Act::Arrows, Act::Contacts, Act::Probe})
           w.actions()[a]->setChecked(false);
       }},
      {7.2, "first-person", [](MainWindow& w) { w.actions()[Act::FirstPerson]->setChecked(true); }},
      {8.8, "end", [](MainWindow& w) { w.actions()[Act::FirstPerson]->setChecked(false); }},
  };
  return all;
}

ExampleRun::ExampleRun(MainWindow& window, InputScript inputs, const QString& folder,
                       double seconds_to_first_frame)
    : QObject(&window),
      window_(window),
      inputs_(std::move(inputs)),
      folder_(folder),
      first_frame_(seconds_to_first_frame) {}

void ExampleRun::begin() {
  if (!folder_.mkpath(".")) return emit done(false);
  DriveSession& session = window_.session();
  states_ = {session.current()};
  window_.view().set_driving(true);
  session.follow(inputs_, scenes().back().at + 1.0);
  connect(&window_.heart(), &Heart::beat, this, &ExampleRun::pass);
}

void ExampleRun::pass() {
  const DriveSession& session = window_.session();
  if (session.current().tick != states_.back().tick) states_.push_back(session.current());
  const double time = double(session.current().tick - states_.front().tick) / session.tick_rate();
  if (since_frame_.isValid()) frame_seconds_.push_back(since_frame_.nsecsElapsed() * 1e-9);
  since_frame_.start();
  const Scene& scene = scenes()[next_scene_];
  // Arranged a moment before, so that a drawn frame lies between.
  if (!arranged_ && time > scene.at - 0.2) {
    if (scene.arrange != nullptr) scene.arrange(window_);
    arranged_ = true;
  }
  if (time < scene.at) return;
  picture(QString("%1-%2.png").arg(next_scene_ + 1).arg(scene.name));
  arranged_ = false;
  if (++next_scene_ < scenes().size()) return;
  disconnect(&window_.view(), nullptr, this, nullptr);
  window_.view().set_driving(false);
  emit done(write_report());
}

void ExampleRun::picture(const QString& name) {
  if (window_.grab().save(folder_.filePath(name))) pictures_.append(name);
  since_frame_.invalidate();  // Taking a picture is no frame.
}

bool ExampleRun::write_report() {
  QFile file(folder_.filePath("report.md"));
  if (!file.open(QIODevice::WriteOnly | QIODevice::Text)) return false;
  const DriveSession& session = window_.session();
  const CharacterState& last = session.current();
  QTextStream out(&file);
  out << "# The example run\n\n";
  out << "Course: " << QString::fromStdString(session.place()->course.name)
      << ", profile: " << QString::fromStdString(session.profile().name) << ".\n\n";
  out << "| what | figure |\n|---|---|\n";
  out << "| start to first drawn frame | " << QString::number(first_frame_, 'f', 2) << " s |\n";
  std::sort(frame_seconds_.begin(), frame_seconds_.end());
  const auto rate = [&](double share) {
    return QString::number(1.0 / frame_seconds_[std::size_t(share * double(frame_seconds_.size() - 1))], 'f',
                           0);
  };
  out << "| draw rate, median and slowest twentieth | " << rate(0.5) << " and " << rate(0.95) << " frames/s at "
      << window_.view().width() << "x" << window_.view().height() << " |\n";
  out << "| tick rate | " << session.tick_rate() << " ticks/s |\n";
  out << "| ticks | " << (last.tick - states_.front().tick) << " |\n";
  out << "| dropped time | " << QString::number(session.dropped_seconds(), 'f', 3) << " s |\n";
  double top = 0.0, highest = -1e9;
  for (const CharacterState& s : states_) {
    top = std::max(top, length(s.velocity_C));
    highest = std::max(highest, s.foot_C.y);
  }
  out << "| top speed | " << QString::number(top, 'f', 2) << " m/s |\n";
  out << "| highest point | " << QString::number(highest, 'f', 2) << " m |\n";
  out << "| end | "
      << QString("%1, %2, %3 m, %4")
             .arg(last.foot_C.x, 0, 'f', 2)
             .arg(last.foot_C.y, 0, 'f', 2)
             .arg(last.foot_C.z, 0, 'f', 2)
             .arg(QString::fromUtf8(name_of(last.state, window_.session().shown_profile()).data()))
      << " |\n\n";
  for (const QString& name : pictures_) out << "![" << name << "](" << name << ")\n";
  return pictures_.size() == qsizetype(scenes().size());
}

}  // namespace lagniappe::app
