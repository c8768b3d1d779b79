// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QSettings>
#include <QTextStream>

#include "example_run.h"
#include "lagniappe/files.h"
#include "main_window.h"
#include "theme/theme.h"
#include "viewport/canvas.h"
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
  parser.addPositionalArgument("FILE", "Course, model or profile to open; more than one may be given.",
                               "[FILE...]");
  const QCommandLineOption example(
      "example", "Run the example without a person; leave pictures and report.md in FOLDER.", "FOLDER");
  parser.addOption(example);
  parser.process(application);
  return {parser.positionalArguments(), parser.value(example)};
}

void open_at_start(MainWindow& window, const QStringList& files) {
  window.open(demo_file("profiles/warden.profile.json"));
  const bool has_course =
      std::any_of(files.begin(), files.end(), [](const QString& f) { return !f.endsWith(".profile.json"); });
  if (!has_course) window.open(demo_file("courses/tidewheel.course.json"));
  for (const QString& file : files) window.open(file);
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
  choose_opengl();
  QApplication application(argc, argv);
  QApplication::setOrganizationName("Lagniappe");
  QApplication::setApplicationName("lagniappe");
  QApplication::setApplicationVersion(LAGNIAPPE_VERSION);
  QApplication::setDesktopFileName("lagniappe");
  theme::apply(application);
  const Arguments arguments = parse(application);
  QSettings settings;
  MainWindow window(settings, MainWindow::real_doors());
  if (!arguments.example_folder.isEmpty()) window.resize(1280, 800);
  window.show();
  if (!arguments.example_folder.isEmpty()) begin_example(window, arguments.example_folder, since_start);
  open_at_start(window, arguments.files);
  return QApplication::exec();
}
