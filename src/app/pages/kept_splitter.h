// SPDX-License-Identifier: GPL-3.0-or-later
// A splitter whose sizes are there again at the next start. The first side grows with the window.
#pragma once

#include <QSettings>
#include <QSplitter>

namespace lagniappe::app {

class KeptSplitter : public QSplitter {
 public:
  // `key` in the settings, which outlive it.
  KeptSplitter(Qt::Orientation orientation, QSettings& settings, const QString& key)
      : QSplitter(orientation), settings_(settings), key_(key) {
    setChildrenCollapsible(false);
    setHandleWidth(5);
  }
  ~KeptSplitter() override { settings_.setValue(key_, saveState()); }

  // Once both sides are there: as they were left, else of these sizes.
  void restore(const QList<int>& sizes) {
    setStretchFactor(0, 1);
    setStretchFactor(1, 0);
    setSizes(sizes);
    restoreState(settings_.value(key_).toByteArray());
  }

 private:
  QSettings& settings_;
  QString key_;
};

}  // namespace lagniappe::app
