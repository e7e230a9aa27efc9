#include "desktop/formulas/formula_text.h"

#include <algorithm>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/lang/builtins.h"
#include "core/lang/token.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

bool names_any(const auto& things, std::string_view name) {
    return std::any_of(things.begin(), things.end(), [&](const auto& thing) { return thing.name == name; });
}

}  // namespace

QTextCharFormat name_format(std::string_view name, bool is_called, const Finish& finish) {
    QTextCharFormat format;
    format.setForeground(theme::text);
    // Whatever is called is a function, of the language or an operation.
    if (is_called) {
        format.setForeground(theme::quiet);
    } else if (find_step(finish, name) != nullptr || names_any(finish.grounds, name) ||
               find_ground_picture(finish, name)) {
        format.setForeground(theme::gold);
    } else if (names_any(finish.dials, name) || names_any(finish.responses, name) || names_any(finish.signals, name)) {
        format.setForeground(theme::vermilion_text);
        format.setUnderlineStyle(QTextCharFormat::DotLine);
        format.setUnderlineColor(theme::vermilion_text);
    } else if (is_builtin_name(name)) {
        format.setForeground(theme::quiet);
    }
    return format;
}

int text_index(const std::string& text, std::uint32_t byte) {
    return static_cast<int>(
        QString::fromUtf8(text.data(), std::min<qsizetype>(byte, static_cast<qsizetype>(text.size()))).size());
}

QList<QTextLayout::FormatRange> formula_formats(const std::string& formula, const Finish& finish) {
    QList<QTextLayout::FormatRange> ranges;
    const Result<std::vector<Token>> tokens = tokenize(formula);
    if (!tokens) return ranges;
    for (std::size_t i = 0; i < tokens->size(); ++i) {
        const Token& token = (*tokens)[i];
        if (token.kind == TokenKind::end) break;
        // The version of the language is no number that can be turned.
        if (i > 0 && (*tokens)[i - 1].text == "version") continue;
        const int start = text_index(formula, token.span.begin);
        QTextCharFormat format;
        format.setForeground(theme::text);
        if (token.kind == TokenKind::number) {
            format.setFontUnderline(true);
            format.setUnderlineColor(theme::word_edge);
        } else if (token.kind == TokenKind::name) {
            format = name_format(token.text, (*tokens)[i + 1].text == "(", finish);
        }
        ranges.append({start, text_index(formula, token.span.end) - start, format});
    }
    return ranges;
}

QString lines_of(const std::string& formula) {
    return QString::fromStdString(formula).replace(QLatin1Char('\n'), QChar(QChar::LineSeparator));
}

QString type_words(Type type) {
    return QString::fromUtf8(said(type).data(), static_cast<qsizetype>(said(type).size()));
}

}  // namespace lacquer
