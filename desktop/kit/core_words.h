// What the core says, in the window's language.
#pragma once

#include <QStringList>
#include <string>
#include <string_view>

#include "core/base/fault.h"

namespace lacquer {

/// A sentence without what changes from one time to the next: "'torn' is read before row 3" is "%1 is read before row
/// %2", and `taken` holds "'torn'" and "3".
struct CoreSentence {
    QString words;
    QStringList taken;
};

/// Takes out quoted names and numbers, in the order in which they stand.
CoreSentence core_sentence(const QString& text);

/// The core speaks English and knows no translators. What it says is looked up as a sentence, in the context "core",
/// and what was taken out is put in where the translation has it.
QString core_words(std::string_view text);

/// What is wrong, and what would mend it.
QString fault_words(const Fault& fault);

}  // namespace lacquer
