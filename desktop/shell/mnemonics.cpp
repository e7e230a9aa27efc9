#include "desktop/shell/mnemonics.h"

namespace lacquer {

QString with_mnemonic(const QString& words, QSet<QChar>& taken) {
    for (const bool beginnings : {true, false}) {
        for (qsizetype i = 0; i < words.size(); ++i) {
            const QChar letter = words[i].toLower();
            const bool begins = i == 0 || !words[i - 1].isLetter();
            if (!letter.isLetter() || (beginnings && !begins) || taken.contains(letter)) continue;
            taken.insert(letter);
            return QString(words).insert(i, QLatin1Char('&'));
        }
    }
    return words;
}

}  // namespace lacquer
