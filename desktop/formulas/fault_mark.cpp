#include "desktop/formulas/fault_mark.h"

#include <QPainter>
#include <QPlainTextEdit>
#include <algorithm>

#include "desktop/kit/theme.h"

namespace lacquer {

void paint_fault_mark(QPlainTextEdit& editor, int first, int last) {
    QTextCursor cursor(editor.document());
    const int length = editor.document()->characterCount() - 1;
    cursor.setPosition(std::min(first, length));
    const QRect from = editor.cursorRect(cursor);
    cursor.setPosition(std::min(std::max(last, first), length));
    const QRect to = editor.cursorRect(cursor);
    QPainter painter(editor.viewport());
    const int right = to.top() == from.top() ? to.left() : editor.viewport()->width() - 6;
    theme::paint_notched_bar(painter, from.left(), std::max(right, from.left() + 6), from.bottom());
}

}  // namespace lacquer
