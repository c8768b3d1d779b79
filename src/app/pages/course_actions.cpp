// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/course_actions.h"

#include <QFileInfo>

#include "fields/cut_view.h"
#include "pages/fields_page.h"
#include "tape/tape.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {

CourseActions::CourseActions(CourseDesk& desk, TakeDesk& takes, DriveSession& session, FieldsPage& page,
                             ViewWidget& view, const Actions& actions, Doors doors, QWidget* window)
    : QObject(window),
      desk_(desk),
      takes_(takes),
      session_(session),
      page_(page),
      view_(view),
      actions_(actions),
      doors_(std::move(doors)),
      window_(window) {
  const auto does_on = [&](Act act, auto does) {
    connect(actions[act], &QAction::triggered, this, [this, does] {
      emit page_asked();
      does();
    });
  };
  does_on(Act::AddField, [&page] { page.add_field(); });
  does_on(Act::AddZone, [&page] { page.add_zone(); });
  does_on(Act::CopyRow, [&page] { page.copy_row(); });
  does_on(Act::RemoveRow, [&page] { page.remove_row(); });
  does_on(Act::CutPlayhead, [&page] { page.cut().cut_through_playhead(); });
  does_on(Act::CutAll, [&page] { page.cut().show_all(); });
  connect(actions[Act::ZoomIn], &QAction::triggered, this, [&page] { page.tape().zoom(0.5); });
  connect(actions[Act::ZoomOut], &QAction::triggered, this, [&page] { page.tape().zoom(2.0); });
  connect(actions[Act::ShowAll], &QAction::triggered, this, [&page] { page.tape().show_all(); });
  connect(actions[Act::SaveCourse], &QAction::triggered, this, &CourseActions::save);
  connect(actions[Act::SaveCourseAs], &QAction::triggered, this, &CourseActions::save_as);
  connect(&page, &FieldsPage::refused, this, &CourseActions::problem);
  connect(&desk_, &CourseDesk::place_made, this, &CourseActions::take_edited);
  connect(&view_, &ViewWidget::driving_changed, this, [this](bool driving) {
    if (driving) drive_on_edited();
  });
}

void CourseActions::show_enabled() {
  desk_.refresh();
  const bool course = desk_.course() != nullptr;
  for (const Act act : {Act::AddField, Act::AddZone, Act::CutPlayhead, Act::CutAll})
    actions_[act]->setEnabled(course);
  for (const Act act : {Act::CopyRow, Act::RemoveRow})
    actions_[act]->setEnabled(course && page_.cut().chosen().has_value());
  actions_[Act::SaveCourseAs]->setEnabled(course && desk_.can_save());
  actions_[Act::SaveCourse]->setEnabled(course && !desk_.is_saved() && desk_.can_save());
}

void CourseActions::save() {
  if (const auto saved = desk_.save(); !saved)
    emit problem(tr("The course was not saved"), QString::fromStdString(saved.error().sentence()));
}

void CourseActions::save_as() {
  const auto saved = write_where_asked(doors_, window_, tr("Save course as"), files::kCourseFiles,
                                       QString::fromStdString(desk_.path()),
                                       [this](const std::string& path) { return desk_.save_as(path); });
  if (!saved) {
    emit problem(tr("The course was not saved"), QString::fromStdString(saved.error().sentence()));
  } else if (!saved->isEmpty() && QFileInfo(*saved) != QFileInfo(QString::fromStdString(desk_.path()))) {
    emit saved_as(*saved);  // Over its own file it is open already.
  }
}

// What is being driven goes on there at once; a take that is over is run on it, beside itself.
void CourseActions::take_edited(const std::shared_ptr<const Place>& place) {
  if (!session_.has_shown() || session_.place()->path != place->path) return;
  const bool drives = session_.live() || session_.shown().run.ticks() == 0;
  if (!drives) return takes_.try_place(place);
  if (session_.place()->identity == place->identity) return;
  session_.move_to(place);
  desk_.refresh();
  view_.show_changed_place();
}

// Driving on is on what one has made of the course.
void CourseActions::drive_on_edited() {
  const auto place = desk_.edited_place();
  if (place == nullptr || !session_.has_shown() || session_.place()->path != place->path) return;
  takes_.try_place(nullptr);
  session_.move_to(place);
  desk_.refresh();
  view_.show_changed_place();
}

bool CourseActions::settle() {
  while (!desk_.unsaved().isEmpty()) {
    const auto answer =
        doors_.ask_about_courses ? doors_.ask_about_courses(window_, desk_.unsaved()) : Doors::Unsaved::Lose;
    if (answer == Doors::Unsaved::Stay) return false;
    if (answer == Doors::Unsaved::Lose) {
      desk_.give_up_unsaved();
    } else if (const auto saved = desk_.save_all(); !saved) {
      emit problem(tr("The course was not saved"), QString::fromStdString(saved.error().sentence()));
      return false;
    }
  }
  return true;
}

}  // namespace lagniappe::app
