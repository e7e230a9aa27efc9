#include "desktop/shell/key_editor.h"

#include <QApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>

#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr QSize editor_size{440, 120};
constexpr int from_the_top = 60;

bool is_modifier(int key) {
    return key == Qt::Key_Shift || key == Qt::Key_Control || key == Qt::Key_Alt || key == Qt::Key_Meta ||
           key == Qt::Key_AltGr || key == Qt::Key_unknown || key == 0;
}

}  // namespace

KeyEditor::KeyEditor(QWidget* window) : QFrame(window), label_(new QLabel(this)) {
    setObjectName(QStringLiteral("key_editor"));
    setAccessibleName(tr("Key"));
    setFocusPolicy(Qt::StrongFocus);
    setStyleSheet(QStringLiteral("#key_editor { background: %1; border: 1px solid %2; border-radius: %3px; }")
                      .arg(theme::panel.name(), theme::edge.name())
                      .arg(theme::radius));
    label_->setTextFormat(Qt::RichText);
    label_->setWordWrap(true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::gap, theme::margin, theme::gap);
    column->addWidget(label_);
    hide();
}

QString KeyEditor::words() const { return label_->text(); }

void KeyEditor::open(Offer offer) {
    offer_ = std::move(offer);
    key_ = offer_.now;
    before_ = QApplication::focusWidget();
    setGeometry(QRect(QPoint((parentWidget()->width() - editor_size.width()) / 2, from_the_top), editor_size));
    refresh();
    show();
    raise();
    setFocus();
}

void KeyEditor::refresh() {
    const QString key = key_.isEmpty() ? tr("none") : key_.toString(QKeySequence::NativeText);
    const QString told = offer_.told ? offer_.told(key_) : QString();
    label_->setText(tr("<b>%1</b><p>Key: <b style='color:%2'>%3</b> %4</p><p style='color:%5'>Press another key. Enter "
                       "keeps it, Backspace removes it, Escape leaves all as it was.</p>")
                        .arg(offer_.action.toHtmlEscaped(), theme::gold.name(), key.toHtmlEscaped(),
                             told.toHtmlEscaped(), theme::quiet.name()));
}

// Every key is meant for this while it is open, whatever else it is a shortcut for.
bool KeyEditor::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        event->accept();
        return true;
    }
    if (event->type() == QEvent::KeyPress) {
        // Tab too, which would go to the next widget.
        keyPressEvent(static_cast<QKeyEvent*>(event));
        return true;
    }
    return QFrame::event(event);
}

void KeyEditor::keyPressEvent(QKeyEvent* event) {
    event->accept();
    const int key = event->key();
    if (is_modifier(key)) return;
    const bool plain = event->modifiers() == Qt::NoModifier;
    if (plain && key == Qt::Key_Escape) return close_editor();
    if (plain && (key == Qt::Key_Return || key == Qt::Key_Enter)) {
        const auto taken = offer_.taken;
        const QKeySequence chosen = key_;
        close_editor();
        if (taken) taken(chosen);
        return;
    }
    key_ = plain && key == Qt::Key_Backspace ? QKeySequence() : QKeySequence(event->keyCombination());
    refresh();
}

void KeyEditor::focusOutEvent(QFocusEvent*) { hide(); }

void KeyEditor::close_editor() {
    hide();
    if (before_ != nullptr && before_->isVisible()) before_->setFocus();
}

}  // namespace lacquer
