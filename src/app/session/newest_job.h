// SPDX-License-Identifier: GPL-3.0-or-later
// Work away from the window's thread, of which only the newest is wanted: beginning another gives it up. What
// it has is delivered on the thread of its owner.
#pragma once

#include <QObject>
#include <atomic>
#include <functional>
#include <memory>

namespace lagniappe::app {

class NewestJob {
 public:
  // What the work may do: ask whether it is still wanted, and hand over what it has. What is handed over is
  // left out if it is not wanted any more when its turn comes.
  class Handle {
   public:
    bool wanted() const { return job_->newest == number_; }
    void deliver(std::function<void()> what) const;
    void finish(std::function<void()> what) const;  // And it is done.

   private:
    friend class NewestJob;
    struct State {
      QObject* owner;
      std::atomic<int> newest{0};
      bool busy = false;  // The owner's thread only.
    };
    Handle(std::shared_ptr<State> job, int number) : job_(std::move(job)), number_(number) {}

    std::shared_ptr<State> job_;
    int number_;
  };

  explicit NewestJob(QObject& owner);
  ~NewestJob();  // Waits for what is under way.

  void start(std::function<void(const Handle&)> work);
  bool give_up();  // Returns whether anything was under way.
  bool busy() const { return state_->busy; }

 private:
  std::shared_ptr<Handle::State> state_;
};

}  // namespace lagniappe::app
