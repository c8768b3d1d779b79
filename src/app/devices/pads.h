// SPDX-License-Identifier: GPL-3.0-or-later
// The pads that are plugged in, and what is done with them. All of them drive the one character.
#pragma once

#include <QObject>
#include <memory>
#include <set>

#include "devices/controls.h"
#include "devices/pad_reader.h"
#include "session/heart.h"

namespace lagniappe::app {

class Pads : public QObject {
  Q_OBJECT
 public:
  // A trigger is pressed from the first of these on, and let go below the second.
  static constexpr double kPulled = 0.5, kLetGo = 0.4;

  struct Pad {
    int id;
    QString name;
    Sticks sticks;  // Raw.
    double left_trigger = 0.0, right_trigger = 0.0;
    std::set<PadControl> down;
  };

  Pads(Controls& controls, const Bindings& bindings, Heart& heart, QObject* parent = nullptr);
  ~Pads() override;

  void start();  // Reads pads from now on.
  bool reads() const { return reader_ != nullptr && reader_->reads(); }
  // Why none can be read, or empty.
  QString trouble() const;
  const std::vector<Pad>& pads() const { return pads_; }
  // What is plugged in, and of which nobody knows how its controls lie.
  const QStringList& unknown() const { return unknown_; }

  // What the reader told; `now_s` by its clock.
  void take(const std::vector<PadEvent>& events, double now_s);

 signals:
  void came(const QString& name);
  void lost(const QString& name);
  void pressed(lagniappe::app::PadControl control);
  void changed();

 private:
  void pass();
  void heed(const PadEvent& event, double since_frame);
  void add(const PadEvent& event);
  void lose(Pad& pad, double since_frame);
  void pull(Pad& pad, PadControl trigger, double now, double since_frame);
  void press(Pad& pad, PadControl control, bool down, double since_frame);
  QString name_for(const QString& name) const;

  Controls& controls_;
  const Bindings& bindings_;
  Heart& heart_;
  std::vector<Pad> pads_;
  QStringList unknown_;
  std::unique_ptr<PadReader> reader_;
};

}  // namespace lagniappe::app
