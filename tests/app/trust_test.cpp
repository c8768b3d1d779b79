// SPDX-License-Identifier: GPL-3.0-or-later
// Whose file it is: takes beside the profile that is worked on, what saving may write, two windows on one
// study, ends.
#include <sys/stat.h>

#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QProcess>
#include <QPushButton>
#include <QToolTip>
#include <csignal>

#include "lagniappe/files.h"
#include "panels/takes_panel.h"
#include "session/patiently.h"
#include "support/scratch.h"
#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;
using lagniappe::test::content;

namespace {

const char* const kYard = R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [0, 0, 0]}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [90, 1, 90]}]})";

std::string otter(double height) {
  return "{\n  \"lagniappe\": \"profile\",\n  \"version\": 1,\n  \"name\": \"Otter\",\n  \"jump\": "
         "{\"height\": " +
         QByteArray::number(height).toStdString() + "},\n  \"ground\": {\"speed\": 4}\n}\n";
}

struct TrustFixture : WindowFixture {
  HandlingDesk& handling = window.handling();
  TakeDesk& desk = window.desk();
  QString mine = file("otter.profile.json", otter(1.2));

  TrustFixture() {
    open(file("yard.course.json", kYard));
    open(mine);
  }
  void walk(double seconds = 1.2) {
    InputChange go, stop;
    go.move = Vec2(0.0, 1.0);
    stop.at = seconds;
    stop.move = Vec2(0.0);
    follow_to_rest(InputScript{{go, stop}}, seconds + 0.5);
  }
  void set_height(double height) {
    Profile profile = handling.now();
    profile.jump.height = height;
    REQUIRE(handling.set(profile, "height"));
  }
  // A take of the same name, driven with other values, that says it came from a file that is there.
  QString old_take(const QString& named_file) {
    walk();
    Take take = session.shown().take;
    take.profile.jump.height = 2.0;
    take.profile_identity = identity_of(take.profile);
    take.profile_file = named_file.toStdString();
    take.hashes.clear();
    return file("old.take", take_bytes(take));
  }
  QString said() { return window.messages().text(); }
};

QStringList takes_in(const QString& study) { return QDir(study + "/takes").entryList({"*.take"}, QDir::Files); }

// The real program, with settings and a study of its own.
struct Program {
  QTemporaryDir home;
  QProcess process;
  QString study = home.filePath("study");

  explicit Program(const QStringList& arguments = {}, const std::pair<QString, QString>& setting = {}) {
    QDir().mkpath(home.filePath("Lagniappe"));
    QSettings(home.filePath("Lagniappe/lagniappe.conf"), QSettings::IniFormat).setValue("study", study);
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("XDG_CONFIG_HOME", home.path());
    if (!setting.first.isEmpty()) environment.insert(setting.first, setting.second);
    process.setProcessEnvironment(environment);
    process.start(LAGNIAPPE_PROGRAM, arguments);
    REQUIRE(process.waitForStarted());
  }
  ~Program() {
    process.kill();
    process.waitForFinished();
  }
};

}  // namespace

TEST_CASE_METHOD(
    TrustFixture,
    "Opening a take leaves the working profile, its file and its unsaved values; Save writes those") {
  const QString victim = file("victim.profile.json", otter(9.0));
  const QString take = old_take(GENERATE(false, true) ? victim : mine);
  set_height(1.7);
  open(take);
  REQUIRE(wait_for([&] { return !session.is_open() && session.shown().take.profile.jump.height == 2.0; }));
  CHECK(session.profile().jump.height == 1.7);
  CHECK(session.shown_profile().jump.height == 2.0);
  CHECK(QFileInfo(handling.file()) == QFileInfo(mine));
  CHECK(handling.unsaved().size() == 1);
  // What runs beside it is the take under the present values.
  REQUIRE(wait_for([&] { return desk.current_ghost() != nullptr; }));
  CHECK(desk.current_ghost()->recording->take.profile.jump.height == 1.7);
  trigger(Act::SaveProfile);
  CHECK(read_profile(mine.toStdString())->jump.height == 1.7);
  CHECK(content(victim.toStdString()) == otter(9.0));
}

