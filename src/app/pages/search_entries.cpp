// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/search_entries.h"

#include <QFileInfo>

#include "cards/card_specs.h"
#include "lagniappe/profile_fields.h"
#include "pages/drive_page.h"
#include "session/states_desk.h"
#include "session/take_desk.h"
#include "session/take_names.h"
#include "theme/text.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

class Adder {
 public:
  Adder(const SearchPlaces& places, std::vector<SearchEntry>& entries) : places_(places), entries_(entries) {}

  void add_values() const {
    for (const std::string& path : profile_paths()) {
      const ProfileField* field = find_field(path);
      const ProfileChoice* choice = find_choice(path);
      const ProfileCurve* curve = find_curve(path);
      const std::string_view help = field    ? field->help
                                    : choice ? choice->help
                                    : curve  ? curve->help
                                             : std::string_view();
      const QString words = QString::fromStdString(path).replace('.', ' ').replace('_', ' ');
      const CardSpec* card = card_of(path);
      const QString where = card == nullptr ? QString() : QObject::tr("card %1").arg(QObject::tr(card->title));
      add(words, QObject::tr("value"), where, qt(help), [p = places_, path] {
        p.on_drive_page();
        p.page.show_value(path);
      });
    }
  }

  void add_states() const {
    const auto& states = places_.states.table().states;
    for (std::size_t i = 0; i < states.size(); ++i)
      add(QString::fromStdString(states[i].name), QObject::tr("state"), QObject::tr("States page"), {},
          [p = places_, i] { p.show_state(i); });
  }

  void add_place() const {
    const auto place = places_.session.shared_place();
    if (place == nullptr) return;
    for (const Mark& mark : place->course.marks) {
      add(QString::fromStdString(mark.id), QObject::tr("mark"), QObject::tr("Drive, Begin at mark"),
          QObject::tr("Begin here"), [p = places_, mark] {
            p.on_drive_page();
            p.session.begin_at(mark);
            p.page.view().setFocus(Qt::OtherFocusReason);
          });
    }
    for (std::size_t i = 0; i < place->world.piece_count(); ++i) {
      const auto piece = static_cast<PieceId>(i);
      add(qt(place->world.piece_name(piece)), QObject::tr("piece"), QObject::tr("in the course"),
          QObject::tr("When it was touched"), [p = places_, piece, place] {
            if (p.session.shared_place() != place) return;  // Another course by now.
            p.on_drive_page();
            p.page.ask_about(piece);
          });
    }
  }

  void add_takes() const {
    for (const Study::Entry& take : places_.takes.study().entries()) {
      if (!take.trouble.isEmpty()) continue;
      const QString name = QString::fromStdString(take.about.name);
      add(name.isEmpty() ? QFileInfo(take.file).fileName() : name, QObject::tr("take"),
          recorded_text(take.about), QString::fromStdString(take.about.note),
          [p = places_, file = take.file] { p.open(file); });
    }
  }

 private:
  void add(const QString& name, const QString& kind, const QString& where, const QString& about,
           std::function<void()> go) const {
    SearchEntry entry;
    entry.name = name;
    entry.kind = kind;
    entry.where = where;
    entry.about = about;
    entry.go = std::move(go);
    entries_.push_back(std::move(entry));
  }

  const SearchPlaces& places_;
  std::vector<SearchEntry>& entries_;
};

}  // namespace

void add_named(const SearchPlaces& places, std::vector<SearchEntry>& entries) {
  const Adder adder(places, entries);
  adder.add_values();
  adder.add_states();
  adder.add_place();
  adder.add_takes();
}

}  // namespace lagniappe::app
