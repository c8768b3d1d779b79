// SPDX-License-Identifier: MIT
// Every recipe's fault as a number, and that ours has none. Oracles: closed forms of what each line of program
// does, and of what was asked for.
#include "lagniappe/recipes.h"

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const Profile kProfile;
const double kFull = kProfile.ground.speed, kJump = kProfile.jump.height, kG = kProfile.gravity;

double theirs(const char* key, int rate) { return recipe_curve(*find_recipe(key), rate).figure; }
double ours(const char* key, int rate) { return our_curve(*find_recipe(key), rate).figure; }

// Of recipes whose right figure is known.
void ours_is(const char* key, double figure, double margin) {
  for (const int rate : {20, 30, 60, 144, 240}) {
    INFO(key << " at " << rate);
    CHECK(ours(key, rate) == Approx(figure).margin(margin));
  }
}

}  // namespace

TEST_CASE("All that is said of recipes is said, once, in the order of their parts") {
  std::set<std::string_view> keys, names;
  RecipePart part = RecipePart::Speed;
  CHECK(recipes().size() >= 20);
  for (const Recipe& recipe : recipes()) {
    INFO(recipe.key);
    CHECK(keys.insert(recipe.key).second);
    CHECK(names.insert(recipe.name).second);
    CHECK(recipe.part >= part);
    part = recipe.part;
    for (const std::string_view text :
         {recipe.name, recipe.formula, recipe.fault, recipe.instead, recipe.scene, recipe.curve, recipe.figure})
      CHECK_FALSE(text.empty());
    CHECK(recipe.fault.back() == '.');
    CHECK(find_recipe(recipe.key)->key == recipe.key);
    for (const int rate : kRecipeRates) {
      const RecipeCurve a = recipe_curve(recipe, rate), b = our_curve(recipe, rate);
      REQUIRE(a.points.size() == b.points.size());
      CHECK(a.points.size() > 10);
      for (const Vec2& point : a.points) REQUIRE((std::isfinite(point.x) && std::isfinite(point.y)));
    }
    const RecipeWorst worst = worst_of(recipe);
    CHECK(std::abs(worst.figure - worst.ours) > 0.0);
  }
  CHECK(find_recipe("no such") == nullptr);
}

TEST_CASE("Speed added per frame, and blends by a share per frame, go by the display; ours by the time") {
  // 90 % by a share of a tenth: ln 0.1 / ln 0.9 frames.
  const double frames = std::log(0.1) / std::log(0.9);
  for (const int rate : {30, 60, 144}) {
    CHECK(theirs("blend-fixed", rate) == Approx(frames / rate).margin(0.2 / rate));
    const double share = 10.0 / rate;
    CHECK(theirs("blend-times-dt", rate) ==
          Approx(std::log(0.1) / std::log(1.0 - share) / rate).margin(0.2 / rate));
    CHECK(theirs("added-per-frame", rate) == Approx(0.9 * 4.0 * 0.1 * 60.0 / rate).margin(1e-6));
  }
  for (const char* key : {"blend-fixed", "blend-times-dt", "added-per-frame"})
    ours_is(key, 0.1 * std::log(10.0), 0.012);
  CHECK(theirs("blend-fixed", 144) < 0.5 * theirs("blend-fixed", 60));
  CHECK(theirs("blend-times-dt", 30) < 0.9 * ours("blend-times-dt", 30));
}

TEST_CASE("Two keys at once run 41 % faster, unless the push is limited") {
  for (const int rate : {30, 60, 144})
    CHECK(theirs("diagonals", rate) == Approx(std::sqrt(2.0) * kFull).epsilon(1e-3));
  ours_is("diagonals", kFull, 1e-3);
}

TEST_CASE("A second move creeps down slopes") {
  for (const int rate : {30, 60, 144}) CHECK(theirs("two-moves", rate) > 0.5);
  ours_is("two-moves", 0.0, 1e-6);
}

TEST_CASE(
    "Three orders of place and speed: two that are off by half a frame's speed, one that is right between "
    "events") {
  const double v = std::sqrt(2.0 * kG * kJump);
  for (const int rate : {20, 30, 60, 144}) {
    CHECK(theirs("position-first", rate) == Approx(kJump + 0.5 * v / rate).margin(2.0 * kG / rate / rate));
    CHECK(theirs("velocity-first", rate) == Approx(kJump - 0.5 * v / rate).margin(2.0 * kG / rate / rate));
  }
  ours_is("position-first", kJump, 1e-3);
  ours_is("velocity-first", kJump, 1e-3);
  const double reached = 15.0 / kG, fallen = 0.5 * kG * reached * reached + 15.0 * (3.0 - reached);
  ours_is("half-step", fallen, 1e-3);
  // From there on half of g dt too fast.
  for (const int rate : {20, 30, 60, 144})
    CHECK(theirs("half-step", rate) - fallen == Approx(0.5 * kG / rate * (3.0 - reached)).epsilon(0.05));
}

