// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/guard_words.h"

#include <QStringList>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

QString number(double value) { return QString::number(value, 'g', 3); }

QString since_words(double seconds, bool for_ever) {
  if (for_ever) return StatesDesk::tr("all %1 s before").arg(number(seconds));
  return seconds <= 0.0 ? StatesDesk::tr("since this tick") : StatesDesk::tr("for %1 s").arg(number(seconds));
}

}  // namespace

QString part_words(const std::string& guard, const GuardPart& part) {
  const QString text = QString::fromStdString(guard.substr(part.begin, part.end - part.begin)).simplified();
  return part.compares ? StatesDesk::tr("%1  (%2)").arg(text, number(part.left)) : text;
}

QString story_html(const std::string& guard, const GuardStory& story) {
  QStringList lines;
  for (std::size_t p = 0; p < story.verdict.parts.size(); ++p) {
    const GuardPart& part = story.verdict.parts[p];
    QString line = QString("<span style='color:%1'>%2</span> <code>%3</code>")
                       .arg((part.holds ? theme::moss() : theme::brick()).name(),
                            part.holds ? "\u2713" : "\u2717", part_words(guard, part).toHtmlEscaped());
    line += part.holds ? StatesDesk::tr(" holds") : StatesDesk::tr(" does not");
    if (p < story.since.size()) line += ", " + since_words(story.since[p], story.for_ever[p]);
    lines.append(line);
  }
  if (!story.verdict.error.empty()) lines.append(QString::fromStdString(story.verdict.error).toHtmlEscaped());
  return lines.join("<br>");
}

const StateChart::Transition* transition_of(const StateChart& chart, StateId from, std::size_t row) {
  for (const StateChart::Transition& t : chart.state(from).leaving) {
    if (t.row == row) return &t;
  }
  return nullptr;
}

QString firing_words(const StatesDesk& desk, const Firing& firing) {
  const auto name = [&](StateId id) {
    const std::string_view text = desk.chart().name_of(id);
    return QString::fromUtf8(text.data(), qsizetype(text.size()));
  };
  return StatesDesk::tr("%1 to %2").arg(name(firing.from), name(firing.to));
}

QString firing_guard_words(const StatesDesk& desk, const Firing& firing) {
  if (!firing.row) return StatesDesk::tr("a script failed");
  const StateChart::Transition* t = transition_of(desk.chart(), firing.from, *firing.row);
  const std::string& guard = desk.table().transitions[*firing.row].guard;
  if (t == nullptr || desk.subject() == nullptr) return QString::fromStdString(guard);
  // It held before the motion, or after it.
  GuardStory story = desk.story(*t, firing.tick, false, true);
  if (!story.verdict.holds) story = desk.story(*t, firing.tick, false);
  QStringList parts;
  for (const GuardPart& part : story.verdict.parts) {
    if (part.holds || !story.verdict.holds) parts.append(part_words(guard, part));
  }
  return parts.join(", ");
}

}  // namespace lagniappe::app
