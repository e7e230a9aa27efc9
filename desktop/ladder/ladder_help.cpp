// What is at hand on the ladder, explained.
#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/document/document.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/formulas/function_help.h"
#include "desktop/kit/core_words.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

namespace {

QString escaped(const std::string& text) { return qs(text).toHtmlEscaped(); }

QString operation_help(const Operation& operation) {
    QString html = QStringLiteral("<b>%1</b><p>%2</p><table>")
                       .arg(escaped(operation.title), core_words(operation.about).toHtmlEscaped());
    for (const OperationArgument& argument : operation.arguments) {
        QString words = core_words(argument.words).toHtmlEscaped();
        if (argument.range) {
            words += LadderView::tr(", %1 to %2 %3")
                         .arg(qs(plain_number(argument.range->first, 4)), qs(plain_number(argument.range->second, 4)),
                              escaped(argument.unit));
        }
        for (std::size_t i = 0; i < argument.choices.size(); ++i)
            words += QStringLiteral("<br>%1 %2").arg(i).arg(escaped(argument.choices[i]));
        if (!argument.fallback.empty()) words += LadderView::tr(" (%1 if left out)").arg(escaped(argument.fallback));
        html += QStringLiteral("<tr><td style='padding-right:10px'><code>%1</code></td><td>%2</td></tr>")
                    .arg(escaped(argument.name), words);
    }
    return html + QStringLiteral("</table>");
}

}  // namespace

QString LadderView::help() const {
    if (editing_ == Editing::formula) {
        QTextCursor cursor = formula_editor_->textCursor();
        cursor.select(QTextCursor::WordUnderCursor);
        const QString explained = function_help(cursor.selectedText().toStdString());
        if (!explained.isEmpty()) return explained;
    }
    const auto at = word_at_hand();
    if (at && at->word.kind == LiveKind::function) {
        const auto& operations = document_.checked().catalogue->operations;
        const auto found = operations.find(at->word.text);
        return found != operations.end() ? operation_help(found->second) : function_help(at->word.text);
    }
    if (at && (at->word.kind == LiveKind::number || at->word.kind == LiveKind::choice)) {
        QString html =
            tr("<b>%1</b><p>A number of the formula. Drag it, turn the wheel on it, or press + and -; Shift is "
               "finer, Ctrl coarser. Enter types, also 0.3 * 2. {add_dial} makes it a dial.</p>")
                .arg(qs(at->word.text));
        if (!at->word.argument.empty())
            html += tr("<p>It is <b>%1</b>.</p>").arg(escaped(shown_name(at->word.argument)));
        return html;
    }
    const std::string name = at && at->word.kind == LiveKind::step ? at->word.text : document_.selected();
    const Step* step = find_step(document_.finish(), name);
    if (step == nullptr) {
        return tr(
            "<b>Ladder</b><p>Steps, read downwards: each is one value for every pixel, a formula over what stands "
            "above it. {add_step} adds one, {try_on} tries operations on it, {edit_formula} types its formula.</p>");
    }
    QString html = QStringLiteral("<b>%1</b>").arg(escaped(shown_name(name)));
    const CheckedStep* checked = find_step(document_.checked(), name);
    if (checked != nullptr && checked->typed) html += QStringLiteral("<p>%1</p>").arg(type_words(checked->typed->type));
    if (checked != nullptr && checked->fault)
        html += QStringLiteral("<p>%1</p>").arg(escaped(to_text(*checked->fault)));
    if (!step->note.empty()) html += QStringLiteral("<p>%1</p>").arg(escaped(step->note));
    html += QStringLiteral("<p><code>%1</code></p>").arg(escaped(step->formula));
    const std::vector<std::string> users = users_of(document_.finish(), name);
    if (!users.empty()) html += tr("<p>Used by %1.</p>").arg(joined_names(users));
    return html +
           tr("<p>Left and right go from word to word, {to_source} and {to_user} along the threads. {help} on a word "
              "explains it.</p>");
}

}  // namespace lacquer
