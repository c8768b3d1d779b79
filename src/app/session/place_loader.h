// SPDX-License-Identifier: GPL-3.0-or-later
// Loads courses and models away from the window's thread.
#pragma once

#include <QObject>
#include <QString>
#include <atomic>
#include <memory>

#include "session/drive_session.h"

namespace lagniappe::app {

class PlaceLoader : public QObject {
  Q_OBJECT
 public:
  explicit PlaceLoader(QObject* parent = nullptr);
  ~PlaceLoader() override;  // Waits for a load that is under way.

  // Begins to load; a load already under way is given up.
  void load(const QString& path);
  void cancel();
  bool busy() const { return busy_; }

 signals:
  void stage(const QString& what);  // What is being done, in words.
  void loaded(std::shared_ptr<const lagniappe::app::Place> place);
  void failed(const QString& path, const QString& sentence);
  void cancelled();

 private:
  void finish(int number, const std::shared_ptr<const Place>& place, const QString& path,
              const QString& sentence);

  std::shared_ptr<std::atomic<int>> newest_ =
      std::make_shared<std::atomic<int>>(0);  // What an older load sees it is not.
  bool busy_ = false;
};

}  // namespace lagniappe::app
