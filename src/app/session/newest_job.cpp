// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/newest_job.h"

#include <sys/resource.h>

#include <QThreadPool>
#include <utility>

namespace lagniappe::app {
namespace {

constexpr int kGivesWay = 10;  // Nice value: what is drawn and driven goes before.

}  // namespace

void NewestJob::Handle::deliver(std::function<void()> what) const {
  QMetaObject::invokeMethod(
      job_->owner,
      [job = job_, number = number_, what = std::move(what)] {
        if (job->newest == number) what();
      },
      Qt::QueuedConnection);
}

void NewestJob::Handle::finish(std::function<void()> what) const {
  deliver([job = job_, what = std::move(what)] {
    job->busy = false;
    what();
  });
}

NewestJob::NewestJob(QObject& owner) : state_(std::make_shared<Handle::State>()) { state_->owner = &owner; }

NewestJob::~NewestJob() {
  ++state_->newest;
  QThreadPool::globalInstance()->waitForDone();
}

void NewestJob::start(std::function<void(const Handle&)> work) {
  const Handle handle(state_, ++state_->newest);
  state_->busy = true;
  QThreadPool::globalInstance()->start([handle, work = std::move(work)] {
    setpriority(PRIO_PROCESS, 0, kGivesWay);  // Of this thread; a job stays on it to its end.
    work(handle);
  });
}

bool NewestJob::give_up() {
  ++state_->newest;
  return std::exchange(state_->busy, false);
}

}  // namespace lagniappe::app
