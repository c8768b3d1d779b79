// SPDX-License-Identifier: GPL-3.0-or-later
// What a card draws of a profile, and what its handles do. Plain values in and out: the widget around it is
// drawing_view.h.
#pragma once

#include <QObject>
#include <QString>
#include <memory>
#include <vector>

#include "cards/sketch.h"
#include "lagniappe/handling.h"
#include "lagniappe/profile_fields.h"
#include "theme/text.h"

namespace lagniappe::app {

struct Handle {
  QString name;  // "apex".
  Vec2 at;
  QString tip;
  std::string path;  // The value that it changes most; what is then attended.
};

class CardDrawing {
 public:
  virtual ~CardDrawing() = default;

  int tick_rate = 60;  // At which ticks are counted.

  virtual int height() const { return 132; }  // Pixels.
  virtual int footer() const { return 0; }    // Pixels below it for notes.
  virtual Extent extent(const Profile& profile) const = 0;
  virtual void draw(Sketch& sketch, const Profile& profile) const = 0;
  // The outline of another profile, drawn below.
  virtual void draw_reference(Sketch& sketch, const Profile& reference) const = 0;
  virtual std::vector<Handle> handles(const Profile& profile) const = 0;
  // The profile with a handle pulled to a place. What does not fit is put right by the caller.
  virtual Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const = 0;
  // Curves only: a point more, or one less.
  virtual std::optional<Profile> with_point(const Profile&, const Vec2&) const { return std::nullopt; }
  virtual std::optional<Profile> without_point(const Profile&, std::size_t /*handle*/) const {
    return std::nullopt;
  }
};

// Sets a value by its path, in the file's unit, within the range that is taken.
void put(Profile& profile, const char* path, double value);

QString metres_text(double value);  // "1.20 m".

}  // namespace lagniappe::app
