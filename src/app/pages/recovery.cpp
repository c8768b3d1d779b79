// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/recovery.h"

#include <QFile>
#include <algorithm>

#include "pages/opener.h"
#include "session/journal.h"
#include "widgets/message_bar.h"

namespace lagniappe::app {

Recovery::Recovery(TakeDesk& desk, HandlingDesk& handling, Opener& opener, MessageBar& messages,
                   QObject* parent)
    : QObject(parent), desk_(desk), handling_(handling), opener_(opener), messages_(messages) {}

void Recovery::offer() {
  if (std::exchange(offered_, true)) return;
  // A journal that nobody holds.
  left_journals_ = Journal::left_behind(desk_.study().takes_folder());
  offer_next();
}

// One after the other, the newest first.
void Recovery::offer_next() {
  if (left_journals_.isEmpty()) return offer_values();
  const QString path = left_journals_.takeFirst();
  const QString more = left_journals_.isEmpty() ? QString() : tr(" There is more than one.");
  messages_.show_offer(
      tr("Lagniappe did not end by itself the last time"),
      tr("The take that was being driven then can be had back, but for the last half second.") + more,
      tr("Have it back"), [this, path] { opener_.recover_take(path); }, [this] { offer_next(); });
}

void Recovery::keep(Recording& recovered, const QString& journal) {
  complete(recovered);
  const QString file = recovered.file = desk_.study().save(recovered.take);
  auto* until_saved = new QObject(this);
  connect(&desk_.study(), &Study::saved, until_saved, [this, journal, file, until_saved](const QString& saved) {
    if (saved != file) return;
    if (journal.endsWith(".journal")) QFile::remove(journal);
    until_saved->deleteLater();
    offer_next();
  });
}

void Recovery::offer_values() {
  if (!handling_.left_unsaved() || std::exchange(values_offered_, true)) return;
  const auto& snapshots = handling_.snapshots();
  const auto left = std::find_if(snapshots.begin(), snapshots.end(), [](const Snapshot& s) {
    return s.name.startsWith(HandlingDesk::tr("not saved when Lagniappe ended"));
  });
  if (left == snapshots.end()) return;
  messages_.show_offer(
      tr("There are values that were not saved"),
      tr("They are kept among the snapshots (%1); undo has the present ones back.").arg(left->name),
      tr("Go on with them"), [this, name = left->name, at = left->at] {
        const auto& all = handling_.snapshots();
        for (std::size_t n = 0; n < all.size(); ++n)
          if (all[n].at == at && all[n].name == name) return handling_.go_back_to(n);
      });
}

}  // namespace lagniappe::app
