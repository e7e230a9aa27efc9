#include "desktop/code/code_lines.h"

#include <algorithm>

namespace lacquer {

namespace {

constexpr QStringView opening = u"([{";
constexpr QStringView closing = u")]}";

// The same text with blanks in place of its remarks.
QString without_remarks(QString text) {
    enum class In { code, line, block } in = In::code;
    for (qsizetype i = 0; i < text.size(); ++i) {
        const QStringView two = QStringView(text).mid(i, 2);
        if (in == In::code && two == u"//") in = In::line;
        if (in == In::line && text[i] == u'\n') in = In::code;
        if (in == In::code && two == u"/*") {
            in = In::block;
            text.replace(i, 2, QStringLiteral("  "));
            ++i;
            continue;
        }
        const bool ends = in == In::block && two == u"*/";
        if (in != In::code && text[i] != u'\n') text[i] = u' ';
        if (ends) {
            text[++i] = u' ';
            in = In::code;
        }
    }
    return text;
}

bool is_blank(const QString& line) { return line.trimmed().isEmpty(); }

qsizetype blanks_of(const QString& line) {
    qsizetype count = 0;
    while (count < line.size() && line[count].isSpace()) ++count;
    return count;
}

}  // namespace

std::optional<int> matching_bracket(const QString& text, int at) {
    if (at < 0 || at >= text.size()) return std::nullopt;
    const bool opens = opening.contains(text[at]);
    if (!opens && !closing.contains(text[at])) return std::nullopt;
    const QString code = without_remarks(text);
    if (code[at] != text[at]) return std::nullopt;
    const int step = opens ? 1 : -1;
    QString open;
    for (int i = at; i >= 0 && i < code.size(); i += step) {
        const qsizetype begins = (opens ? opening : closing).indexOf(code[i]);
        const qsizetype ends = (opens ? closing : opening).indexOf(code[i]);
        if (begins >= 0) open.append((opens ? closing : opening)[begins]);
        if (ends < 0) continue;
        if (open.isEmpty() || open.back() != code[i]) return std::nullopt;
        open.chop(1);
        if (open.isEmpty()) return i;
    }
    return std::nullopt;
}

QStringList with_remarks_turned(QStringList lines) {
    const bool all_are = std::all_of(lines.begin(), lines.end(), [](const QString& line) {
        return is_blank(line) || line.trimmed().startsWith(QStringLiteral("//"));
    });
    qsizetype least = -1;
    for (const QString& line : lines) {
        if (!is_blank(line) && (least < 0 || blanks_of(line) < least)) least = blanks_of(line);
    }
    for (QString& line : lines) {
        if (is_blank(line)) continue;
        if (!all_are) {
            line.insert(least, QStringLiteral("// "));
            continue;
        }
        const qsizetype at = line.indexOf(QStringLiteral("//"));
        line.remove(at, line.mid(at + 2).startsWith(u' ') ? 3 : 2);
    }
    return lines;
}

QStringList moved_in(QStringList lines, int steps) {
    for (QString& line : lines) {
        if (is_blank(line)) continue;
        if (steps > 0) {
            line.prepend(QString(steps * code_indent, u' '));
        } else {
            line.remove(0, std::min<qsizetype>(blanks_of(line), -steps * code_indent));
        }
    }
    return lines;
}

QString blanks_after(const QString& above) {
    const QString code = without_remarks(above);
    QString open;
    for (const QChar c : code) {
        if (opening.contains(c)) open.append(c);
        if (closing.contains(c) && !open.isEmpty()) open.chop(1);
    }
    const qsizetype blanks = blanks_of(above);
    return above.left(blanks) + QString(open.isEmpty() ? 0 : code_indent, u' ');
}

CodePlace place_in(const QString& text, int at) {
    const QString before = text.left(std::clamp<qsizetype>(at, 0, text.size()));
    const auto line = static_cast<int>(before.count(u'\n'));
    return {line + 1, static_cast<int>(before.size() - before.lastIndexOf(u'\n'))};
}

}  // namespace lacquer
