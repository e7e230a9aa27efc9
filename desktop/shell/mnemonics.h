// Letters by which entries of menus are reached from the keyboard.
#pragma once

#include <QSet>
#include <QString>

namespace lacquer {

/// The words with & before a letter that is not taken yet, which is taken then: one that begins a word if there is one,
/// else any; the words as they are if all letters are taken.
QString with_mnemonic(const QString& words, QSet<QChar>& taken);

}  // namespace lacquer
