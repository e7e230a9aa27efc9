#include "desktop/code/code_text.h"

#include <QKeyEvent>
#include <QMimeData>
#include <QPainter>
#include <QTextBlock>
#include <QTextEdit>
#include <algorithm>

#include "desktop/code/code_lines.h"
#include "desktop/formulas/fault_mark.h"
#include "desktop/kit/theme.h"

namespace lacquer {

class CodeText::Numbers : public QWidget {
public:
    explicit Numbers(CodeText& text) : QWidget(&text), text_(text) {}

protected:
    void paintEvent(QPaintEvent*) override { text_.paint_numbers(*this); }

private:
    CodeText& text_;
};

CodeText::CodeText(QWidget* parent) : QPlainTextEdit(parent), numbers_(new Numbers(*this)) {
    setObjectName(QStringLiteral("code_text"));
    setAccessibleName(tr("Code"));
    setFont(theme::figures(theme::plain));
    setFrameShape(QFrame::NoFrame);
    setLineWrapMode(QPlainTextEdit::NoWrap);
    setTabStopDistance(QFontMetricsF(font()).horizontalAdvance(QLatin1Char(' ')) * code_indent);
    document()->setDocumentMargin(6);
    connect(this, &QPlainTextEdit::blockCountChanged, this, &CodeText::place_numbers);
    connect(this, &QPlainTextEdit::updateRequest, numbers_, qOverload<>(&QWidget::update));
    connect(this, &QPlainTextEdit::cursorPositionChanged, this, &CodeText::mark_brackets);
    connect(this, &QPlainTextEdit::textChanged, this, &CodeText::mark_brackets);
    place_numbers();
}

void CodeText::set_code(const QString& code) {
    if (code == toPlainText()) return;
    const int at = textCursor().position();
    setPlainText(code);
    QTextCursor cursor = textCursor();
    cursor.setPosition(std::min(at, document()->characterCount() - 1));
    setTextCursor(cursor);
}

void CodeText::set_fault(std::optional<std::pair<int, int>> fault) {
    fault_ = fault;
    viewport()->update();
    numbers_->update();
}

template <class Change>
void CodeText::change_lines(Change change) {
    QTextCursor cursor = textCursor();
    const bool had_selection = cursor.hasSelection();
    const int begin = cursor.selectionStart();
    int end = cursor.selectionEnd();
    // A selection that ends before a line's first character doesn't mean that line.
    if (had_selection && document()->findBlock(end).position() == end) --end;
    cursor.setPosition(document()->findBlock(begin).position());
    const QTextBlock last = document()->findBlock(end);
    cursor.setPosition(last.position() + last.length() - 1, QTextCursor::KeepAnchor);
    const int first = cursor.selectionStart();
    const int behind = document()->characterCount() - 1 - textCursor().position();
    const QString text = cursor.selectedText();
    const QString changed = change(text.split(QChar::ParagraphSeparator)).join(QChar::ParagraphSeparator);
    if (changed == text) return;
    cursor.insertText(changed);
    if (had_selection) {
        cursor.setPosition(first);
        cursor.setPosition(first + static_cast<int>(changed.size()), QTextCursor::KeepAnchor);
    } else {
        cursor.setPosition(
            std::clamp(document()->characterCount() - 1 - behind, first, first + static_cast<int>(changed.size())));
    }
    setTextCursor(cursor);
}

void CodeText::turn_remarks() {
    change_lines([](QStringList lines) { return with_remarks_turned(std::move(lines)); });
}

void CodeText::move_in(int steps) {
    change_lines([steps](QStringList lines) { return moved_in(std::move(lines), steps); });
}

void CodeText::go_to(int at, int length) {
    QTextCursor cursor = textCursor();
    const int end = document()->characterCount() - 1;
    cursor.setPosition(std::clamp(at, 0, end));
    cursor.setPosition(std::clamp(at + length, 0, end), QTextCursor::KeepAnchor);
    setTextCursor(cursor);
    centerCursor();
}

std::optional<std::pair<int, int>> CodeText::brackets() const {
    const QString text = toPlainText();
    const int at = textCursor().position();
    // The one behind the mark goes before the one in front of it.
    for (const int place : {at, at - 1}) {
        if (const auto other = matching_bracket(text, place)) return std::pair(place, *other);
    }
    return std::nullopt;
}

void CodeText::mark_brackets() {
    QList<QTextEdit::ExtraSelection> marks;
    QTextEdit::ExtraSelection line;
    line.format.setBackground(theme::open_row);
    line.format.setProperty(QTextFormat::FullWidthSelection, true);
    line.cursor = textCursor();
    line.cursor.clearSelection();
    marks.append(line);
    if (const auto pair = brackets()) {
        for (const int at : {pair->first, pair->second}) {
            QTextEdit::ExtraSelection mark;
            mark.format.setBackground(theme::border);
            mark.format.setForeground(theme::gold);
            mark.cursor = textCursor();
            mark.cursor.setPosition(at);
            mark.cursor.setPosition(at + 1, QTextCursor::KeepAnchor);
            marks.append(mark);
        }
    }
    setExtraSelections(marks);
}

// Blanks as far as the line above, a step further in an open bracket; between two brackets a line for each.
void CodeText::new_line() {
    QTextCursor cursor = textCursor();
    const QString line = cursor.block().text();
    const int column = cursor.selectionStart() - document()->findBlock(cursor.selectionStart()).position();
    const QString before = document()->findBlock(cursor.selectionStart()).text().left(column);
    const bool between =
        !cursor.hasSelection() && before.trimmed().endsWith(u'{') && line.mid(column).trimmed().startsWith(u'}');
    const QString blanks = blanks_after(before);
    cursor.beginEditBlock();
    cursor.insertText(QStringLiteral("\n") + blanks);
    if (between) {
        const int here = cursor.position();
        cursor.insertText(QStringLiteral("\n") + blanks.chopped(code_indent));
        cursor.setPosition(here);
    }
    cursor.endEditBlock();
    setTextCursor(cursor);
    ensureCursorVisible();
}

// A } that begins a line stands a step further out than what it closes.
void CodeText::close_bracket() {
    QTextCursor cursor = textCursor();
    const QString before = cursor.block().text().left(cursor.positionInBlock());
    if (!cursor.hasSelection() && !before.isEmpty() && before.trimmed().isEmpty()) {
        const int out = static_cast<int>(std::min<qsizetype>(before.size(), code_indent));
        cursor.movePosition(QTextCursor::Left, QTextCursor::KeepAnchor, out);
    }
    cursor.insertText(QStringLiteral("}"));
    setTextCursor(cursor);
}

bool CodeText::event(QEvent* event) {
    // Escape and Tab belong to the code while it is typed, whatever else they are shortcuts for.
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Escape || key == Qt::Key_Tab || key == Qt::Key_Backtab) {
            event->accept();
            return true;
        }
    }
    return QPlainTextEdit::event(event);
}

