// SPDX-License-Identifier: GPL-3.0-or-later
// Runs the shown take again under other values: at once where that fits into a drawn frame, else on another
// thread.
#pragma once

#include <QObject>
#include <functional>
#include <memory>

#include "session/newest_job.h"
#include "session/recording.h"

namespace lagniappe::app {

// A run beside the shown one.
struct Ghost {
  QString name;  // What is different: "jump.height 1.5 m".
  std::shared_ptr<const Recording> recording;
  Comparison against;  // The shown recording.
};

// Returns what is different from the take in the ghost's values, in words.
QString changes_text(const Take& from, const Take& to);
Ghost make_ghost(const Recording& shown, std::shared_ptr<const Recording> recording);

class Retaker : public QObject {
  Q_OBJECT
 public:
  static constexpr std::size_t kMostTicksAtOnce = 3600;
  static constexpr std::size_t kMostTicksToEnd = 60000;

  explicit Retaker(QObject* parent = nullptr);

  // Emits done() before it returns, or later. A request under way for the same recording (of one `revision`) is
  // run to its end where that is soon, so that who drags a value sees what becomes of it; else it is given up.
  // Of those that wait only the newest is run.
  void request(const Recording& shown, std::uint64_t revision, const Profile& profile,
               std::shared_ptr<const Place> place, int tick_rate);
  void cancel();
  bool busy() const { return job_.busy(); }

 signals:
  void done(std::shared_ptr<const lagniappe::app::Ghost> ghost);
  void progress(double share);
  void cancelled();

 private:
  void start(const std::shared_ptr<const Recording>& from, const std::function<Take(const Recording&)>& make,
             const std::shared_ptr<const Place>& place);
  void start_next();
  std::function<void()> next_;
  std::shared_ptr<const Recording> from_;  // The recording of `revision_`, once it was asked for.
  std::uint64_t revision_ = 0;
  NewestJob job_{*this};
};

}  // namespace lagniappe::app
