#include "desktop/code/find_bar.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>

#include "desktop/kit/line_editor.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

LineEditor* field(QWidget* bar, const QString& name, const QString& words) {
    auto* made = new LineEditor(bar);
    made->setObjectName(name);
    made->setPlaceholderText(words);
    made->setAccessibleName(words);
    made->setFont(theme::figures());
    return made;
}

}  // namespace

FindBar::FindBar(QPlainTextEdit& text, QWidget* parent)
    : QWidget(parent),
      text_(text),
      wanted_(field(this, QStringLiteral("find_wanted"), tr("Find"))),
      other_(field(this, QStringLiteral("find_other"), tr("Put in its place"))),
      found_(quiet_label(this)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(theme::margin, 4, theme::margin, 4);
    row->setSpacing(theme::gap);
    row->addWidget(wanted_, 2);
    row->addWidget(found_);
    row->addWidget(other_, 2);
    const auto button = [&](const QString& name, const QString& words, const QString& tip, auto press) {
        auto* made = new QPushButton(words, this);
        made->setObjectName(name);
        made->setToolTip(tip);
        connect(made, &QPushButton::clicked, this, press);
        row->addWidget(made);
    };
    button(QStringLiteral("find_replace"), tr("Replace"), tr("this one, and on to the next"), [this] { replace(); });
    button(QStringLiteral("find_replace_all"), tr("All"), tr("every one of them, as one change"),
           [this] { replace_all(); });
    connect(wanted_, &QLineEdit::textChanged, this, &FindBar::look);
    connect(wanted_, &QLineEdit::returnPressed, this, [this] { next(); });
    connect(other_, &QLineEdit::returnPressed, this, [this] { replace(); });
    connect(wanted_, &LineEditor::dismissed, this, &FindBar::close_bar);
    connect(other_, &LineEditor::dismissed, this, &FindBar::close_bar);
    connect(&text_, &QPlainTextEdit::textChanged, this, [this] {
        if (isVisible()) look();
    });
    hide();
}

void FindBar::open() {
    const QString selected = text_.textCursor().selectedText();
    if (!selected.isEmpty() && !selected.contains(QChar::ParagraphSeparator)) wanted_->setText(selected);
    show();
    look();
    wanted_->setFocus();
    wanted_->selectAll();
}

void FindBar::close_bar() {
    hide();
    text_.setFocus();
}

int FindBar::count() const {
    return wanted_->text().isEmpty() ? 0 : static_cast<int>(text_.toPlainText().count(wanted_->text()));
}

void FindBar::look() {
    const int found = count();
    found_->setText(wanted_->text().isEmpty() ? QString() : tr("%n place(s)", nullptr, found));
}

void FindBar::next(bool backwards) {
    if (wanted_->text().isEmpty()) return open();
    auto flags = QTextDocument::FindFlags(QTextDocument::FindCaseSensitively);
    if (backwards) flags |= QTextDocument::FindBackward;
    if (text_.find(wanted_->text(), flags)) return;
    QTextCursor round = text_.textCursor();
    round.movePosition(backwards ? QTextCursor::End : QTextCursor::Start);
    const QTextCursor found = text_.document()->find(wanted_->text(), round, flags);
    if (found.isNull()) return emit said(tr("'%1' is nowhere in this code").arg(wanted_->text()));
    text_.setTextCursor(found);
    emit said(backwards ? tr("From the end again") : tr("From the beginning again"));
}

void FindBar::replace() {
    QTextCursor cursor = text_.textCursor();
    if (!wanted_->text().isEmpty() && cursor.selectedText() == wanted_->text()) {
        cursor.insertText(other_->text());
        text_.setTextCursor(cursor);
    }
    next();
}

void FindBar::replace_all() {
    const int found = count();
    if (found == 0) return emit said(tr("'%1' is nowhere in this code").arg(wanted_->text()));
    QString text = text_.toPlainText();
    QTextCursor cursor(text_.document());
    cursor.select(QTextCursor::Document);
    cursor.insertText(text.replace(wanted_->text(), other_->text()));
    emit said(tr("Replaced %n", nullptr, found));
}

}  // namespace lacquer
