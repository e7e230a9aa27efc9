// Keys in words: which key does what may change, so hints name actions and not keys.
#pragma once

#include <QHash>
#include <QString>

namespace lacquer {

/// The present key of each action that has one, by the action's id.
using KeyNames = QHash<QString, QString>;

/// The words with each {action} replaced by its key: "add a step ({add_step})" becomes "add a step (A)". One without a
/// key leaves its words without brackets.
QString with_keys(const QString& words, const KeyNames& keys);

}  // namespace lacquer
