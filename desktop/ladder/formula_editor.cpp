#include "desktop/ladder/formula_editor.h"

#include <QAbstractTextDocumentLayout>
#include <QKeyEvent>
#include <QMimeData>
#include <QTextBlock>

#include "desktop/formulas/fault_mark.h"
#include "desktop/kit/theme.h"

namespace lacquer {

FormulaEditor::FormulaEditor(QWidget* parent) : QPlainTextEdit(parent) {
    setObjectName(QStringLiteral("formula_editor"));
    setFont(theme::figures(theme::small));
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWordWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
    setTabChangesFocus(true);
    document()->setDocumentMargin(3);
}

void FormulaEditor::mark_fault(int first, int last) {
    fault_ = {first, last};
    viewport()->update();
}

void FormulaEditor::clear_fault() {
    fault_.reset();
    viewport()->update();
}

int FormulaEditor::wanted_height() const {
    int lines = 0;
    for (QTextBlock block = document()->begin(); block.isValid(); block = block.next()) {
        lines += std::max(1, block.layout()->lineCount());
    }
    return std::max(1, lines) * (fontMetrics().lineSpacing() + 1) + 14;
}

bool FormulaEditor::event(QEvent* event) {
    // Escape belongs to the editor while it is open, whatever else it is a shortcut for.
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept();
        return true;
    }
    return QPlainTextEdit::event(event);
}

void FormulaEditor::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (event->key() == Qt::Key_Escape) {
        emit dismissed();
    } else if (enter && (event->modifiers() & Qt::ShiftModifier) == 0) {
        emit accepted();
    } else if (event->matches(QKeySequence::Undo) && !document()->isUndoAvailable()) {
        emit accepted();
    } else {
        QPlainTextEdit::keyPressEvent(event);
    }
}

void FormulaEditor::insertFromMimeData(const QMimeData* source) {
    // Qt looks at the first of its formats without asking whether there is one.
    if (source != nullptr && !source->formats().isEmpty()) QPlainTextEdit::insertFromMimeData(source);
}

void FormulaEditor::paintEvent(QPaintEvent* event) {
    QPlainTextEdit::paintEvent(event);
    if (fault_) paint_fault_mark(*this, fault_->first, fault_->second);
}

void FormulaEditor::focusOutEvent(QFocusEvent* event) {
    QPlainTextEdit::focusOutEvent(event);
    if (event->reason() != Qt::PopupFocusReason && event->reason() != Qt::ActiveWindowFocusReason) emit accepted();
}

}  // namespace lacquer
