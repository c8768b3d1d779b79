// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/playhead_words.h"

#include <algorithm>

#include "lagniappe/profile_fields.h"
#include "lagniappe/remedy.h"
#include "theme/text.h"

namespace lagniappe::app {
namespace {

constexpr std::size_t kMostTold = 4;  // The ledger has all of them.

}  // namespace

// While time goes on nobody reads it.
std::vector<Readouts::Told> told_at_playhead(const DriveSession& session, const Ledger& ledger) {
  std::vector<Readouts::Told> all;
  if (session.live()) return all;
  const auto tell = [&](bool refused, const std::string& sentence) {
    const Readouts::Told line{refused, qt(sentence)};
    if (all.size() < kMostTold && std::find(all.begin(), all.end(), line) == all.end()) all.push_back(line);
  };
  const Recording& shown = session.shown();
  const World& world = shown.place->world;
  for (const Finding& f : shown.run.findings()) {
    if (f.first <= session.playhead() && session.playhead() <= f.last)
      tell(false, to_sentence(f, world, shown.take.profile, shown.run.tick_rate()));
  }
  for (const LedgerEntry& entry : ledger.entries) {
    if (is_refusal(entry)) tell(true, to_sentence(entry, world));
  }
  return all;
}

WhatIsBehind behind_refusal(const DriveSession& session, const LedgerEntry& refused) {
  const std::size_t at = session.playhead();
  if (at == 0) return {};
  const Recording& shown = session.shown();
  const CharacterState& before = shown.run.state(at - 1);
  const auto* jump = std::get_if<entry::JumpRefused>(&refused);
  if (jump != nullptr && jump->why == entry::JumpRefused::Why::State)
    return {
        QObject::tr("No transition of this state takes a jump: its row says what does"), {}, {}, before.state};
  const auto remedy = remedy_of(refused, before, shown.take.inputs[at - 1], shown.take.profile,
                                shown.place->world, 1.0 / shown.run.tick_rate());
  if (!remedy) return {QObject::tr("No single value is behind it: it is what is there"), {}, {}, {}};
  const QString said = QObject::tr("In tick %1: %2").arg(at).arg(qt(to_sentence(*remedy)));
  if (remedy->state)
    return {QObject::tr("%1, of the state's own %2").arg(said, qt(remedy->path).replace('_', ' ')),
            remedy->path,
            {},
            remedy->state};
  if (!remedy->enough) return {said, remedy->path, {}, {}};
  const bool choice = find_choice(remedy->path) != nullptr;
  return {
      said,
      remedy->path,
      choice ? QString(*remedy->enough != 0.0 ? "true" : "false") : QString::number(*remedy->enough, 'g', 9),
      {}};
}

}  // namespace lagniappe::app
