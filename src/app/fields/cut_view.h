// SPDX-License-Identifier: GPL-3.0-or-later
// The cut through the course as a drawing that is dragged, turned and zoomed; fields and zones are chosen,
// moved and sized in it. The take's way and the character at the playhead lie over it.
#pragma once

#include <QElapsedTimer>
#include <QPixmap>
#include <QWidget>
#include <memory>

#include "fields/cut_handles.h"
#include "fields/cut_picture.h"
#include "session/course_desk.h"

namespace lagniappe::app {

class CutView : public QWidget {
  Q_OBJECT
 public:
  static constexpr int kLegend = 28;  // Pixels under the picture.

  CutView(CourseDesk& desk, DriveSession& session, QWidget* parent = nullptr);
  ~CutView() override;

  void refresh();  // Once a beat: takes in what changed.

  const Cut& cut() const { return cut_; }
  void set_cut(const Cut& cut);
  void set_rough(bool rough);  // While it is moved from elsewhere.
  // Through the character's middle, along its up and facing.
  void cut_through_playhead();
  // All of the course that fields reach, or else all marks, from where the cut lies.
  void show_all();

  const std::optional<RowChoice>& chosen() const { return chosen_; }
  void choose(const std::optional<RowChoice>& row);
  void choose_and_show(const RowChoice& row);  // The cut goes there, unless it is in the picture.

  // The line along which strengths are compared, in the course frame.
  const Vec3& from_C() const { return from_C_; }
  const Vec3& to_C() const { return to_C_; }
  void set_line(const Vec3& from_C, const Vec3& to_C);

  const Pulls* pulls() const { return pulls_.get(); }
  double shown_time() const;

  // For tests and tools: where a handle is, in the widget.
  std::vector<CutHandle> handles() const;  // Of what is in the cut.
  QPointF pixel_of(const Vec3& at_C) const { return cut_.pixel(at_C, picture_size()); }
  QSize picture_size() const;
  // What is said of a place: "12.3 m/s2", and whose it is.
  QStringList words_at(const Vec3& at_C) const;

 signals:
  void chosen_changed();
  void cut_changed();
  void line_changed();
  void remove_asked();
  void add_asked();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override { draw_anew(), QWidget::resizeEvent(event); }
  void changeEvent(QEvent* event) override;
  void focusInEvent(QFocusEvent* event) override { update(), QWidget::focusInEvent(event); }
  void focusOutEvent(QFocusEvent* event) override { update(), QWidget::focusOutEvent(event); }

 private:
  enum class Drag { None, Picture, Turn, Handle, From, To };
  const CutPicture* picture();
  std::vector<CutHandle> all_handles() const;
  void draw_anew();
  void drag_handle(const QPointF& to);
  void move_chosen(const QPointF& pixels);
  void choose_next(int step);
  double grain() const { return 1.0 / cut_.pixels; }
  Drag grip_at(const QPointF& p, std::size_t& handle) const;
  void paint_throws(QPainter& painter) const;
  void paint_way(QPainter& painter) const;
  Vec3 middle_of_body() const;
  void paint_character(QPainter& painter) const;
  void paint_readout(QPainter& painter) const;
  void paint_line(QPainter& painter) const;
  void paint_handles(QPainter& painter) const;
  void paint_words(QPainter& painter) const;
  void paint_legend(QPainter& painter) const;
  void describe();

  CourseDesk& desk_;
  DriveSession& session_;
  Cut cut_;
  std::unique_ptr<Pulls> pulls_;
  std::unique_ptr<CutPicture> picture_;
  QPixmap still_;  // The picture as it is painted, for when only what lies over it moves.
  std::optional<RowChoice> chosen_;
  Vec3 from_C_{0.0}, to_C_{0.0};
  // What was drawn from.
  std::uint64_t edition_ = 0, revision_ = 0;
  std::string path_;
  std::size_t playhead_ = 0;
  double gravity_ = 0.0, drawn_time_ = 0.0;
  Drag drag_ = Drag::None;
  std::size_t handle_ = 0;
  QPointF grip_, last_;  // From the handle to where it was taken; where the mouse was.
  bool moved_ = false, rough_ = false;
  QElapsedTimer since_drawn_;
  int gesture_ = 0;
  std::optional<QPointF> pointer_;
};

}  // namespace lagniappe::app