TEST_CASE_METHOD(TrustFixture,
                 "Taking over a take's values is a step that can be taken back, and has no file") {
  open(old_take(mine));
  REQUIRE(wait_for([&] { return session.shown().take.profile.jump.height == 2.0 && !session.live(); }));
  const auto differ = [&] {
    const auto& lines = view.readouts().legend();
    return std::any_of(lines.begin(), lines.end(),
                       [](const auto& line) { return line.text.contains("not as yours"); });
  };
  REQUIRE(wait_for(differ));
  trigger(Act::TakeOver);
  CHECK(session.profile().jump.height == 2.0);
  CHECK(wait_for([&] { return !differ(); }));  // What is said of the values follows them.
  CHECK(handling.file().isEmpty());
  chosen_file.clear();  // Save asks where, and nothing is chosen.
  trigger(Act::SaveProfile);
  CHECK(content(mine.toStdString()) == otter(1.2));
  trigger(Act::Undo);
  CHECK(session.profile().jump.height == 1.2);
  CHECK(QFileInfo(handling.file()) == QFileInfo(mine));
  CHECK(handling.is_saved());
}

TEST_CASE_METHOD(
    TrustFixture,
    "Driving on from an old take goes by the values in the cards; putting back gives those before") {
  open(old_take(mine));
  REQUIRE(wait_for([&] { return session.shown().take.profile.jump.height == 2.0 && !session.live(); }));
  CHECK_FALSE(desk.can_put_back());
  set_height(1.5);
  REQUIRE(desk.can_put_back());
  trigger(Act::PutBack);
  CHECK(session.profile().jump.height == 1.2);
  CHECK(QFileInfo(handling.file()) == QFileInfo(mine));
  drive();
  REQUIRE(wait_for([&] { return session.is_open() && session.shown().run.ticks() > 5; }));
  CHECK(session.shown().take.profile.jump.height == 1.2);
}

TEST_CASE_METHOD(TrustFixture,
                 "What another program wrote is taken in before saving; where both changed a value ours "
                 "stands, and it is told") {
  set_height(1.7);
  // No time for the watcher: written and saved in one breath.
  file(
      "otter.profile.json",
      R"({"lagniappe": "profile", "version": 1, "name": "Otter", "jump": {"height": 3.0}, "ground": {"speed": 5.5}})");
  REQUIRE(handling.save());
  const auto saved = read_profile(mine.toStdString());
  REQUIRE(saved);
  CHECK(saved->jump.height == 1.7);
  CHECK(saved->ground.speed == 5.5);
  CHECK(session.profile().ground.speed == 5.5);
  CHECK_THAT(said().toStdString(), Catch::Contains("changed on the disk") && Catch::Contains("yours stays"));
}

TEST_CASE_METHOD(TrustFixture, "Save refuses what it cannot read or must not write, and the file stays") {
  set_height(1.7);
  SECTION("broken meanwhile") {
    file("otter.profile.json", "{\"lagniappe\": \"profile\", ");
    CHECK_FALSE(handling.save());
    CHECK(content(mine.toStdString()) == "{\"lagniappe\": \"profile\", ");
  }
  SECTION("read-only") {
    REQUIRE(::chmod(mine.toStdString().c_str(), 0444) == 0);
    CHECK_FALSE(handling.save());
    CHECK(content(mine.toStdString()) == otter(1.2));
    CHECK_THAT(said().toStdString(), Catch::Contains("read-only"));
  }
  SECTION("a folder has taken its place") {
    REQUIRE(QFile::remove(mine));
    REQUIRE(QDir().mkpath(mine));
    CHECK_FALSE(handling.save());
  }
  CHECK(handling.unsaved().size() == 1);
}