void CodeText::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Escape:
            emit dismissed();
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return new_line();
        case Qt::Key_Backtab:
            return move_in(-1);
        case Qt::Key_Tab:
            if (textCursor().hasSelection()) return move_in(1);
            return insertPlainText(
                QString(code_indent - textCursor().positionInBlock() % code_indent, QLatin1Char(' ')));
        case Qt::Key_BraceRight:
            return close_bracket();
        default:
            return QPlainTextEdit::keyPressEvent(event);
    }
}

void CodeText::insertFromMimeData(const QMimeData* source) {
    // Qt looks at the first of its formats without asking whether there is one.
    if (source != nullptr && !source->formats().isEmpty()) QPlainTextEdit::insertFromMimeData(source);
}

void CodeText::paintEvent(QPaintEvent* event) {
    QPlainTextEdit::paintEvent(event);
    if (fault_) paint_fault_mark(*this, fault_->first, fault_->second);
}

void CodeText::resizeEvent(QResizeEvent* event) {
    QPlainTextEdit::resizeEvent(event);
    place_numbers();
}

// Numbers of lines.

int CodeText::numbers_width() const {
    const int digits = std::max<int>(2, static_cast<int>(QString::number(blockCount()).size()));
    return QFontMetrics(theme::figures()).horizontalAdvance(QLatin1Char('0')) * digits + 22;
}

void CodeText::place_numbers() {
    setViewportMargins(numbers_width(), 0, 0, 0);
    const QRect room = contentsRect();
    numbers_->setGeometry(QRect(room.left(), room.top(), numbers_width(), room.height()));
}

QRect CodeText::number_area(int line) const {
    const QTextBlock block = document()->findBlockByNumber(line - 1);
    const QRectF area = blockBoundingGeometry(block).translated(contentOffset());
    return QRect(0, static_cast<int>(area.top()), numbers_width(), fontMetrics().height());
}

void CodeText::paint_numbers(QWidget& onto) const {
    QPainter painter(&onto);
    painter.fillRect(onto.rect(), theme::heading);
    const int present = textCursor().blockNumber();
    const int faulty = fault_ ? document()->findBlock(fault_->first).blockNumber() : -1;
    for (QTextBlock block = firstVisibleBlock(); block.isValid(); block = block.next()) {
        const QRect area = number_area(block.blockNumber() + 1);
        if (area.top() > onto.height()) break;
        const bool is_faulty = block.blockNumber() == faulty;
        const QColor colour = is_faulty                        ? theme::vermilion_text
                              : block.blockNumber() == present ? theme::text
                                                               : theme::disabled;
        theme::paint_text(painter, area.adjusted(0, 0, -12, 0), QString::number(block.blockNumber() + 1),
                          theme::figures(), colour, Qt::AlignRight);
        if (is_faulty)
            painter.fillRect(QRect(area.right() - 6, area.top() + 2, 3, area.height() - 4), theme::vermilion);
    }
}

}  // namespace lacquer
