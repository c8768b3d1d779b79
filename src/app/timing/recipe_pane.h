// SPDX-License-Identifier: GPL-3.0-or-later
// Recipes by part, ours last in each; of the chosen one its curve at 30, 60 and 144 beside ours, its figures,
// formula, fault, and what to do instead.
#pragma once

#include <QWidget>
#include <memory>

#include "session/newest_job.h"
#include "timing/timing_desk.h"

class QLabel;
class QTreeWidget;

namespace lagniappe::app {

// What a recipe comes to: theirs and ours at each of kRecipeRates.
struct RecipeCurves {
  const Recipe* recipe = nullptr;
  std::vector<RecipeCurve> theirs, ours;
};

class RecipePlot : public QWidget {
  Q_OBJECT
 public:
  explicit RecipePlot(QWidget* parent = nullptr);
  void show_curves(RecipeCurves curves);
  const RecipeCurves& curves() const { return curves_; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  RecipeCurves curves_;
};

class RecipePane : public QWidget {
  Q_OBJECT
 public:
  explicit RecipePane(TimingDesk& desk, QWidget* parent = nullptr);

  void come_up();  // Computes what the list says, once.
  const Recipe* chosen() const { return chosen_; }
  void choose(const Recipe& recipe);
  bool shows_ghosts() const { return ghosts_; }
  // Its ways over the shown take at kRecipeRates, to be drawn; empty where they are not wanted.
  const std::vector<std::vector<Vec3>>& ways() const { return ways_; }
  RecipePlot& plot() { return *plot_; }
  QTreeWidget& list() { return *list_; }
  QString told() const;  // For tests: all that is said of the chosen one.

 signals:
  void ways_changed();

 protected:
  void changeEvent(QEvent* event) override;

 private:
  void fill();
  void show_worst(std::vector<RecipeWorst> worst);
  void show_chosen();
  void set_ghosts(bool ghosts);
  void make_ways();

  TimingDesk& desk_;
  NewestJob job_, ways_job_;
  QTreeWidget* list_;
  RecipePlot* plot_;
  QLabel *title_, *formula_, *figures_, *fault_, *instead_;
  const Recipe* chosen_ = nullptr;
  bool up_ = false, ghosts_ = false;
  std::vector<std::vector<Vec3>> ways_;
};

}  // namespace lagniappe::app