TEST_CASE("Friction by the frame, and by mu dt") {
  // What is left of the way is a sum of a series: v dt (1 - a) / a.
  for (const int rate : {30, 60, 144})
    CHECK(theirs("friction-per-frame", rate) == Approx(kFull / rate * 9.0).epsilon(0.02));
  ours_is("friction-per-frame", kFull * 0.1, 5e-3);
  CHECK(theirs("friction-times-dt", 30) == Approx((40.0 / 30 - 1.0) * kFull).epsilon(0.01));
  CHECK(theirs("friction-times-dt", 60) < 1e-6);
  ours_is("friction-times-dt", 0.0, 1e-9);
}

TEST_CASE("A projected way loses the slope's cosine, and ours keeps its length") {
  for (const int rate : {30, 60, 144})
    CHECK(theirs("projected", rate) == Approx(kFull * std::cos(radians(35.0))).epsilon(0.01));
  ours_is("projected", kFull, 0.01);
}

TEST_CASE(
    "A smoothed body is inside of stairs, one that stands up blindly inside of a roof; ours is inside of "
    "nothing") {
  for (const int rate : {30, 60, 144}) {
    CHECK(theirs("body-smoothed", rate) > 0.05);
    CHECK(theirs("stand-blindly", rate) > 0.2);
  }
  ours_is("body-smoothed", 0.0, kProfile.capsule.margin);
  ours_is("stand-blindly", 0.0, kProfile.capsule.margin);
}

TEST_CASE("Ways to stay on the ground that lose it, or keep what should be gone") {
  for (const int rate : {30, 60, 144}) {
    INFO(rate);
    CHECK(theirs("push-down", rate) > 5.0);
    CHECK(theirs("gravity-zeroed", rate) > 3.0);
    // Gravity for as long as one stood, up to the terminal speed.
    CHECK(theirs("gravity-kept", rate) > 2.0 * 0.1 * kG + 5.0);
  }
  ours_is("push-down", 0.0, 1e-9);
  ours_is("gravity-zeroed", 0.0, 1e-9);
  for (const int rate : {30, 60, 144}) CHECK(ours("gravity-kept", rate) < 0.1 * kG + 2.0 * kG / rate);
}

TEST_CASE("Ground that is asked for in another loop eats jumps where there are more ticks than frames") {
  CHECK(theirs("two-loops", 30) == 20.0);
  CHECK(theirs("two-loops", 144) <= 15.0);
  ours_is("two-loops", 20.0, 0.0);
}

TEST_CASE("Jumps that are too many, too high, and that hang from a ceiling") {
  for (const int rate : {30, 60, 144}) {
    INFO(rate);
    CHECK(theirs("held-key", rate) >= 3.0);
    // The second press is 0.1 s after the first.
    const double v = std::sqrt(2.0 * kG * kJump), gone = v * 0.1 - 0.5 * kG * 0.01;
    CHECK(theirs("late-always", rate) == Approx(kJump + gone).margin(v / rate));
    CHECK(theirs("rise-kept", rate) > 2.0 * ours("rise-kept", rate));
  }
  ours_is("held-key", 1.0, 0.0);
  ours_is("late-always", kJump, 1e-3);
}

TEST_CASE("Mouse times dt turns less the more frames there are") {
  for (const int rate : {30, 60, 144})
    CHECK(theirs("mouse-times-dt", rate) == Approx(90.0 * 60.0 / rate).epsilon(0.01));
  ours_is("mouse-times-dt", 90.0, 1e-3);
}

TEST_CASE(
    "On a run's inputs a recipe leaves the way that ours goes, and a plain walker with no fault stays near "
    "it") {
  const TriangleWorld world = Scene().floor().stairs({0, 0, -6}, 6.0, 0.15, 0.3, 6).world();
  InputScript script;
  InputChange go, askew, rest;
  go.move = Vec2(0, 1);
  askew.at = 1.0;
  askew.move = Vec2(1, 1);
  rest.at = 2.5;
  rest.move = Vec2(0.0);
  script.changes = {go, askew, rest};
  const TimingSource source{start_state(kProfile, Home{}, world), script, 3.0, kProfile, world};
  const TickedRun right = ticked_run(source.start, script, kProfile, world, 60, 3.0);
  const auto apart = [&](const char* key) {
    const auto way = recipe_way(*find_recipe(key), source, 60);
    REQUIRE(way.size() == right.states.size());
    double most = 0.0;
    for (std::size_t i = 0; i < way.size(); ++i) most = std::max(most, length(way[i] - right.states[i].foot_C));
    return most;
  };
  CHECK(apart("diagonals") > 1.5);
  CHECK(apart("mouse-times-dt") < 0.5);  // Nobody turned.
}
