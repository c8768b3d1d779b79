// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/expression.h"

#include <muParser.h>

#include <QCoreApplication>
#include <cmath>

namespace lagniappe::app {

Evaluated evaluate(const QString& text, const QString& unit, double present) {
  QString plain = text.trimmed();
  if (!unit.isEmpty() && plain.endsWith(unit)) plain.chop(unit.size());
  const auto tr = [](const char* what) { return QCoreApplication::translate("Expression", what); };
  if (plain.trimmed().isEmpty()) return {std::nullopt, tr("nothing is written there")};
  try {
    mu::Parser parser;
    parser.DefineVar("v", &present);
    parser.SetExpr(plain.toStdString());
    const double value = parser.Eval();
    if (!std::isfinite(value)) return {std::nullopt, tr("that is no finite number")};
    return {value, {}};
  } catch (const mu::Parser::exception_type& error) {
    return {std::nullopt, QString::fromStdString(error.GetMsg())};
  }
}

}  // namespace lagniappe::app
