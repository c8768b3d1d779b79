// SPDX-License-Identifier: GPL-3.0-or-later
// What any window of ours has around its work: a size that fits the screen, and what it says of itself.
#pragma once

#include <QString>
#include <functional>

class QWidget;

namespace lagniappe::app {

class MessageBar;
class ViewWidget;

// As large as it is, and never larger than the screen leaves room for, frame and title included.
void fit_screen(QWidget& window);

// A file that is dropped on it is opened.
void accept_files(QWidget& window, std::function<void(const QString& path)> open);

void show_about(QWidget* window);

// Says so, once, if the view cannot be drawn.
void tell_trouble(ViewWidget& view, MessageBar& messages);

}  // namespace lagniappe::app
