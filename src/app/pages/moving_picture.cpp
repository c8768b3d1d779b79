// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/moving_picture.h"

#include <QBuffer>
#include <QFileInfo>
#include <QPixmap>
#include <utility>

#include "lagniappe/files.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

constexpr double kRounding = 1e-6;  // Of a picture.

}  // namespace

MovingPicture::MovingPicture(DriveSession& session, ViewWidget& view, Heart& heart, QObject* parent)
    : QObject(parent), session_(session), view_(view), heart_(heart) {
  connect(&heart_, &Heart::beat, this, [this] {
    beaten_ = under_way_;
    if (!view_.isVisible()) cancel();  // On a page without it no picture would come.
  });
  // Once the frame is whole: a picture of it is not taken while it is painted.
  connect(&view_, &ViewWidget::frame_shown, this, &MovingPicture::take_picture, Qt::QueuedConnection);
}

MovingPicture::~MovingPicture() {
  if (under_way_) heart_.set_clock(clock_);
}

QString MovingPicture::file(int number) const {
  return QString("%1-%2.png").arg(base_).arg(number, 4, 10, QChar('0'));
}

Result<void> MovingPicture::begin(const QString& path, const Stretch& stretch) {
  if (!view_.isVisible()) return refuse({path.toStdString(), "the view", "it is not on this page"});
  base_ = path.endsWith(".png", Qt::CaseInsensitive) ? path.chopped(4) : path;
  scale_ = session_.time_scale();
  const double seconds = double(stretch.last - stretch.first) / session_.shown().run.tick_rate() / scale_;
  wanted_ = 1 + int(seconds * kRate + kRounding);
  for (int number = 1; number <= wanted_; ++number) {
    if (QFileInfo::exists(file(number)))
      return refuse({file(number).toStdString(), "a picture", "it is there already; choose another name"});
  }
  clock_ = heart_.clock();
  time_ = 0.0;
  written_ = 0;
  loop_ = session_.loop();
  session_.set_loop(std::nullopt);
  session_.set_playhead(stretch.first);
  session_.play(true);
  heart_.set_clock([this] { return time_; });
  heart_.leave_out();  // The first picture is of the first tick.
  heart_.wake();
  beaten_ = false;
  under_way_ = true;
  return {};
}

void MovingPicture::take_picture() {
  if (!under_way_ || !std::exchange(beaten_, false)) return;
  // Somebody stopped it, drives, or plays at another speed. The end of the take stops it by itself.
  const bool last = written_ + 1 == wanted_;
  if ((!session_.playing() && !last) || session_.time_scale() != scale_) return end(false);
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  view_.grab().save(&buffer, "PNG");
  beaten_ = false;  // It was drawn once more for the picture.
  const auto written =
      write_file(file(written_ + 1).toStdString(), {bytes.constData(), std::size_t(bytes.size())});
  if (!written) {
    end(false);
    return emit failed(QString::fromStdString(written.error().sentence()));
  }
  ++written_;
  emit progress(written_, wanted_);
  if (!under_way_) return;  // Who heard of it gave it up.
  if (written_ == wanted_) return end(true);
  time_ = double(written_) / kRate;
}

void MovingPicture::cancel() {
  if (under_way_) end(false);
}

void MovingPicture::end(bool whole) {
  under_way_ = false;
  session_.play(false);
  session_.set_loop(loop_);
  heart_.set_clock(clock_);
  heart_.leave_out();
  emit finished(written_, whole);
}

}  // namespace lagniappe::app
