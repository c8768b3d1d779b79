// SPDX-License-Identifier: GPL-3.0-or-later
// Playhead, selection and names of lanes, over the tape's axes.
#pragma once

#include <QStringList>
#include <QWidget>
#include <optional>
#include <vector>

namespace lagniappe::app {

class TapeOverlay : public QWidget {
 public:
  struct Label {
    double y;
    QString text;
    bool strong = false;
  };
  struct Content {
    QString message;  // Instead of everything else.
    QRect area;       // Of all lanes, without their names.
    std::vector<Label> labels;
    std::optional<double> playhead;                      // x, if it can be seen.
    std::optional<std::pair<double, double>> selection;  // x from and to.
    bool loops = false, focused = false;
    std::optional<double> parting;  // x at which the first ghost leaves the take.
    bool operator==(const Content&) const = default;
  };

  explicit TapeOverlay(QWidget* parent);
  void show_content(const Content& content);
  static void paint(QPainter& painter, const Content& content);
  const Content& content() const { return content_; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Content content_;
};

inline bool operator==(const TapeOverlay::Label& a, const TapeOverlay::Label& b) {
  return a.y == b.y && a.text == b.text && a.strong == b.strong;
}

}  // namespace lagniappe::app
