#include "desktop/stage/gallery.h"

#include <QApplication>
#include <QKeyEvent>
#include <QVBoxLayout>

#include "desktop/drawing/models.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/stage/start_list.h"

namespace lacquer {

namespace {

constexpr int border = 40;  // of the window that stays in sight

}  // namespace

Gallery::Gallery(Models& models, QWidget* window)
    : QFrame(window), field_(new LineEditor(this)), list_(new StartList(models, StartList::Offers::demos, this)) {
    setObjectName(QStringLiteral("gallery"));
    setAccessibleName(tr("Demos"));
    setStyleSheet(QStringLiteral("#gallery { background: %1; border: 1px solid %2; border-radius: %3px; }")
                      .arg(theme::stage_grey.name(), theme::edge.name())
                      .arg(theme::radius));
    field_->setObjectName(QStringLiteral("gallery_field"));
    field_->setPlaceholderText(tr("Which demo? Type what it is about"));
    field_->setAccessibleName(field_->placeholderText());
    list_->setObjectName(QStringLiteral("gallery_list"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(theme::gap);
    column->addWidget(field_);
    column->addWidget(list_, 1);
    connect(field_, &QLineEdit::textChanged, list_, &StartList::set_filter);
    connect(field_, &LineEditor::dismissed, this, &Gallery::leave);
    connect(list_, &StartList::taken, this, &Gallery::leave);
    field_->installEventFilter(this);
    list_->installEventFilter(this);
    hide();
}

void Gallery::open(const QRect& area) {
    before_ = QApplication::focusWidget();
    setGeometry(area.adjusted(border, border, -border, -border));
    field_->clear();
    show();
    raise();
    field_->setFocus();
}

void Gallery::leave() {
    if (!isVisible()) return;
    hide();
    if (before_ != nullptr && before_->isVisible()) before_->setFocus();
}

// From the field down into the pictures; Escape leaves from either.
bool Gallery::eventFilter(QObject* watched, QEvent* event) {
    const bool key_event = event->type() == QEvent::KeyPress || event->type() == QEvent::ShortcutOverride;
    const int key = key_event ? static_cast<QKeyEvent*>(event)->key() : 0;
    if (watched == list_ && key == Qt::Key_Escape) {
        event->accept();
        if (event->type() == QEvent::KeyPress) leave();
        return true;
    }
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        if (key == Qt::Key_Return || key == Qt::Key_Enter) return list_->open_first();
        if (key == Qt::Key_Down) {
            list_->setFocus();
            list_->select_first();
            return true;
        }
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace lacquer
