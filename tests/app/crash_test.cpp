// SPDX-License-Identifier: GPL-3.0-or-later
// The real program is killed while it records; what it wrote is had back.
#include <QDir>
#include <QProcess>
#include <csignal>

#include "lagniappe/files.h"
#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

QString only_journal(const QString& study) {
  const auto found = QDir(study + "/takes").entryInfoList({"*.journal"}, QDir::Files);
  return found.isEmpty() ? QString() : found.front().absoluteFilePath();
}

}  // namespace

TEST_CASE("After kill -9 all but the last half second of the take is on disk, and the next start offers it") {
  QTemporaryDir home;
  const QString study = home.filePath("study");
  QDir().mkpath(home.filePath("Lagniappe"));
  QSettings(home.filePath("Lagniappe/lagniappe.conf"), QSettings::IniFormat).setValue("study", study);
  QProcess program;
  QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
  environment.insert("XDG_CONFIG_HOME", home.path());
  program.setProcessEnvironment(environment);
  program.start(LAGNIAPPE_PROGRAM, {"--example", home.filePath("out")});
  REQUIRE(program.waitForStarted());
  // Until it has driven for some seconds.
  const auto recorded = [&] {
    const auto recovered = recover_take(only_journal(study).toStdString());
    return recovered ? recovered->take.seconds() : 0.0;
  };
  REQUIRE(QTest::qWaitFor([&] { return recorded() > 3.0; }, 40000));
  CHECK(Journal::left_behind(study + "/takes").isEmpty());  // It is held.
  QElapsedTimer since;
  since.start();
  const double before = recorded();
  REQUIRE(QTest::qWaitFor([&] { return recorded() > before; }, 5000));
  const double another = recorded();
  REQUIRE(QTest::qWaitFor([&] { return recorded() > another; }, 5000));
  CHECK(recorded() - another <= 1.5);  // Written in small pieces, however slow the machine.
  ::kill(pid_t(program.processId()), SIGKILL);
  program.waitForFinished();

  const QString journal = only_journal(study);
  const auto recovered = recover_take(journal.toStdString());
  REQUIRE(recovered);
  const TriangleWorld world = build_world(*recovered->take.course);
  CHECK(recovered->take.hashes.size() == recovered->take.inputs.size());
  CHECK_FALSE(first_difference(*run_take(recovered->take, world), recovered->take));

  QSettings settings(home.filePath("other.ini"), QSettings::IniFormat);
  settings.setValue("study", study);
  MainWindow window(settings, {});
  window.show();
  window.open(kDemo);
  REQUIRE(wait_for([&] {
    return window.messages().isVisible() && window.messages().text().contains("did not end by itself");
  }));
  emit window.messages().accepted();
  REQUIRE(
      wait_for([&] { return window.desk().study().entries().size() == 1 && only_journal(study).isEmpty(); }));
  CHECK(window.session().shown().run.ticks() == recovered->take.inputs.size());
}

TEST_CASE("A take that cannot be saved is kept and can be saved later; its journal stays until then") {
  QTemporaryDir home;
  QSettings settings(home.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", home.filePath("study"));
  MainWindow window(settings, {});
  window.resize(1280, 800);
  window.show();
  window.open(kDemo);
  REQUIRE(wait_for([&] { return window.session().place() != nullptr; }));
  InputChange go;
  go.move = Vec2(0.0, 1.0);
  window.session().follow(InputScript{{go}}, 3.0);
  REQUIRE(wait_for([&] {
    return !only_journal(home.filePath("study")).isEmpty() && window.session().shown().run.ticks() > 90;
  }));
  // The folder goes away under it: as a full disk does, this hits whoever writes, root too.
  REQUIRE(QDir().rename(home.filePath("study/takes"), home.filePath("study/elsewhere")));
  window.actions()[Act::ToStart]->trigger();
  REQUIRE(wait_for([&] { return window.messages().isVisible(); }));
  CHECK(window.messages().text().contains("could not be saved"));
  CHECK_FALSE(window.desk().study().all_saved());
  CHECK(QDir(home.filePath("study/elsewhere")).entryList({"*.journal"}).size() == 1);
  REQUIRE(QDir().rename(home.filePath("study/elsewhere"), home.filePath("study/takes")));
  emit window.messages().accepted();
  REQUIRE(wait_for([&] { return window.desk().study().all_saved(); }));
  REQUIRE(wait_for([&] { return only_journal(home.filePath("study")).isEmpty(); }));
  REQUIRE(window.desk().study().entries().size() == 1);
  CHECK(read_take(window.desk().study().entries().front().file.toStdString()));
}

TEST_CASE("A study that cannot be written is told in a sentence, and driving goes on") {
  QTemporaryDir home;
  QSettings settings(home.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", "/proc/no-study-here");
  MainWindow window(settings, {});
  window.resize(1280, 800);
  window.show();
  window.open(kDemo);
  REQUIRE(wait_for([&] { return window.session().place() != nullptr; }));
  InputChange go;
  go.move = Vec2(0.0, 1.0);
  window.session().follow(InputScript{{go}}, 3.0);
  REQUIRE(wait_for([&] { return window.messages().isVisible(); }));
  CHECK(window.messages().text().contains("/proc/no-study-here"));
  CHECK(window.messages().text().contains("the take is kept in memory"));
  const std::size_t ticks = window.session().shown().run.ticks();
  CHECK(wait_for([&] { return window.session().shown().run.ticks() > ticks + 20; }));
}
