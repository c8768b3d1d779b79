// SPDX-License-Identifier: GPL-3.0-or-later
// One stack of undo for all desks, and work of which only the newest is wanted.
#include <QSemaphore>
#include <catch2/catch.hpp>

#include "session/newest_job.h"
#include "session/undo.h"
#include "support/window_fixture.h"

using namespace lagniappe::app;
using lagniappe::app::test::wait_for;

namespace {

struct Steps {
  Undo undo;
  int value = 0;
  void set(int next, const Undo::Of& of = Undo::Of()) {
    undo.swap(
        QString("to %1").arg(next), [this](int v) { value = v; }, next, value, of);
  }
};

}  // namespace

TEST_CASE("A change is done at once, taken back and done again, and says what it is") {
  Steps s;
  int told = 0;
  QObject::connect(&s.undo, &Undo::changed, [&] { ++told; });
  CHECK_FALSE(s.undo.can_undo());
  s.set(3);
  s.set(7);
  CHECK(s.value == 7);
  CHECK(s.undo.undo_text() == "to 7");
  s.undo.undo_once();
  CHECK(s.value == 3);
  CHECK(s.undo.redo_text() == "to 7");
  s.undo.undo_once();
  CHECK(s.value == 0);
  CHECK_FALSE(s.undo.can_undo());
  s.undo.redo_once();
  s.undo.redo_once();
  CHECK(s.value == 7);
  CHECK(told == 6);
}

TEST_CASE("Changes of one gesture are one step, those of another are not") {
  Steps s;
  for (int i = 1; i <= 5; ++i) s.set(i, {nullptr, 1});
  for (int i = 10; i <= 12; ++i) s.set(i, {nullptr, 2});
  CHECK(s.undo.count() == 2);
  s.undo.undo_once();
  CHECK(s.value == 5);
  s.undo.undo_once();
  CHECK(s.value == 0);
}

TEST_CASE("What was changed in an era that is over is not undone, and what lies around it is") {
  Era shown;
  Steps s;
  s.set(1);
  s.set(2, {&shown});
  s.set(3);
  s.set(4, {&shown});
  s.undo.end(shown);
  CHECK(s.value == 4);  // Ending takes nothing back.
  CHECK(s.undo.undo_text() == "to 3");
  s.undo.undo_once();
  CHECK(s.value == 2);
  s.undo.undo_once();  // Over the stale one.
  CHECK(s.value == 0);
  CHECK_FALSE(s.undo.can_undo());
  s.set(9, {&shown});  // Of the era that began then.
  s.undo.undo_once();
  CHECK(s.value == 0);
}

TEST_CASE("Of two jobs only what the newer one has is delivered, on the owner's thread") {
  QObject owner;
  NewestJob job(owner);
  QSemaphore may_end, ended;
  QStringList delivered;
  const auto work = [&](const QString& name) {
    return [&, name](const NewestJob::Handle& handle) {
      may_end.acquire();
      handle.deliver([&, name] { delivered.append(name + " on the way"); });
      handle.finish([&, name] {
        CHECK(QThread::currentThread() == owner.thread());
        delivered.append(name);
      });
      ended.release();
    };
  };
  job.start(work("older"));
  job.start(work("newer"));
  CHECK(job.busy());
  may_end.release(2);
  ended.acquire(2);
  CHECK(delivered.isEmpty());  // Not before the owner's thread comes to it.
  REQUIRE(wait_for([&] { return !job.busy(); }));
  CHECK(delivered == QStringList{"newer on the way", "newer"});
}

TEST_CASE("A job that is given up hears of it and delivers nothing; another may begin") {
  QObject owner;
  NewestJob job(owner);
  QSemaphore given_up;
  bool delivered = false;
  job.start([&](const NewestJob::Handle& handle) {
    given_up.acquire();
    CHECK_FALSE(handle.wanted());
    handle.finish([&] { delivered = true; });
  });
  CHECK(job.give_up());
  CHECK_FALSE(job.give_up());
  CHECK_FALSE(job.busy());
  given_up.release();
  bool second = false;
  job.start([&](const NewestJob::Handle& handle) { handle.finish([&] { second = true; }); });
  REQUIRE(wait_for([&] { return second; }));
  CHECK_FALSE(delivered);
}

TEST_CASE("An owner that goes waits for its job, which then delivers nothing") {
  QSemaphore begun;
  std::atomic<bool> over{false};
  bool delivered = false;
  {
    QObject owner;
    NewestJob job(owner);
    job.start([&](const NewestJob::Handle& handle) {
      begun.release();
      while (handle.wanted()) QThread::msleep(1);
      handle.finish([&] { delivered = true; });
      over = true;
    });
    begun.acquire();
  }
  CHECK(over);
  QCoreApplication::processEvents();
  CHECK_FALSE(delivered);
}
