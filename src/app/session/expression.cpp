// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/expression.h"

#include <muParser.h>

#include <QCoreApplication>
#include <QLocale>
#include <QRegularExpression>
#include <cmath>

namespace lagniappe::app {

namespace {

constexpr double kSmallest = 1e-9;  // In any unit; less is a slip of the keys.

// A comma between two digits is a decimal comma where the desktop has one, and no function's arguments are
// listed.
QString with_points(QString text) {
  static const QRegularExpression kDecimal("(\\d),(?=\\d)");
  const bool comma = QLocale::system().decimalPoint() == QString(",");
  return !comma || text.contains('(') ? text : text.replace(kDecimal, "\\1.");
}

}  // namespace

Evaluated evaluate(const QString& text, const QString& unit, double present) {
  QString plain = text.trimmed();
  if (!unit.isEmpty() && plain.endsWith(unit)) plain.chop(unit.size());
  const auto tr = [](const char* what) { return QCoreApplication::translate("Expression", what); };
  if (plain.trimmed().isEmpty()) return {std::nullopt, tr("nothing is written there")};
  try {
    mu::Parser parser;
    parser.DefineVar("v", &present);
    parser.SetExpr(with_points(plain).toStdString());
    int count = 0;
    const double* values = parser.Eval(count);
    if (count != 1)
      return {std::nullopt, tr("that is more than one number; decimals come after a point, as in 1.5")};
    const double value = values[0];
    if (!std::isfinite(value)) return {std::nullopt, tr("that is no finite number")};
    if (value != 0.0 && std::abs(value) < kSmallest)
      return {std::nullopt, tr("that is too small to be meant; write 0 for nothing")};
    return {value, {}};
  } catch (const mu::Parser::exception_type& error) {
    return {std::nullopt, QString::fromStdString(error.GetMsg())};
  }
}

}  // namespace lagniappe::app
