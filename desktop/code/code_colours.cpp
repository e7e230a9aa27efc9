#include "desktop/code/code_colours.h"

#include <array>
#include <string_view>

#include "core/shader/shape.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

// GLSL ES 3.00, section 3.7: the words that statements and declarations are made of.
constexpr std::array<std::string_view, 27> language_words{
    "if",        "else",   "for",     "while", "do",     "switch", "case",  "default", "break",
    "continue",  "return", "discard", "const", "in",     "out",    "inout", "uniform", "layout",
    "precision", "highp",  "mediump", "lowp",  "struct", "void",   "true",  "false",   "flat"};

bool is_glsl_word(std::string_view word) {
    for (const std::string_view each : language_words) {
        if (each == word) return true;
    }
    return !shape_named(word).is(GlslShape::Kind::nothing);
}

bool begins_word(QChar c) { return c.isLetter() || c == u'_'; }
bool goes_on(QChar c) { return c.isLetterOrNumber() || c == u'_'; }

QTextCharFormat coloured(const QColor& colour) {
    QTextCharFormat format;
    format.setForeground(colour);
    return format;
}

QTextCharFormat remarks() {
    QTextCharFormat format = coloured(theme::quiet);
    format.setFontItalic(true);
    return format;
}

}  // namespace

CodeColours::CodeColours(QTextDocument* document)
    : QSyntaxHighlighter(document), finish_(std::make_shared<const Finish>()) {}

void CodeColours::use(std::shared_ptr<const Finish> finish) {
    finish_ = std::move(finish);
    rehighlight();
}

// To the end of the remark, or of the line.
qsizetype CodeColours::remark(const QString& line, qsizetype from) {
    const qsizetype end = line.indexOf(QStringLiteral("*/"), from);
    const qsizetype to = end < 0 ? line.size() : end + 2;
    setFormat(static_cast<int>(from), static_cast<int>(to - from), remarks());
    setCurrentBlockState(end < 0 ? in_remark : in_code);
    return to;
}

qsizetype CodeColours::word(const QString& line, qsizetype from) {
    qsizetype to = from;
    while (to < line.size() && goes_on(line[to])) ++to;
    qsizetype next = to;
    while (next < line.size() && line[next].isSpace()) ++next;
    const std::string name = line.mid(from, to - from).toStdString();
    const bool is_part = from > 0 && line[from - 1] == u'.';
    const bool is_called = next < line.size() && line[next] == u'(';
    if (is_part) return to;
    setFormat(static_cast<int>(from), static_cast<int>(to - from),
              is_glsl_word(name) ? coloured(theme::celadon) : name_format(name, is_called, *finish_));
    return to;
}

void CodeColours::highlightBlock(const QString& line) {
    setCurrentBlockState(in_code);
    qsizetype at = previousBlockState() == in_remark ? remark(line, 0) : 0;
    if (line.trimmed().startsWith(u'#')) {
        // A remark may stand behind a directive.
        const qsizetype end = line.indexOf(QStringLiteral("//"));
        setFormat(0, static_cast<int>(end < 0 ? line.size() : end), coloured(theme::quiet));
        at = end < 0 ? line.size() : end;
    }
    while (at < line.size()) {
        if (line.mid(at, 2) == QStringLiteral("//")) {
            setFormat(static_cast<int>(at), static_cast<int>(line.size() - at), remarks());
            return;
        }
        if (line.mid(at, 2) == QStringLiteral("/*")) {
            at = remark(line, at);
        } else if (begins_word(line[at])) {
            at = word(line, at);
        } else if (line[at].isDigit()) {
            while (at < line.size() && (goes_on(line[at]) || line[at] == u'.')) ++at;
        } else {
            ++at;
        }
    }
}

}  // namespace lacquer
