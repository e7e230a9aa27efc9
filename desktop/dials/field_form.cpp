#include "desktop/dials/field_form.h"

#include <QComboBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/theme/theme.h"

namespace lacquer {

FieldForm::FieldForm(QWidget* parent)
    : QWidget(parent), title_(new QLabel(this)), words_(new QLabel(this)), grid_(nullptr) {
    setObjectName(QStringLiteral("field_form"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    title_->setFont(theme::words(13, true));
    words_->setObjectName(QStringLiteral("field_words"));
    auto* done = new QPushButton(tr("Done  Esc"), this);
    done->setObjectName(QStringLiteral("field_form_done"));
    connect(done, &QPushButton::clicked, this, &FieldForm::closed);
    head->addWidget(title_);
    head->addSpacing(12);
    head->addWidget(words_, 1);
    head->addWidget(done);
    column->addLayout(head);
    column->addStretch(1);
}

void FieldForm::show_fields(const QString& title, const std::vector<Field>& fields, Change change) {
    title_->setText(title);
    tell({}, false);
    change_ = std::move(change);
    auto* column = static_cast<QVBoxLayout*>(layout());
    const QWidget* const focused = fields_ != nullptr ? fields_->focusWidget() : nullptr;
    const QString focused_name = focused != nullptr && focused->hasFocus() ? focused->objectName() : QString();
    if (fields_ != nullptr) {
        column->removeWidget(fields_);
        fields_->hide();
        fields_->deleteLater();
    }
    if (top_ != nullptr) {
        column->removeWidget(top_);
        top_->hide();
        top_->deleteLater();
        top_ = nullptr;
    }
    fields_ = new QWidget(this);
    grid_ = new QGridLayout(fields_);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setHorizontalSpacing(8);
    grid_->setVerticalSpacing(5);
    grid_->setColumnStretch(1, 1);
    grid_->setColumnStretch(4, 1);
    grid_->setColumnMinimumWidth(2, 12);
    const int rows = static_cast<int>(fields.size() + 1) / 2;
    QWidget* first = nullptr;
    for (int i = 0; i < static_cast<int>(fields.size()); ++i) {
        const Field& field = fields[static_cast<std::size_t>(i)];
        auto* label = new QLabel(field.label, fields_);
        QPalette quiet = label->palette();
        quiet.setColor(QPalette::WindowText, theme::quiet);
        label->setPalette(quiet);
        QWidget* input = nullptr;
        if (field.choices.isEmpty()) {
            auto* line = new QLineEdit(field.value, fields_);
            line->setFont(theme::figures(12));
            line->setPlaceholderText(field.hint);
            // Of what is too long the beginning shows.
            line->setCursorPosition(0);
            connect(line, &QLineEdit::editingFinished, this,
                    [this, line, key = field.key, before = field.value]() mutable {
                        if (line->text() == before) return;
                        before = line->text();
                        apply(key, before);
                    });
            input = line;
        } else {
            auto* box = new QComboBox(fields_);
            box->addItems(field.choices);
            box->setCurrentText(field.value);
            connect(box, &QComboBox::textActivated, this,
                    [this, key = field.key](const QString& text) { apply(key, text); });
            input = box;
        }
        input->setObjectName(QStringLiteral("field_") + field.key);
        input->setToolTip(field.hint);
        input->installEventFilter(this);
        label->setBuddy(input);
        label->setToolTip(field.hint);
        const int column_at = i / rows * 3;
        grid_->addWidget(label, i % rows, column_at);
        grid_->addWidget(input, i % rows, column_at + 1);
        if (first == nullptr || input->objectName() == focused_name) first = input;
    }
    column->insertWidget(1, fields_);
    if (first == nullptr) return;
    first->setFocus();
    // What is typed takes the place of what stands there.
    if (auto* line = qobject_cast<QLineEdit*>(first)) line->selectAll();
}

void FieldForm::set_choices(const QString& key, const QStringList& choices, const QString& now) {
    auto* box = fields_ == nullptr ? nullptr : fields_->findChild<QComboBox*>(QStringLiteral("field_") + key);
    if (box == nullptr) return;
    box->clear();
    box->addItems(choices);
    box->setCurrentText(now);
}

void FieldForm::set_top(QWidget* top) {
    top_ = top;
    static_cast<QVBoxLayout*>(layout())->insertWidget(1, top);
}

void FieldForm::apply(const QString& key, const QString& value) {
    const QString wrong = change_(key, value);
    const QWidget* field = fields_->focusWidget();
    tell(wrong.isEmpty() && field != nullptr ? field->toolTip() : wrong, !wrong.isEmpty());
}

void FieldForm::tell(const QString& words, bool wrong) {
    wrong_ = wrong;
    QPalette palette = words_->palette();
    palette.setColor(QPalette::WindowText, wrong ? theme::vermilion_text : theme::quiet);
    words_->setPalette(palette);
    words_->setText(words);
}

bool FieldForm::eventFilter(QObject* watched, QEvent* event) {
    // A complaint stays until something is right again.
    if (event->type() == QEvent::FocusIn && !wrong_) tell(static_cast<QWidget*>(watched)->toolTip(), false);
    if (event->type() == QEvent::ShortcutOverride && qobject_cast<QComboBox*>(watched) != nullptr) {
        const QString typed = static_cast<QKeyEvent*>(event)->text();
        if (!typed.isEmpty() && typed[0].isLetterOrNumber()) {
            event->accept();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

void FieldForm::keyPressEvent(QKeyEvent* event) {
    if (event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
    setFocus();
    emit closed();
}

}  // namespace lacquer
