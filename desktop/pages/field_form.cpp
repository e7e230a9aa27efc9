#include "desktop/pages/field_form.h"

#include <QApplication>
#include <QComboBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <optional>

#include "core/base/text.h"
#include "desktop/kit/span_track.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"

namespace lacquer {

namespace {

// What a line held when it was last taken, as a property of it.
constexpr const char* taken_text = "taken_text";

// The number that a field holds, with or without a unit behind it.
std::optional<double> number_at_the_start(const QString& text) {
    return parse_number(text.trimmed().section(QLatin1Char(' '), 0, 0).toStdString());
}

}  // namespace

FieldForm::FieldForm(QWidget* parent, bool narrow)
    : QWidget(parent), title_(new QLabel(this)), words_(new QLabel(this)), grid_(nullptr) {
    setObjectName(QStringLiteral("field_form"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    title_->setFont(theme::words(theme::title, true));
    words_->setObjectName(QStringLiteral("field_words"));
    auto* done = new QPushButton(tr("Done  Esc"), this);
    done->setObjectName(QStringLiteral("field_form_done"));
    connect(done, &QPushButton::clicked, this, &FieldForm::closed);
    head->addWidget(title_);
    if (narrow) {
        head->addStretch(1);
        head->addWidget(done);
        column->addLayout(head);
        words_->setWordWrap(true);
        words_->setMinimumHeight(2 * QFontMetrics(theme::words()).lineSpacing());
        words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
        column->addWidget(words_);
        first_row_ = 2;
    } else {
        head->addSpacing(12);
        head->addWidget(words_, 1);
        head->addWidget(done);
        column->addLayout(head);
    }
    column->addStretch(1);
}

void FieldForm::show_fields(const QString& title, const std::vector<Field>& fields, Change change) {
    title_->setText(title);
    tell({}, false);
    change_ = std::move(change);
    now_ = nullptr;
    beside_ = nullptr;
    all_ = fields;
    auto* column = static_cast<QVBoxLayout*>(layout());
    if (top_ != nullptr) {
        column->removeWidget(top_);
        top_->hide();
        top_->deleteLater();
        top_ = nullptr;
    }
    build();
}

// The fields of the present group, of those that were given last.
void FieldForm::build() {
    QStringList groups;
    for (const Field& field : all_) {
        if (!field.group.isEmpty() && !groups.contains(field.group)) groups.append(field.group);
    }
    if (!groups.contains(group_)) group_ = groups.value(0);
    std::vector<Field> fields;
    for (const Field& field : all_) {
        if (field.group.isEmpty() || field.group == group_) fields.push_back(field);
    }
    auto* column = static_cast<QVBoxLayout*>(layout());
    const QWidget* const focused = fields_ != nullptr ? fields_->focusWidget() : nullptr;
    const QString focused_name = focused != nullptr && focused->hasFocus() ? focused->objectName() : QString();
    if (fields_ != nullptr) {
        column->removeWidget(fields_);
        fields_->hide();
        fields_->deleteLater();
    }
    fields_ = new QWidget(this);
    grid_ = new QGridLayout(fields_);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setHorizontalSpacing(8);
    grid_->setVerticalSpacing(5);
    grid_->setColumnStretch(1, 1);
    grid_->setColumnMinimumWidth(2, 12);
    tabs_ = nullptr;
    if (groups.size() > 1) add_tabs(groups);
    // In a narrow one, what is long gets the whole width.
    const bool one_column = first_row_ == 2 && std::any_of(fields.begin(), fields.end(), [](const Field& field) {
                                return field.span || (field.choices.isEmpty() && field.value.size() > 14);
                            });
    const int rows = one_column ? static_cast<int>(fields.size()) : static_cast<int>(fields.size() + 1) / 2;
    if (!one_column) grid_->setColumnStretch(4, 1);
    QWidget* first = nullptr;
    for (int i = 0; i < static_cast<int>(fields.size()); ++i) {
        const Field& field = fields[static_cast<std::size_t>(i)];
        auto* label = new QLabel(field.label, fields_);
        QPalette quiet = label->palette();
        quiet.setColor(QPalette::WindowText, theme::quiet);
        label->setPalette(quiet);
        QWidget* input = field.choices.isEmpty() ? line_of(field) : box_of(field);
        input->setObjectName(QStringLiteral("field_") + field.key);
        input->setToolTip(field.hint);
        input->installEventFilter(this);
        label->setBuddy(input);
        label->setObjectName(QStringLiteral("label_") + field.key);
        label->installEventFilter(this);
        if (number_at_the_start(field.value)) label->setCursor(Qt::SizeHorCursor);
        label->setToolTip(field.hint);
        const int column_at = i / rows * 3;
        const int row_at = i % rows + 1;
        grid_->addWidget(label, row_at, column_at);
        grid_->addWidget(field.span ? with_track(field, static_cast<QLineEdit*>(input)) : input, row_at, column_at + 1);
        if (first == nullptr || input->objectName() == focused_name) first = input;
    }
    column->insertWidget(first_row_ + (top_ != nullptr ? 1 : 0), fields_);
    first_ = first;
    focus_first();
}

void FieldForm::add_tabs(const QStringList& groups) {
    auto* tabs = new QHBoxLayout;
    tabs->setSpacing(6);
    for (const QString& group : groups) {
        auto* tab = new QPushButton(group, fields_);
        tab->setObjectName(QStringLiteral("group_") + group);
        tab->setCheckable(true);
        tab->setChecked(group == group_);
        tab->setStyleSheet(
            QStringLiteral("QPushButton:checked { border-bottom: 2px solid %1; }").arg(theme::vermilion.name()));
        connect(tab, &QPushButton::clicked, this, [this, group] {
            group_ = group;
            // The button that was pressed goes with the fields.
            QMetaObject::invokeMethod(
                this, [this] { build(); }, Qt::QueuedConnection);
        });
        tabs->addWidget(tab);
    }
    tabs_ = tabs;
    if (beside_ != nullptr) {
        tabs->addWidget(beside_(fields_), 1);
    } else {
        tabs->addStretch(1);
    }
    grid_->addLayout(tabs, 0, 0, 1, 5);
}

void FieldForm::set_beside(std::function<QWidget*(QWidget* parent)> make) {
    beside_ = std::move(make);
    if (tabs_ == nullptr) return;
    // It takes the room that was left free.
    delete tabs_->takeAt(tabs_->count() - 1);
    tabs_->addWidget(beside_(fields_), 1);
}

QWidget* FieldForm::line_of(const Field& field) {
    auto* line = new QLineEdit(field.value, fields_);
    line->setFont(theme::figures(theme::plain));
    line->setPlaceholderText(field.hint);
    // Of what is too long the beginning shows.
    line->setCursorPosition(0);
    line->setProperty(taken_text, field.value);
    connect(line, &QLineEdit::editingFinished, this, [this, line, key = field.key] { take(line, key); });
    return line;
}

QWidget* FieldForm::box_of(const Field& field) {
    auto* box = new QComboBox(fields_);
    box->addItems(field.choices);
    box->setEditable(field.typed_too);
    box->setInsertPolicy(QComboBox::NoInsert);
    box->setCurrentText(field.value);
    connect(box, &QComboBox::textActivated, this, [this, box, key = field.key](const QString& text) {
        if (box->isEditable()) box->lineEdit()->setProperty(taken_text, text);
        apply(key, text);
    });
    if (field.typed_too) {
        box->lineEdit()->setProperty(taken_text, field.value);
        connect(box->lineEdit(), &QLineEdit::editingFinished, this,
                [this, box, key = field.key] { take(box->lineEdit(), key); });
    }
    return box;
}

// The line tells the track's numbers, and the track those of the line.
QWidget* FieldForm::with_track(const Field& field, QLineEdit* line) {
    auto* both = new QWidget(fields_);
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    auto* track = new SpanTrack(field.span->least, field.span->most, both);
    track->setObjectName(QStringLiteral("span_") + field.key);
    track->set_values(field.span->from, field.span->to);
    line->setMinimumWidth(QFontMetrics(line->font()).horizontalAdvance(QStringLiteral("0.25 to 0.75 /s²")) + 16);
    row->addWidget(line, 1);
    row->addWidget(track, 1);
    const double step = (field.span->most - field.span->least) / 1000;
    const double tidy_to = std::pow(10.0, std::floor(std::log10(std::max(step, 1e-6))));
    const auto unit = field.value.section(QLatin1Char(' '), field.value.contains(QStringLiteral(" to ")) ? 3 : 1);
    connect(track, &SpanTrack::dragging, this, &FieldForm::dragging);
    connect(track, &SpanTrack::moved, this, [this, line, key = field.key, tidy_to, unit](double from, double to) {
        const auto tidy = [&](double number) {
            return QString::fromStdString(plain_number(std::round(number / tidy_to) * tidy_to, 6));
        };
        const QString numbers = tidy(from) == tidy(to) ? tidy(from) : tr("%1 to %2").arg(tidy(from), tidy(to));
        line->setText(unit.isEmpty() ? numbers : numbers + QLatin1Char(' ') + unit);
        take(line, key);
    });
    connect(line, &QLineEdit::editingFinished, track, [line, track] {
        const QStringList words = line->text().split(QLatin1Char(' '));
        const auto from = parse_number(words.value(0).toStdString());
        const auto to = parse_number(words.value(1) == QStringLiteral("to") ? words.value(2).toStdString()
                                                                            : words.value(0).toStdString());
        if (from && to) track->set_values(*from, *to);
    });
    return both;
}

void FieldForm::refresh() {
    if (now_ == nullptr || fields_ == nullptr || drag_step_ > 0 || !isVisible()) return;
    std::vector<Field> now = now_();
    // What the page was about is gone.
    if (now.empty()) return;
    const bool are_others = !std::equal(now.begin(), now.end(), all_.begin(), all_.end(),
                                        [](const Field& a, const Field& b) { return a.key == b.key; });
    all_ = std::move(now);
    if (are_others) {
        // Whoever changed them may be one of the fields that go.
        QMetaObject::invokeMethod(
            this, [this] { build(); }, Qt::QueuedConnection);
        return;
    }
    for (const Field& field : all_) {
        const QString name = QStringLiteral("field_") + field.key;
        if (auto* line = fields_->findChild<QLineEdit*>(name)) {
            const bool is_typed = line->text() != line->property(taken_text).toString();
            if (!is_typed && line->text() != field.value) {
                line->setText(field.value);
                line->setProperty(taken_text, field.value);
            }
        } else if (auto* box = fields_->findChild<QComboBox*>(name); box != nullptr && !box->isEditable()) {
            box->setCurrentText(field.value);
        }
        auto* track = fields_->findChild<SpanTrack*>(QStringLiteral("span_") + field.key);
        if (track != nullptr && field.span && !track->is_held()) track->set_values(field.span->from, field.span->to);
    }
}

void FieldForm::focus_first() {
    if (first_ == nullptr) return;
    first_->setFocus();
    // What is typed takes the place of what stands there.
    if (auto* line = qobject_cast<QLineEdit*>(first_)) line->selectAll();
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
    static_cast<QVBoxLayout*>(layout())->insertWidget(first_row_, top);
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

// A number is dragged by its label: Shift finer, Ctrl coarser.
bool FieldForm::drag_label(QObject* label, QEvent* event) {
    const bool mouse = event->type() == QEvent::MouseButtonPress || event->type() == QEvent::MouseMove ||
                       event->type() == QEvent::MouseButtonRelease;
    const QString key = label->objectName().section(QLatin1Char('_'), 1);
    auto* line = mouse ? fields_->findChild<QLineEdit*>(QStringLiteral("field_") + key) : nullptr;
    if (line == nullptr) return false;
    const auto* hand = static_cast<QMouseEvent*>(event);
    const int x = static_cast<int>(hand->globalPosition().x());
    if (event->type() == QEvent::MouseButtonPress) {
        const auto number = number_at_the_start(line->text());
        if (!number || hand->button() != Qt::LeftButton) return false;
        dragged_ = *number;
        drag_x_ = x;
        // As fine as the number itself is: 0.12 goes by hundredths, 14 by ones.
        drag_step_ = std::pow(10.0, std::floor(std::log10(std::max(std::fabs(*number), 0.1)))) / 20;
        drag_line_ = line;
        drag_text_ = line->text();
        emit dragging(true);
        return true;
    }
    if (drag_step_ <= 0) return false;
    if (event->type() == QEvent::MouseButtonRelease) {
        drag_step_ = 0;
        emit dragging(false);
        return true;
    }
    dragged_ += (x - drag_x_) * drag_step_ * pace_of(hand->modifiers());
    drag_x_ = x;
    const QString unit = line->text().section(QLatin1Char(' '), 1);
    const double tidy = std::round(dragged_ / drag_step_ * 10) * drag_step_ / 10;
    line->setText(QString::fromStdString(plain_number(tidy, 4)) +
                  (unit.isEmpty() ? QString() : QLatin1Char(' ') + unit));
    take(line, key);
    return true;
}

// What stands in a line counts from now on, unless it did already.
void FieldForm::take(QLineEdit* line, const QString& key) {
    if (line->text() == line->property(taken_text).toString()) return;
    line->setProperty(taken_text, line->text());
    apply(key, line->text());
}

bool FieldForm::eventFilter(QObject* watched, QEvent* event) {
    if (qobject_cast<QLabel*>(watched) != nullptr) return drag_label(watched, event);
    // A complaint stays until something is right again.
    if (event->type() == QEvent::FocusIn && !wrong_) tell(static_cast<QWidget*>(watched)->toolTip(), false);
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept();
        return true;
    }
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
    if (drag_step_ > 0 && drag_line_ != nullptr) {
        // Called off, and not left.
        drag_step_ = 0;
        drag_line_->setText(drag_text_);
        take(drag_line_, drag_line_->objectName().section(QLatin1Char('_'), 1));
        emit dragging(false);
        return;
    }
    // What was only half typed is not meant.
    if (auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget()); line != nullptr && isAncestorOf(line))
        line->setText(line->property(taken_text).toString());
    setFocus();
    emit closed();
}

}  // namespace lacquer
