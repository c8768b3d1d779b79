// SPDX-License-Identifier: GPL-3.0-or-later
// The drawings of cards: to scale, with every handle in reach and no label over anything, at both ends of every
// range.
#include <QDir>
#include <QPixmap>
#include <catch2/catch.hpp>
#include <set>

#include "cards/card_specs.h"
#include "cards/drawing_view.h"
#include "lagniappe/files.h"

using namespace lagniappe;
using namespace lagniappe::app;

namespace {

const JumpLocks kLocks;

struct Shown {
  std::string card;
  std::unique_ptr<DrawingView> view;
};

std::vector<Shown> all_drawings(int width) {
  std::vector<Shown> all;
  for (const CardSpec& spec : card_specs()) {
    for (const auto& make : spec.drawings) {
      all.push_back({spec.id, std::make_unique<DrawingView>(make(kLocks), nullptr)});
      all.back().view->resize(width, all.back().view->height());
    }
  }
  return all;
}

std::vector<Profile> demo_profiles() {
  std::vector<Profile> all = {Profile{}};
  for (const char* name : {"warden", "wader", "heron"})
    all.push_back(*read_profile(LAGNIAPPE_SOURCE_DIR "/profiles/" + std::string(name) + ".profile.json"));
  return all;
}

// Every number of a card at one end of its sane range, the others as they are.
std::vector<std::pair<std::string, Profile>> extremes() {
  std::vector<std::pair<std::string, Profile>> all;
  for (const ProfileField& f : profile_fields()) {
    for (const double end : {f.sane_low, f.sane_high}) {
      Profile p;
      f.set_typed(p, end);
      const auto fits = checked(p);
      if (fits) all.emplace_back(path_of(f.section, f.key), *fits);
    }
  }
  return all;
}

}  // namespace

TEST_CASE("Every value and every curve stands on exactly one card") {
  std::multiset<std::string> found;
  for (const CardSpec& spec : card_specs()) found.insert(spec.paths.begin(), spec.paths.end());
  for (const ProfileField& f : profile_fields()) CHECK(found.count(path_of(f.section, f.key)) == 1);
  for (const ProfileChoice& f : profile_choices()) CHECK(found.count(path_of(f.section, f.key)) == 1);
  CHECK(found.size() == profile_fields().size() + profile_choices().size());
  for (const std::string& path : profile_paths()) CHECK(card_of(path) != nullptr);
  CHECK(card_of("jump.hight") == nullptr);
}

TEST_CASE(
    "Handles are in reach and labels cover nothing, at both ends of every range and in every demo profile") {
  for (const int width : {250, 290, 420}) {
    int labels = 0, left_out = 0;
    std::string which;
    const auto look_at = [&](const std::string& what, const Profile& profile) {
      for (const Shown& shown : all_drawings(width)) {
        shown.view->show_profiles(profile, Profile{});
        INFO(what << " on " << shown.card << ", " << width << " pixels wide");
        const QRectF room = QRectF(shown.view->rect());
        const auto handles = shown.view->handles();
        for (std::size_t i = 0; i < handles.size(); ++i) {
          CHECK(std::isfinite(handles[i].at.x));
          CHECK(std::isfinite(handles[i].at.y));
          CHECK(room.contains(shown.view->place_of(i)));
        }
        const Sketch sketch = shown.view->sketch();
        const auto& placed = sketch.labels();
        for (std::size_t i = 0; i < placed.size(); ++i) {
          ++labels;
          left_out += !placed[i].clear;
          if (!placed[i].clear) which += what + ", " + shown.card + ": " + placed[i].text.toStdString() + "; ";
          if (!placed[i].clear) continue;
          INFO(placed[i].text.toStdString());
          CHECK(room.contains(placed[i].box));
          CHECK_FALSE(sketch.covers_lines(placed[i].box));
          for (std::size_t j = 0; j < i; ++j)
            if (placed[j].clear) CHECK_FALSE(placed[i].box.intersects(placed[j].box));
        }
      }
    };
    for (const Profile& profile : demo_profiles()) look_at(profile.name, profile);
    INFO("no room for\n" << which);
    CHECK(left_out == 0);
    for (const auto& [what, profile] : extremes()) look_at(what, profile);
    CHECK(left_out < 0.02 * labels);  // Their numbers stand in the rows below.
  }
}

TEST_CASE("Drawings in metres are to scale") {
  for (const Shown& shown : all_drawings(290)) {
    for (const Profile& profile : demo_profiles()) {
      shown.view->show_profiles(profile, profile);
      const Vec2 scale = shown.view->sketch().scale();
      const bool metres = shown.card == "body" || shown.card == "jump" || shown.card == "steps";
      if (metres) CHECK(scale.x == Approx(scale.y));
    }
  }
}

TEST_CASE("Pulling a handle to where it is changes nothing, and away and back comes back") {
  for (const CardSpec& spec : card_specs()) {
    for (const auto& make : spec.drawings) {
      const auto drawing = make(kLocks);
      for (const Profile& profile : demo_profiles()) {
        const auto handles = drawing->handles(profile);
        for (std::size_t i = 0; i < handles.size(); ++i) {
          INFO(spec.id << ": " << handles[i].name.toStdString() << " of " << profile.name);
          const Profile same = drawing->pulled(profile, i, handles[i].at);
          for (const ProfileDifference& d : differences(profile, same)) {
            // Only what rounding does, or a curve of the same shape.
            const ProfileField* field = find_field(d.path);
            REQUIRE(field != nullptr);
            CHECK(field->get(same) == Approx(field->get(profile)).epsilon(0.01).margin(1e-4));
          }
          const Extent e = drawing->extent(profile);
          const Vec2 centre = 0.5 * Vec2(e.left + e.right, e.bottom + e.top);
          const Vec2 away =
              handles[i].at + 0.2 * (centre - handles[i].at) + 0.02 * Vec2(e.right - e.left, e.top - e.bottom);
          const Profile there = drawing->pulled(profile, i, away);
          CHECK(checked(there));
          CHECK_FALSE(differences(profile, there).empty());
        }
      }
    }
  }
}

TEST_CASE("Pictures of all cards", "[.pictures]") {
  QDir().mkpath("pictures");
  for (const double scale : {1.0, 1.5}) {
    int at = 0;
    for (const Profile& profile : demo_profiles()) {
      for (const Shown& shown : all_drawings(290)) {
        shown.view->show_profiles(profile, Profile{});
        QPixmap picture(shown.view->size() * scale);
        picture.setDevicePixelRatio(scale);
        shown.view->render(&picture);
        picture.save(QString("pictures/%1-%2-%3.png").arg(scale).arg(profile.name.c_str()).arg(at++ % 10));
      }
    }
  }
}
