#include "desktop/kit/core_words.h"

#include <QCoreApplication>
#include <QRegularExpression>

namespace lacquer {

CoreSentence core_sentence(const QString& text) {
    // An apostrophe within a word begins no name.
    static const QRegularExpression taken(
        QStringLiteral(R"((?<!\w)'(?:[^']|'(?=\w))*'(?!\w)|(?<![\w.])-?\d+(?:\.\d+)?(?!\w))"));
    CoreSentence sentence;
    qsizetype from = 0;
    for (auto matches = taken.globalMatch(text); matches.hasNext();) {
        const QRegularExpressionMatch match = matches.next();
        sentence.taken.append(match.captured());
        sentence.words +=
            text.mid(from, match.capturedStart() - from) + QStringLiteral("%%1").arg(sentence.taken.size());
        from = match.capturedEnd();
    }
    sentence.words += text.mid(from);
    return sentence;
}

QString core_words(std::string_view text) {
    QString english = QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
    const CoreSentence sentence = core_sentence(english);
    const QByteArray source = sentence.words.toUtf8();
    const QString translated = QCoreApplication::translate("core", source.constData());
    if (translated == sentence.words) return english;
    QString filled;
    // One look through, as what is put in may itself hold what looks like a place.
    static const QRegularExpression place(QStringLiteral("%(\\d+)"));
    qsizetype from = 0;
    for (auto matches = place.globalMatch(translated); matches.hasNext();) {
        const QRegularExpressionMatch match = matches.next();
        filled +=
            translated.mid(from, match.capturedStart() - from) + sentence.taken.value(match.captured(1).toInt() - 1);
        from = match.capturedEnd();
    }
    return filled + translated.mid(from);
}

QString fault_words(const Fault& fault) {
    const QString message = core_words(fault.message);
    return fault.mend.empty() ? message : message + QStringLiteral(" - ") + core_words(fault.mend);
}

}  // namespace lacquer
