#include "desktop/formulas/text_completion.h"

#include <QKeyEvent>
#include <QPlainTextEdit>
#include <algorithm>
#include <utility>

#include "core/finish/try_on.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/formulas/completion_choice.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/kit/choice_list.h"
#include "desktop/kit/text.h"
#include "desktop/kit/theme.h"

namespace lacquer {

TextCompletion::TextCompletion(Models& models, QPlainTextEdit& editor, std::function<std::string()> step,
                               QWidget* window)
    : QObject(&editor),
      document_(models.document),
      drawing_(models.drawing),
      editor_(editor),
      step_(std::move(step)),
      list_(new ChoiceList(window)) {
    list_->setObjectName(QStringLiteral("completions"));
    list_->setFocusPolicy(Qt::NoFocus);
    list_->setStyleSheet(QStringLiteral("#completions { border: 1px solid %1; }").arg(theme::edge.name()));
    list_->hide();
    connect(&drawing_, &Drawing::candidates_changed, list_, [this] { list_->viewport()->update(); });
    connect(list_, &ChoiceList::taken, this, &TextCompletion::take);
    list_->set_pictures([this](int row) {
        const auto found = drawing_.candidates().find(candidate_name(static_cast<std::size_t>(row)));
        return found == drawing_.candidates().end() ? QImage() : found->second.image;
    });
    editor_.installEventFilter(this);
    connect(&editor_, &QPlainTextEdit::cursorPositionChanged, this, [this] {
        if (list_->isVisible()) offer();
    });
}

void TextCompletion::read() {
    const QString text = editor_.toPlainText();
    const auto place = static_cast<std::size_t>(text.left(editor_.textCursor().position()).toUtf8().size());
    completions_ =
        completions_at(document_.checked(), *document_.checked().catalogue, step_(), text.toStdString(), place);
}

void TextCompletion::offer() {
    const std::string step = step_();
    if (step.empty()) {
        completions_ = {};
        return hide();
    }
    read();
    const std::string text = editor_.toPlainText().toStdString();
    const Span word = completions_.word;
    const bool begun = word.end > word.begin;
    const bool done = completions_.choices.size() == 1 &&
                      completions_.choices[0].name == text.substr(word.begin, word.end - word.begin);
    if (!begun || done || completions_.choices.empty() || editor_.textCursor().hasSelection()) return hide();
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
            in_place = call_with_defaults(document_.checked(), step, completion.name);
        // On its own: what is being typed round it need not make sense yet.
        formulas.push_back(choices.back().has_picture ? in_place : "0.0");
    }
    list_->set_choices(std::move(choices));
    touched_ = false;
    const QWidget* window = list_->parentWidget();
    const QPoint below = editor_.viewport()->mapTo(window, editor_.cursorRect().bottomLeft() + QPoint(-20, 6));
    const int rows = std::min<int>(7, static_cast<int>(completions_.choices.size()));
    const int height = rows * list_->row_height() + 2;
    const int top = below.y() + height > window->height() ? below.y() - height - 30 : below.y();
    list_->setGeometry(std::max(4, below.x()), std::max(4, top), 440, height);
    list_->show();
    list_->raise();
    drawing_.ask_candidates(step, TryOnUse::replace, formulas);
}

void TextCompletion::hide() { list_->hide(); }

void TextCompletion::take(int row) {
    if (row < 0 || row >= static_cast<int>(completions_.choices.size())) return;
    const Completion& taken = completions_.choices[static_cast<std::size_t>(row)];
    const std::string text = editor_.toPlainText().toStdString();
    QTextCursor cursor = editor_.textCursor();
    cursor.setPosition(text_index(text, completions_.word.begin));
    cursor.setPosition(text_index(text, completions_.word.end), QTextCursor::KeepAnchor);
    const bool open = completions_.word.end < text.size() && text[completions_.word.end] == '(';
    hide();
    cursor.insertText(qs(taken.name + (is_called(taken.kind) && !open ? "(" : "")));
    editor_.setTextCursor(cursor);
    hide();
    editor_.setFocus();
}

bool TextCompletion::take_key(const QKeyEvent& key) {
    if (key.key() == Qt::Key_Space && (key.modifiers() & Qt::ControlModifier) != 0) {
        offer();
        return true;
    }
    if (!list_->isVisible()) return false;
    switch (key.key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            touched_ = true;
            list_->take_key(key.key());
            return true;
        case Qt::Key_Tab:
            take(list_->present());
            return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (!touched_) {
                hide();
                return false;
            }
            take(list_->present());
            return true;
        case Qt::Key_Escape:
            hide();
            return true;
        default:
            return false;
    }
}

bool TextCompletion::eventFilter(QObject* watched, QEvent* event) {
    if (watched != &editor_) return QObject::eventFilter(watched, event);
    if (event->type() == QEvent::FocusOut) hide();
    return event->type() == QEvent::KeyPress && take_key(*static_cast<QKeyEvent*>(event));
}

}  // namespace lacquer
