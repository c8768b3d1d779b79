// SPDX-License-Identifier: GPL-3.0-or-later
// The view while a take plays, as numbered pictures, evenly spaced in time however long each takes to draw.
#pragma once

#include <QObject>
#include <QString>
#include <functional>

#include "lagniappe/result.h"
#include "session/drive_session.h"
#include "session/heart.h"

namespace lagniappe::app {

class ViewWidget;

class MovingPicture : public QObject {
  Q_OBJECT
 public:
  static constexpr int kRate = 30;  // Pictures a second, at the speed that is chosen for playing.

  MovingPicture(DriveSession& session, ViewWidget& view, Heart& heart, QObject* parent = nullptr);
  ~MovingPicture() override;

  // Begins to write NAME-0001.png, NAME-0002.png, ... beside `path` (NAME.png): `stretch`, and nothing beyond
  // it. Time is the pictures' own until finished(). Writes over nothing: the error names what is there.
  Result<void> begin(const QString& path, const Stretch& stretch);
  bool under_way() const { return under_way_; }
  void cancel();  // What is written stays.

 signals:
  void progress(int written, int of);
  void finished(int written, bool whole);
  void failed(const QString& sentence);

 private:
  QString file(int number) const;
  void take_picture();
  void end(bool whole);

  DriveSession& session_;
  ViewWidget& view_;
  Heart& heart_;
  std::function<double()> clock_;  // The heart's own.
  std::optional<Stretch> loop_;
  QString base_;
  double scale_ = 1.0;  // Of time, when it began.
  double time_ = 0.0;   // s, of the pictures.
  int written_ = 0, wanted_ = 0;
  bool under_way_ = false, beaten_ = false;
};

}  // namespace lagniappe::app
