// SPDX-License-Identifier: GPL-3.0-or-later
// The two themes: what is written can be read in both, and one is changed for the other while all goes on.
#include "theme/theme.h"
#include <QListWidget>

#include "support/window_fixture.h"
#include "theme/state_colours.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;
using theme::Colours;
using theme::Light;

namespace {

// Relative luminance and contrast by the W3C's guidelines for accessible content (WCAG 2.1).
double luminance(const QColor& c) {
  const auto linear = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}
double contrast(const QColor& a, const QColor& b) {
  const double low = std::min(luminance(a), luminance(b)), high = std::max(luminance(a), luminance(b));
  return (high + 0.05) / (low + 0.05);
}

// Puts daylight back, whatever comes.
struct ByDaylight {
  ~ByDaylight() { theme::apply(*qApp, Light::Daylight); }
};

}  // namespace

TEST_CASE("What is written can be read in both themes") {
  CHECK(contrast(Qt::black, Qt::white) == Approx(21.0));
  for (const Light light : {Light::Daylight, Light::Lantern}) {
    const Colours& c = theme::colours_of(light);
    INFO(int(light));
    for (const QColor& ground : {c.paper, c.sheet, c.field}) {
      CHECK(contrast(c.ink, ground) >= 7.0);
      CHECK(contrast(c.ink2, ground) >= 4.5);
    }
    for (const QColor& text : {c.teal, c.brick, c.marked}) CHECK(contrast(text, c.sheet) >= 4.5);
    CHECK(contrast(c.sheet, c.teal) >= 4.5);
    CHECK(contrast(c.sheet, c.teal_deep) >= 4.5);
    CHECK(contrast(c.ink, c.chosen) >= 4.5);
    CHECK(contrast(c.warned_ink, c.warned) >= 4.5);
    for (const QColor& drawn : {c.gold, c.moss, c.plum, c.sky, c.brick, c.teal})
      CHECK(contrast(drawn, c.sheet) >= (light == Light::Daylight ? 2.3 : 4.5));
  }
}

TEST_CASE("States are told from the sheet and can be written on in both themes") {
  const ByDaylight after;
  const StateChart& chart = chart_of(Profile{});
  for (const Light light : {Light::Daylight, Light::Lantern}) {
    theme::apply(*qApp, light);
    INFO(int(light));
    for (std::size_t i = 0; i < chart.size(); ++i) {
      const QColor colour = theme::state_colour(StateId(i), chart);
      INFO(chart.name_of(StateId(i)));
      CHECK(contrast(colour, theme::sheet()) >= 2.3);
      CHECK(contrast(theme::ink_on(colour), colour) >= 3.0);
    }
  }
}

TEST_CASE_METHOD(WindowFixture, "Lantern is chosen by a key while all goes on, and kept") {
  const ByDaylight after;
  const auto lightness = [&] {
    next_picture();
    const QImage all = window.grab().toImage();
    double sum = 0.0;
    int count = 0;
    for (int y = 0; y < all.height(); y += 9) {
      for (int x = 0; x < all.width(); x += 9) sum += all.pixelColor(x, y).lightnessF(), ++count;
    }
    return sum / count;
  };
  const double day = lightness();
  CHECK(day > 0.7);
  QTest::keyClick(&window, Qt::Key_L, Qt::ControlModifier | Qt::AltModifier);
  CHECK(theme::light() == Light::Lantern);
  CHECK(lightness() < 0.4);
  CHECK(settings.value("lantern").toBool());
  // What was written before is written anew.
  const auto* sentences = window.page().findChild<QListWidget*>("sentences");
  REQUIRE(sentences != nullptr);
  REQUIRE(wait_for([&] { return sentences->count() > 1; }));
  CHECK(sentences->item(0)->foreground().color() == theme::ink());
  QTest::keyClick(&window, Qt::Key_L, Qt::ControlModifier | Qt::AltModifier);
  CHECK(lightness() == Approx(day).margin(0.02));
  CHECK_FALSE(settings.value("lantern").toBool());
}
