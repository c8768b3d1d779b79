// SPDX-License-Identifier: GPL-3.0-or-later
#include "top_strip.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QMenuBar>
#include <QSet>
#include <QToolButton>
#include <map>
#include <vector>

#include "theme/plain_tip.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kLongestName = 104;  // Pixels.
constexpr int kLeastMenus = 120, kRoomForName = 1100, kRoomForFigures = 1240;

// Names of any length must not push the strip's other parts out.
QString chip_text(const QWidget& chip, const QString& kind, const QString& name) {
  return kind + "  " + chip.fontMetrics().elidedText(name, Qt::ElideMiddle, kLongestName);
}

QToolButton* chip(const QString& text) {
  auto* button = new QToolButton;
  button->setObjectName("chip");
  button->setText(text);
  button->setPopupMode(QToolButton::InstantPopup);
  button->setFocusPolicy(Qt::TabFocus);
  return button;
}

// Each entry of a menu has a letter of its own to be chosen by, underlined: where a word begins, if one is
// free. An earlier entry moves to another of its letters where a later one would have none.
class Letters {
 public:
  void give(const QMenu& menu) {
    for (QAction* action : menu.actions()) {
      if (action->isSeparator()) continue;
      texts_.push_back(action->text().remove('&'));
      QSet<QChar> tried;
      (void)place(texts_.size() - 1, tried);
    }
    std::size_t at = 0;
    for (QAction* action : menu.actions()) {
      if (action->isSeparator()) continue;
      QString text = texts_[at];
      const QChar letter = letter_of(at++);
      if (!letter.isNull()) text.insert(place_in(text, letter), '&');
      action->setText(text);
    }
  }

 private:
  static qsizetype place_in(const QString& text, QChar letter) {
    for (qsizetype i = 0; i < text.size(); ++i)
      if (text[i].toLower() == letter && (i == 0 || !text[i - 1].isLetterOrNumber())) return i;
    return text.indexOf(letter, 0, Qt::CaseInsensitive);
  }
  static QString wanted(const QString& text) {
    QString first, rest;
    for (qsizetype i = 0; i < text.size(); ++i) {
      if (!text[i].isLetterOrNumber()) continue;
      (i == 0 || !text[i - 1].isLetterOrNumber() ? first : rest) += text[i].toLower();
    }
    return first + rest;
  }
  bool place(std::size_t entry, QSet<QChar>& tried) {
    for (const QChar letter : wanted(texts_[entry])) {
      if (tried.contains(letter)) continue;
      tried.insert(letter);
      const auto owner = owners_.find(letter);
      if (owner != owners_.end() && !place(owner->second, tried)) continue;
      owners_[letter] = entry;
      return true;
    }
    return false;
  }
  QChar letter_of(std::size_t entry) const {
    for (const auto& [letter, owner] : owners_)
      if (owner == entry) return letter;
    return {};
  }

  std::vector<QString> texts_;
  std::map<QChar, std::size_t> owners_;
};

void give_letters(QMenu& menu) {
  QObject::connect(&menu, &QMenu::aboutToShow, &menu, [&menu] { Letters().give(menu); });
}

}  // namespace

TopStrip::TopStrip(const Actions& actions)
    : actions_(actions),
      course_(chip(tr("No course"))),
      profile_(chip(tr("Profile  Untitled"))),
      drive_(new QToolButton),
      figures_(new QLabel),
      wordmark_(new QLabel("Lagniappe")) {
  setObjectName("topStrip");
  setAttribute(Qt::WA_StyledBackground);
  setFixedHeight(46);
  wordmark_->setObjectName("wordmark");
  figures_->setObjectName("figures");
  drive_->setObjectName("drive");
  drive_->setDefaultAction(actions_[Act::Drive]);
  drive_->setToolButtonStyle(Qt::ToolButtonTextOnly);
  drive_->setFocusPolicy(Qt::TabFocus);
  show_driving(false);
  for (QLabel* goes : {wordmark_, figures_})
    goes->setMinimumWidth(1);  // Where it is narrow; it asks for no room.
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(14, 0, 14, 0);
  layout->setSpacing(12);
  layout->addWidget(wordmark_);
  layout->addWidget(make_menus(), 1, Qt::AlignVCenter);
  make_chips();
  for (QWidget* part : std::initializer_list<QWidget*>{course_, profile_, figures_, drive_})
    layout->addWidget(part);
}

QMenuBar* TopStrip::make_menus() {
  auto* bar = new QMenuBar;
  bar->setNativeMenuBar(false);
  for (const char* name :
       {"&Course", "&Profile", "&States", "&Edit", "&Drive", "&Tape", "Ta&ke", "&Retake", "&View", "&Help"}) {
    QMenu* menu = bar->addMenu(tr(name));
    give_letters(*menu);
    QMenu* cameras = nullptr;
    for (const ActRow& row : act_rows()) {
      if (QString(name) == "&View" && QString(row.menu) == "Camera") {
        if (cameras == nullptr) give_letters(*(cameras = menu->addMenu(tr("Camera"))));
        cameras->addAction(actions_[row.act]);
      }
      if (QString(name).remove('&') != row.menu) continue;
      if (row.act == Act::Quit) recent_menu_ = menu->addMenu(tr("Open recent"));
      if (row.act == Act::ToStart) marks_menu_ = menu->addMenu(tr("Begin at mark"));
      menu->addAction(actions_[row.act]);
    }
  }
  connect(recent_menu_, &QMenu::aboutToShow, this, [this] { emit recent_asked(recent_menu_); });
  connect(marks_menu_, &QMenu::aboutToShow, this, &TopStrip::marks_asked);
  give_letters(*marks_menu_);  // After they are filled.
  bar->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
  bar->setMinimumWidth(kLeastMenus);
  if (auto* more = bar->findChild<QToolButton*>("qt_menubar_ext_button")) {
    more->setIcon(theme::icon("chevron-right"));
    more->setAccessibleName(tr("More menus"));
  }
  return bar;
}

void TopStrip::make_chips() {
  auto* course_menu = new QMenu(course_);
  connect(course_menu, &QMenu::aboutToShow, this, [this, course_menu] {
    emit recent_asked(course_menu);
    course_menu->addSeparator();
    course_menu->addAction(actions_[Act::OpenCourse]);
  });
  course_->setMenu(course_menu);
  auto* profile_menu = new QMenu(profile_);
  for (const Act act : {Act::OpenProfile, Act::SaveProfile, Act::SaveProfileAs, Act::CompareProfiles})
    profile_menu->addAction(actions_[act]);
  profile_->setMenu(profile_menu);
}

void TopStrip::show_course(const QString& name, const QString& file) {
  course_->setText(chip_text(*course_, tr("Course"), name));
  course_->setToolTip(plain_tip(file));
}

void TopStrip::show_profile(const QString& name) {
  profile_->setText(chip_text(*profile_, tr("Profile"), name));
}

void TopStrip::show_figures(const QString& text) {
  if (text != figures_->text()) figures_->setText(text);
}

void TopStrip::show_driving(bool driving) {
  drive_->setText(driving ? tr("Esc leaves") : tr("Drive  %1").arg(actions_.key_text(Act::Drive)));
}

void TopStrip::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  wordmark_->setVisible(width() >= kRoomForName);
  figures_->setVisible(width() >= kRoomForFigures);
}

}  // namespace lagniappe::app
