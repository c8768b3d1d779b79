// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/take_names.h"

#include <QDateTime>
#include <QFileInfo>
#include <algorithm>
#include <map>
#include <set>

namespace lagniappe::app {
namespace {

QString name_of(const Study::Entry& entry) {
  return entry.trouble.isEmpty() && !entry.about.name.empty() ? QString::fromStdString(entry.about.name)
                                                              : QFileInfo(entry.file).fileName();
}

using Tells = QString (*)(const TakeAbout&);
constexpr Tells kTells[] = {
    [](const TakeAbout& a) { return QString::fromStdString(a.course); },
    [](const TakeAbout& a) { return QString::fromStdString(a.profile); },
    [](const TakeAbout& a) { return a.tick_rate == 0 ? QString() : QObject::tr("%1/s").arg(a.tick_rate); },
    [](const TakeAbout& a) { return recorded_text(a, "d MMM HH:mm:ss"); },
};

// The first that is another one for each of them; the time where none is.
Tells telling(const std::vector<Study::Entry>& entries, const std::vector<std::size_t>& equal) {
  for (const Tells tells : kTells) {
    std::set<QString> words;
    for (const std::size_t i : equal) words.insert(tells(entries[i].about));
    if (words.size() == equal.size() && !words.contains(QString())) return tells;
  }
  return kTells[std::size(kTells) - 1];
}

QString group_of(const TakeAbout& about, TakeOrder order) {
  const auto named = [](const std::string& name) {
    return name.empty() ? QObject::tr("not known") : QString::fromStdString(name);
  };
  if (order == TakeOrder::ByDay) return recorded_text(about, "dddd, d MMM yyyy");
  if (order == TakeOrder::ByCourse) return named(about.course);
  if (order == TakeOrder::ByProfile) return named(about.profile);
  return {};
}

}  // namespace

QString recorded_text(const TakeAbout& about, const QString& format) {
  const QDateTime when =
      QDateTime::fromString(QString::fromStdString(about.recorded), Qt::ISODate).toLocalTime();
  return when.isValid() ? QLocale::c().toString(when, format) : QString();
}

QStringList told_apart(const std::vector<Study::Entry>& entries) {
  std::map<QString, std::vector<std::size_t>> by_name;
  QStringList names;
  for (std::size_t i = 0; i < entries.size(); ++i) {
    names.append(name_of(entries[i]));
    by_name[names.last()].push_back(i);
  }
  for (const auto& [name, equal] : by_name) {
    if (equal.size() < 2) continue;
    const Tells tells = telling(entries, equal);
    for (const std::size_t i : equal) {
      const QString word = tells(entries[i].about);
      if (!word.isEmpty()) names[qsizetype(i)] = name + ", " + word;
    }
  }
  return names;
}

// `entries` are the newest first, and so are those that are equal in what they are sorted by.
std::vector<TakeGroup> grouped(const std::vector<Study::Entry>& entries, const QStringList& names,
                               TakeOrder order) {
  std::vector<std::size_t> all(entries.size());
  for (std::size_t i = 0; i < all.size(); ++i) all[i] = i;
  const auto sort_by = [&](auto key) {
    std::stable_sort(all.begin(), all.end(), [&](std::size_t a, std::size_t b) { return key(a) < key(b); });
  };
  if (order == TakeOrder::ByName) sort_by([&](std::size_t i) { return names[qsizetype(i)].toCaseFolded(); });
  if (order == TakeOrder::Longest)
    sort_by([&](std::size_t i) {
      const TakeAbout& a = entries[i].about;
      return -double(a.ticks) / std::max(a.tick_rate, 1);
    });
  if (order == TakeOrder::ByCourse || order == TakeOrder::ByProfile)
    sort_by([&](std::size_t i) { return group_of(entries[i].about, order).toCaseFolded(); });
  std::vector<TakeGroup> groups;
  for (const std::size_t i : all) {
    const QString heading = group_of(entries[i].about, order);
    if (groups.empty() || groups.back().heading != heading) groups.push_back({heading, {}});
    groups.back().entries.push_back(i);
  }
  return groups;
}

}  // namespace lagniappe::app