TEST_CASE_METHOD(TrustFixture, "A profile that is a link is saved where it leads") {
  const QString link = folder.filePath("link.profile.json");
  REQUIRE(QFile::link(mine, link));
  open(link);
  set_height(1.7);
  REQUIRE(handling.save());
  CHECK(QFileInfo(link).isSymLink());
  CHECK(read_profile(mine.toStdString())->jump.height == 1.7);
}

TEST_CASE_METHOD(TrustFixture, "Two windows on one study never give two takes or journals one name") {
  QTemporaryDir other_settings;
  QSettings settings2(other_settings.filePath("s.ini"), QSettings::IniFormat);
  settings2.setValue("study", folder.filePath("study"));
  Study &first = desk.study(), second(folder.filePath("study"));
  walk(0.6);
  Recording recording = session.shown();
  complete(recording);
  QStringList files;
  for (int i = 0; i < 4; ++i) files << first.save(recording.take) << second.save(recording.take);
  first.wait();
  second.wait();
  files.removeDuplicates();
  CHECK(files.size() == 8);
  for (const QString& f : files) CHECK(read_take(f.toStdString()));
  // A name that was put aside is not given again, and comes back as itself.
  const std::string kept = content(files.front().toStdString());
  REQUIRE(first.put_aside(files.front()));
  CHECK(first.save(recording.take) != files.front());
  REQUIRE(first.put_back(files.front()));
  CHECK(content(files.front().toStdString()) == kept);
}

TEST_CASE("A journal of a program of the same number, left by a crash, is not in the way of another") {
  QTemporaryDir folder;
  for (int i = 0; i < 40; ++i) {  // More than this program has made so far.
    QFile left(folder.filePath(QString("%1-%2.journal").arg(QCoreApplication::applicationPid()).arg(i)));
    REQUIRE(left.open(QIODevice::WriteOnly));
  }
  Journal journal(folder.path());
  QStringList trouble;
  QObject::connect(&journal, &Journal::failed, &journal, [&](const QString& sentence) { trouble << sentence; });
  const auto place = make_place("", *parse_course(kYard, "yard", ""));
  Recording recording =
      begin_recording(start_state({}, start_home(place->course), place->world), place, {}, 60);
  journal.keep(recording, 1);
  journal.wait();
  QCoreApplication::processEvents();
  CHECK(trouble.isEmpty());
  CHECK(QDir(folder.path()).entryList({"*.journal"}).size() == 41);
}

TEST_CASE_METHOD(TrustFixture, "A bad take in the study is listed as bad, and all others are there") {
  const QString takes = desk.study().takes_folder();
  std::ofstream((takes + "/nested.take").toStdString(), std::ios::binary)
      << "\xa1" + std::string(5'000'000, '\x7f');
  std::ofstream((takes + "/empty.take").toStdString());
  walk();
  trigger(Act::ToStart);
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 3 && desk.study().all_saved(); }));
  Study again(folder.filePath("study"));
  REQUIRE(again.entries().size() == 3);
  CHECK(std::count_if(again.entries().begin(), again.entries().end(),
                      [](const auto& e) { return !e.trouble.isEmpty(); }) == 2);
}

TEST_CASE_METHOD(TrustFixture,
                 "A take is split, and the whole is put aside only when both parts are on the disk") {
  walk();
  trigger(Act::ToStart);
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1 && desk.study().all_saved(); }));
  const QString whole = desk.study().entries().front().file, study = folder.filePath("study");
  open(whole);
  REQUIRE(wait_for([&] { return session.shown().file == whole; }));
  // The folder goes away under it, as a full disk would have it for whoever writes, root too.
  REQUIRE(QDir().rename(study + "/takes", study + "/elsewhere"));
  desk.split(20);
  REQUIRE(wait_for([&] { return desk.study().unsaved_names().size() == 2; }));
  CHECK(QFile::exists(study + "/elsewhere/" + QFileInfo(whole).fileName()));
  auto* again = window.findChild<QPushButton*>("unsavedTakes");
  CHECK(again->isVisibleTo(again->parentWidget()));
  REQUIRE(QDir().rename(study + "/elsewhere", study + "/takes"));
  again->click();
  REQUIRE(wait_for([&] { return desk.study().all_saved() && takes_in(study).size() == 2; }));
  CHECK_FALSE(QFile::exists(whole));
  CHECK_FALSE(again->isVisibleTo(again->parentWidget()));
  trigger(Act::Undo);
  CHECK(takes_in(study) == QStringList{QFileInfo(whole).fileName()});
}

