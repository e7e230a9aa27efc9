// What is counted, in words.
#pragma once

#include <QTranslator>

namespace lacquer {

/// The sources speak English, so that only their plurals need a translator: "%n step(s)" is "1 step" or "2 steps".
/// Another language's translator is installed after this one, and so is asked first.
class EnglishPlurals : public QTranslator {
public:
    using QTranslator::QTranslator;
    bool isEmpty() const override { return false; }
    QString translate(const char*, const char* source, const char*, int n) const override {
        QString words = QString::fromUtf8(source);
        if (n < 0 || !words.contains(QLatin1String("%n"))) return {};
        for (const char* ending : {"s", "es"}) {
            const QLatin1String plural(ending);
            words.replace(QLatin1Char('(') + plural + QLatin1Char(')'), n == 1 ? QLatin1String() : plural);
        }
        return words;
    }
};

}  // namespace lacquer
