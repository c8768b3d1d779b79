// SPDX-License-Identifier: GPL-3.0-or-later
// What a program left that did not end by itself, offered one after the other: takes that were being driven,
// then values that were not saved.
#pragma once

#include "session/handling_desk.h"
#include "session/take_desk.h"

namespace lagniappe::app {

class MessageBar;
class Opener;

class Recovery : public QObject {
  Q_OBJECT
 public:
  Recovery(TakeDesk& desk, HandlingDesk& handling, Opener& opener, MessageBar& messages, QObject* parent);

  void offer();  // Once.
  // A recovered take is one of the study from now on; its journal goes when it is saved, and the next is
  // offered.
  void keep(Recording& recovered, const QString& journal);

 private:
  void offer_next();
  void offer_values();

  TakeDesk& desk_;
  HandlingDesk& handling_;
  Opener& opener_;
  MessageBar& messages_;
  bool offered_ = false, values_offered_ = false;
  QStringList left_journals_;  // Not offered yet.
};

}  // namespace lagniappe::app