TEST_CASE("Closing with takes that could not be saved asks: stay, try again, elsewhere, lose") {
  using Unsaved = Doors::Unsaved;
  QTemporaryDir home;
  QSettings settings(home.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", home.filePath("study"));
  QList<Unsaved> answers;
  QStringList asked;
  Doors doors;
  doors.ask_about_unsaved = [&](QWidget*, const QStringList& names) {
    asked << names;
    return answers.takeFirst();
  };
  doors.ask_for_folder = [&](QWidget*, const QString&) { return home.filePath("rescue"); };
  MainWindow window(settings, doors);
  window.show();
  window.open(kDemo);
  REQUIRE(wait_for([&] { return window.session().place() != nullptr; }));
  InputChange go;
  go.move = Vec2(0.0, 1.0);
  window.session().follow(InputScript{{go}}, 1.0);
  REQUIRE(wait_for([&] { return window.session().shown().run.ticks() > 50; }));
  REQUIRE(QDir().rename(home.filePath("study/takes"), home.filePath("study/elsewhere")));
  answers = {Unsaved::TryAgain, Unsaved::Stay};
  CHECK_FALSE(window.close());
  CHECK(asked.size() == 2);
  REQUIRE(QDir().mkpath(home.filePath("rescue")));
  SECTION("elsewhere") {
    answers = {Unsaved::Elsewhere};
    CHECK(window.close());
    const auto rescued = QDir(home.filePath("rescue")).entryInfoList({"*.take"});
    REQUIRE(rescued.size() == 1);
    CHECK(read_take(rescued.front().filePath().toStdString()));
  }
  SECTION("the disk has room again") {
    REQUIRE(QDir().rename(home.filePath("study/elsewhere"), home.filePath("study/takes")));
    answers = {Unsaved::TryAgain};
    CHECK(window.close());
    CHECK(takes_in(home.filePath("study")).size() == 1);
  }
  SECTION("lost knowingly") {
    answers = {Unsaved::Lose};
    CHECK(window.close());
  }
  CHECK(answers.isEmpty());
}

TEST_CASE("A signal that asks to end is a clean end: takes are saved, no journal is left, and the exit is 0") {
  const int signal = GENERATE(SIGTERM, SIGHUP, SIGINT);
  INFO("signal " << signal);
  const lagniappe::test::Scratch out;
  Program program({"--example", QString::fromStdString(out.path("out"))});
  REQUIRE(QTest::qWaitFor([&] { return !QDir(program.study + "/takes").entryList({"*.journal"}).isEmpty(); },
                          40000));
  ::kill(pid_t(program.process.processId()), signal);
  REQUIRE(program.process.waitForFinished(20000));
  CHECK(program.process.exitStatus() == QProcess::NormalExit);
  CHECK(program.process.exitCode() == 0);
  CHECK(takes_in(program.study).size() == 1);
  CHECK(QDir(program.study + "/takes").entryList({"*.journal"}).isEmpty());
}

TEST_CASE("The first start works on a copy of the demo profile in the study") {
  Program program;
  const QString copy = program.study + "/profiles/warden.profile.json";
  REQUIRE(QTest::qWaitFor([&] { return QFile::exists(copy); }, 20000));
  CHECK(content(copy.toStdString()) == content((kSource + "/profiles/warden.profile.json").toStdString()));
  CHECK(QFileInfo(copy).isWritable());
}

TEST_CASE_METHOD(TrustFixture, "Text of files is shown as text") {
  const QString rich = file("<img src=x>.profile.json", "{");
  open(rich);
  REQUIRE(window.messages().isVisible());
  for (const QLabel* label : window.messages().findChildren<QLabel*>())
    CHECK(label->textFormat() == Qt::PlainText);
  CHECK_THAT(said().toStdString(), Catch::Contains("<img src=x>"));
  file(
      "b.course.json",
      R"({"lagniappe": "course", "version": 1, "name": "<b>Yard</b>", "marks": [{"id": "start", "at": [0, 0, 0]}],
    "pieces": [{"id": "<i>floor</i>", "kind": "block", "at": [0, -1, 0], "size": [90, 1, 90]}]})");
  open(folder.filePath("b.course.json"));
  next_picture();
  for (const QLabel* label : window.findChildren<QLabel*>()) {
    INFO(label->text().toStdString());
    CHECK(label->textFormat() != Qt::AutoText);
  }
}

