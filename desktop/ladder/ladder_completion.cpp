// What completes a word of a formula that is being typed.
#include <QKeyEvent>

#include "core/finish/try_on.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/ladder/completion_choice.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/formula_text.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

void LadderView::complete() {
    if (editing_ != Editing::formula) return hide_completion();
    const QString text = formula_editor_->toPlainText();
    const std::string formula = text.toStdString();
    const auto place = static_cast<std::size_t>(text.left(formula_editor_->textCursor().position()).toUtf8().size());
    completions_ =
        completions_at(document_.checked(), *document_.checked().catalogue, document_.selected(), formula, place);
    const bool begun = completions_.word.end > completions_.word.begin;
    const std::string typed = formula.substr(completions_.word.begin, completions_.word.end - completions_.word.begin);
    const bool done = completions_.choices.size() == 1 && completions_.choices[0].name == typed;
    if (!begun || done || completions_.choices.empty() || formula_editor_->textCursor().hasSelection()) {
        return hide_completion();
    }
    constexpr std::size_t most = 40;
    if (completions_.choices.size() > most) completions_.choices.resize(most);
    std::vector<Choice> choices;
    std::vector<std::string> formulas;
    constexpr std::size_t most_pictures = 12;
    for (const Completion& completion : completions_.choices) {
        choices.push_back(choice_of(completion));
        if (formulas.size() >= most_pictures) continue;
        std::string in_place = completion.name;
        if (completion.kind == CompletionKind::operation)
            in_place = call_with_defaults(document_.checked(), document_.selected(), completion.name);
        // On its own: what is being typed round it need not make sense yet.
        formulas.push_back(is_called(completion.kind) && completion.kind != CompletionKind::operation ? "0.0"
                                                                                                      : in_place);
    }
    completion_list_->set_choices(std::move(choices));
    completion_touched_ = false;
    const QPoint below = formula_editor_->mapTo(window(), formula_editor_->cursorRect().bottomLeft() + QPoint(-20, 6));
    const int rows = std::min<int>(7, static_cast<int>(completions_.choices.size()));
    const int height = rows * completion_list_->row_height() + 2;
    const int top = below.y() + height > window()->height() ? below.y() - height - 30 : below.y();
    completion_list_->setGeometry(std::max(4, below.x()), std::max(4, top), 440, height);
    completion_list_->show();
    completion_list_->raise();
    drawing_.ask_candidates(document_.selected(), TryOnUse::replace, formulas);
}

void LadderView::hide_completion() { completion_list_->hide(); }

void LadderView::take_completion(int row) {
    if (row < 0 || row >= static_cast<int>(completions_.choices.size())) return;
    const Completion& taken = completions_.choices[static_cast<std::size_t>(row)];
    const std::string formula = formula_editor_->toPlainText().toStdString();
    QTextCursor cursor = formula_editor_->textCursor();
    cursor.setPosition(text_index(formula, completions_.word.begin));
    cursor.setPosition(text_index(formula, completions_.word.end), QTextCursor::KeepAnchor);
    const bool open = completions_.word.end < formula.size() && formula[completions_.word.end] == '(';
    hide_completion();
    cursor.insertText(qs(taken.name + (is_called(taken.kind) && !open ? "(" : "")));
    formula_editor_->setTextCursor(cursor);
    hide_completion();
    formula_editor_->setFocus();
}

bool LadderView::eventFilter(QObject* watched, QEvent* event) {
    if (watched != formula_editor_) return QAbstractScrollArea::eventFilter(watched, event);
    if (event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->key() == Qt::Key_Space && (key->modifiers() & Qt::ControlModifier) != 0) {
            complete();
            return true;
        }
        if (!completion_list_->isVisible()) return false;
        switch (key->key()) {
            case Qt::Key_Up:
            case Qt::Key_Down:
                completion_touched_ = true;
                completion_list_->take_key(key->key());
                return true;
            case Qt::Key_Tab:
                take_completion(completion_list_->present());
                return true;
            case Qt::Key_Return:
            case Qt::Key_Enter:
                if (!completion_touched_) {
                    hide_completion();
                    return false;
                }
                take_completion(completion_list_->present());
                return true;
            case Qt::Key_Escape:
                hide_completion();
                return true;
            default:
                return false;
        }
    }
    if (event->type() == QEvent::FocusOut) hide_completion();
    return false;
}

}  // namespace lacquer
