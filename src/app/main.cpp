// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QSettings>
#include <QTextStream>

#include "application.h"
#include "example_run.h"
#include "lagniappe/files.h"
#include "main_window.h"
#include "pages/device_actions.h"
#include "session/clean_end.h"
#include "session/preferences.h"
#include "theme/theme.h"
#include "viewport/view_widget.h"

namespace {

using namespace lagniappe;
using namespace lagniappe::app;

// Demo data: beside the sources while developing, else where it was installed.
QString demo_file(const QString& relative) {
  for (const QString& folder :
       {QStringLiteral(LAGNIAPPE_SOURCE_DIR), QCoreApplication::applicationDirPath() + "/../share/lagniappe"}) {
    const QString path = folder + "/" + relative;
    if (QFileInfo::exists(path)) return path;
  }
  return {};
}

struct Arguments {
  QStringList files;
  QString example_folder;
};

Arguments parse(const QApplication& application) {
  QCommandLineParser parser;
  parser.setApplicationDescription(
      "A workbench for character locomotion. Without FILE it opens the demo course.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(
      "FILE", "Course, model, profile, take or inputs to open; more than one may be given.", "[FILE...]");
  const QCommandLineOption example(
      "example", "Run the example without a person; leave pictures and report.md in FOLDER.", "FOLDER");
  parser.addOption(example);
  parser.process(application);
  return {parser.positionalArguments(), parser.value(example)};
}

// One works on a copy in the study: saving must not change what is installed, or lies in a source tree.
QString own_copy(const QString& file, const QString& folder) {
  const QString copy = folder + "/" + QFileInfo(file).fileName();
  if (!QFileInfo::exists(copy)) {
    QDir().mkpath(folder);
    if (!QFile::copy(file, copy)) return {};
    QFile::setPermissions(copy, QFile::permissions(copy) | QFile::WriteOwner);
  }
  return copy;
}

// What a file is decides, not what it is called: a profile and a chart are no course.
bool is_course(const QString& file) {
  const std::string kind = file.endsWith(".json") ? document_kind(file.toStdString()) : "";
  return kind != "profile" && kind != "take" && kind != "inputs" && !file.endsWith(".scxml") &&
         !file.endsWith(".take");
}

void open_at_start(MainWindow& window, const Arguments& arguments) {
  const QStringList& files = arguments.files;
  const auto is_profile = [](const QString& f) {
    return f.endsWith(".json") && document_kind(f.toStdString()) == "profile";
  };
  const QString demo = demo_file("profiles/warden.profile.json");
  const bool only_shown = !arguments.example_folder.isEmpty();
  if (std::none_of(files.begin(), files.end(), is_profile)) {
    const QString copy = only_shown ? demo : own_copy(demo, window.desk().study().folder() + "/profiles");
    const auto profile = read_profile(demo.toStdString());
    // Where the study cannot be written the values are there, without a file to save them into.
    !copy.isEmpty() ? window.open(copy) : profile ? window.handling().open({}, *profile) : void();
  }
  if (std::none_of(files.begin(), files.end(), is_course))
    window.open(demo_file("courses/tidewheel.course.json"));
  for (const QString& file : files) window.open(file);
}

// Signals, and the end of a desktop's session.
void end_cleanly(QApplication& application, MainWindow& window) {
  auto* end = new CleanEnd(&window);
  QObject::connect(end, &CleanEnd::asked, &window, [&window] {
    window.end_by_signal();
    QCoreApplication::exit(0);
  });
  QObject::connect(
      &application, &QGuiApplication::commitDataRequest, &window, [&window] { window.make_safe(); },
      Qt::DirectConnection);
}

// Begins the example once the place is loaded and drawn; quits with its result.
void begin_example(MainWindow& window, const QString& folder, const QElapsedTimer& since_start) {
  const auto inputs = read_inputs(demo_file("takes/tour.inputs.json").toStdString());
  if (!inputs) {
    QTextStream(stderr) << "error: " << QString::fromStdString(inputs.error().sentence()) << "\n";
    return QCoreApplication::exit(2);
  }
  QObject::connect(&window.loader(), &PlaceLoader::failed, &window,
                   [](const QString&, const QString& sentence) {
                     QTextStream(stderr) << "error: " << sentence << "\n";
                     QCoreApplication::exit(2);
                   });
  QObject::connect(
      &window.loader(), &PlaceLoader::loaded, &window,
      [&window, inputs, folder, since_start] {
        QObject::connect(
            &window.view(), &ViewWidget::frame_shown, &window,
            [&window, inputs, folder, since_start] {
              auto* run = new ExampleRun(window, *inputs, folder, since_start.nsecsElapsed() * 1e-9);
              QObject::connect(run, &ExampleRun::done, [](bool fine) { QCoreApplication::exit(fine ? 0 : 1); });
              QTimer::singleShot(300, run, &ExampleRun::begin);
            },
            Qt::SingleShotConnection);
      },
      Qt::SingleShotConnection);
}

}  // namespace

int main(int argc, char** argv) {
  QElapsedTimer since_start;
  since_start.start();
  QCoreApplication::setOrganizationName("Lagniappe");
  QCoreApplication::setApplicationName("lagniappe");
  QSettings settings;
  choose_display(Preferences(settings).number(Pref::Scale));
  QApplication application(argc, argv);
  QApplication::setApplicationVersion(LAGNIAPPE_VERSION);
  QApplication::setDesktopFileName("lagniappe");
  const double light = Preferences(settings).number(Pref::Light);
  begin_application(application, light < 0.0 ? theme::desktop_is_dark() : light > 0.0);
  const Arguments arguments = parse(application);
  MainWindow window(settings, real_doors());
  if (!arguments.example_folder.isEmpty()) window.resize(1280, 800);
  window.show();
  if (!arguments.example_folder.isEmpty()) begin_example(window, arguments.example_folder, since_start);
  if (arguments.example_folder.isEmpty()) window.devices().pads().start();
  end_cleanly(application, window);
  open_at_start(window, arguments);
  return QApplication::exec();
}