TEST_CASE_METHOD(TrustFixture, "A note and a name that are being typed stay while takes are saved") {
  walk();
  trigger(Act::ToStart);
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1 && desk.study().all_saved(); }));
  window.page().show_takes();
  auto* list = window.page().findChild<QListWidget*>("takes");
  list->setCurrentRow(list->count() - 1);
  auto* note = window.page().takes().findChildren<QLineEdit*>().last();
  note->setFocus();
  QTest::keyClicks(note, "fell 15 cm sh");
  desk.study().refresh();
  CHECK(note->text() == "fell 15 cm sh");
  QTest::keyClicks(note, "ort");
  QTest::keyClick(note, Qt::Key_Return);
  CHECK_FALSE(view.driving());
  REQUIRE(wait_for([&] { return desk.study().entries().front().about.note == "fell 15 cm short"; }));
}

TEST_CASE("Work that takes long leaves the window alive, and what it returns is returned") {
  int frames = 0;
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, &timer, [&] { ++frames; });
  timer.start(10);
  CHECK(patiently([] {
          QTest::qSleep(400);
          return 17;
        }) == 17);
  CHECK(frames > 2);
  frames = 0;
  CHECK(patiently([] { return std::string("at once"); }) == "at once");
  CHECK(frames == 0);
}

TEST_CASE("Without any OpenGL the program starts and time goes on: it drives, and ends cleanly") {
  const QTemporaryDir out;
  Program program({"--example", out.path()}, {"QT_XCB_GL_INTEGRATION", "none"});
  REQUIRE(QTest::qWaitFor([&] { return !QDir(program.study + "/takes").entryList({"*.journal"}).isEmpty(); },
                          40000));
  ::kill(pid_t(program.process.processId()), SIGTERM);
  REQUIRE(program.process.waitForFinished(20000));
  CHECK(program.process.exitCode() == 0);
  CHECK(takes_in(program.study).size() == 1);
}

TEST_CASE("Values that a program left unsaved when it was killed are offered at the next start") {
  QTemporaryDir home;
  QSettings settings(home.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", home.filePath("study"));
  QDir().mkpath(home.filePath("study/snapshots"));
  std::ofstream(home.filePath("study/snapshots/unsaved-7-0.profile.json").toStdString()) << otter(2.5);
  MainWindow window(settings, {});
  window.show();
  window.open(kDemo);
  REQUIRE(wait_for(
      [&] { return window.messages().isVisible() && window.messages().text().contains("not saved"); }));
  CHECK(window.session().profile().jump.height != 2.5);
  emit window.messages().accepted();
  CHECK(window.session().profile().jump.height == 2.5);
  CHECK(window.handling().file().isEmpty());
  window.undo().undo_once();
  CHECK(window.session().profile().jump.height != 2.5);
}
