// SPDX-License-Identifier: GPL-3.0-or-later
// All that stops and asks: it goes through here, so that tests can answer in the user's place.
#pragma once

#include <QString>
#include <QStringList>
#include <functional>

#include "lagniappe/result.h"

class QWidget;

namespace lagniappe::app {

struct Doors {
  // Asks for a file; empty if none was chosen.
  std::function<QString(QWidget*, const QString& title, const QString& filter)> ask_for_file;
  // Asks where to write one.
  std::function<QString(QWidget*, const QString& title, const QString& filter, const QString& suggested)>
      ask_where_to_save;
  // What to do about takes that are in memory only, when the window closes.
  enum class Unsaved { TryAgain, Elsewhere, Lose, Stay };
  std::function<Unsaved(QWidget*, const QStringList& names)> ask_about_unsaved = {};
  std::function<QString(QWidget*, const QString& title)> ask_for_folder = {};
  // What to do about courses that are changed and not saved: TryAgain saves them.
  std::function<Unsaved(QWidget*, const QStringList& names)> ask_about_courses = {};
};

// The dialogs that people see.
Doors real_doors();

// What a file can be: the filter that dialogs show, and the ending that a name without one gets.
struct FileKind {
  const char* filter;
  const char* ending;
};
namespace files {
inline constexpr FileKind kCourses{"Courses and models (*.course.json *.json *.glb *.gltf *.obj)",
                                   ".course.json"};
inline constexpr FileKind kCourseFiles{"Courses (*.course.json *.json)", ".course.json"};
inline constexpr FileKind kDriven{
    "Courses, models, inputs (*.course.json *.inputs.json *.json *.glb *.gltf *.obj)", ".course.json"};
inline constexpr FileKind kProfiles{"Profiles (*.profile.json *.json)", ".profile.json"};
inline constexpr FileKind kTakes{"Takes (*.take *.json)", ".take"};
inline constexpr FileKind kInputs{"Inputs (*.inputs.json)", ".inputs.json"};
inline constexpr FileKind kCharts{"State charts (*.scxml)", ".scxml"};
inline constexpr FileKind kTraces{"Traces (*.csv)", ".csv"};
inline constexpr FileKind kTiming{"Table (*.csv);;Pictures (*.svg *.pdf *.png)", ".csv"};
inline constexpr FileKind kFrames{"Frame lengths, ms a line (*.txt *.csv)", ".txt"};
inline constexpr FileKind kLedgers{"Ledgers (*.jsonl)", ".jsonl"};
inline constexpr FileKind kPictures{"Pictures (*.svg *.pdf *.png)", ".svg"};
inline constexpr FileKind kPoses{"Poses (*.csv)", ".csv"};
inline constexpr FileKind kPixels{"Pictures (*.png)", ".png"};
inline constexpr FileKind kConstants{"C++ header (*.h);;JSON (*.json)", ".h"};
inline constexpr FileKind kCurves{"Picture (*.svg);;Table (*.csv)", ".svg"};
}  // namespace files

QString ask_for(const Doors& doors, QWidget* window, const QString& title, const FileKind& kind);

// Asks where to write, completes the name, and writes. Returns the path, empty where none was chosen, or why it
// was not written.
Result<QString> write_where_asked(const Doors& doors, QWidget* window, const QString& title,
                                  const FileKind& kind, const QString& suggested,
                                  const std::function<Result<void>(const std::string& path)>& writes);

}  // namespace lagniappe::app
