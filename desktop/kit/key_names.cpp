#include "desktop/kit/key_names.h"

#include <QRegularExpression>

namespace lacquer {

QString with_keys(const QString& words, const KeyNames& keys) {
    if (!words.contains(QLatin1Char('{'))) return words;
    static const QRegularExpression named(QStringLiteral("( ?\\()?\\{([a-z_0-9]+)\\}(\\))?"));
    QString told;
    qsizetype from = 0;
    for (auto all = named.globalMatch(words); all.hasNext();) {
        const QRegularExpressionMatch one = all.next();
        const auto key = keys.constFind(one.captured(2));
        // What is no action stays as it is: a formula may have such brackets.
        if (key == keys.constEnd()) continue;
        told += words.mid(from, one.capturedStart() - from);
        const bool bracketed = !one.captured(1).isEmpty() && !one.captured(3).isEmpty();
        if (!(key->isEmpty() && bracketed)) told += one.captured(1) + *key + one.captured(3);
        from = one.capturedEnd();
    }
    return told + words.mid(from);
}

}  // namespace lacquer
