#include "desktop/kit/chooser.h"

#include <QApplication>
#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"

namespace lacquer {

Chooser::Chooser(QWidget* window) : QFrame(window), field_(new LineEditor(this)), list_(new ChoiceList(this)) {
    setObjectName(QStringLiteral("chooser"));
    setFrameShape(QFrame::NoFrame);
    setStyleSheet(QStringLiteral("#chooser { background: %1; border: 1px solid %2; border-radius: 3px; }")
                      .arg(theme::panel.name(), theme::edge.name()));
    field_->setObjectName(QStringLiteral("chooser_field"));
    list_->setObjectName(QStringLiteral("chooser_list"));
    list_->setFocusPolicy(Qt::NoFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(6, 6, 6, 6);
    column->setSpacing(4);
    column->addWidget(field_);
    column->addWidget(list_, 1);
    connect(field_, &QLineEdit::textChanged, this, &Chooser::narrow);
    connect(field_, &LineEditor::dismissed, this, &Chooser::leave);
    connect(list_, &ChoiceList::taken, this, &Chooser::take);
    connect(list_, &ChoiceList::moved, this, [this](int row) {
        if (open_ && offer_.moved) offer_.moved(offered(row));
    });
    field_->installEventFilter(this);
    hide();
}

void Chooser::open(QPoint at, Offer offer) {
    if (open_) leave();
    offer_ = std::move(offer);
    before_ = QApplication::focusWidget();
    list_->set_pictures(offer_.picture ? [this](int row) { return offer_.picture(offered(row)); }
                                       : std::function<QImage(int)>());
    field_->setAccessibleName(offer_.title);
    field_->setPlaceholderText(offer_.title);
    {
        const QSignalBlocker quiet(field_);
        field_->clear();
    }
    narrow();
    const int height = wanted_height();
    const int x = std::clamp(at.x(), 4, std::max(4, parentWidget()->width() - offer_.width - 4));
    const int y = std::clamp(at.y(), 4, std::max(4, parentWidget()->height() - height - 4));
    setGeometry(x, y, offer_.width, height);
    show();
    raise();
    open_ = true;
    field_->setFocus();
    if (list_->present() >= 0 && offer_.moved) offer_.moved(offered(list_->present()));
}

int Chooser::wanted_height() const { return std::min(parentWidget()->height() - 24, 44 + list_->sizeHint().height()); }

void Chooser::narrow() {
    const QStringList words = field_->text().simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    std::vector<Choice> choices;
    shown_.clear();
    std::vector<int> order;
    for (int i = 0; i < static_cast<int>(offer_.choices.size()); ++i) {
        const Choice& choice = offer_.choices[static_cast<std::size_t>(i)];
        const QString all = choice.name + QLatin1Char(' ') + choice.words;
        const bool holds = std::all_of(words.begin(), words.end(),
                                       [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
        if (choice.heading ? words.isEmpty() : holds) order.push_back(i);
    }
    // What is called so comes before what only speaks of it.
    if (!words.isEmpty()) {
        std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
            const auto rank = [&](int i) {
                const QString& name = offer_.choices[static_cast<std::size_t>(i)].name;
                if (name.startsWith(words.first(), Qt::CaseInsensitive)) return 0;
                return name.contains(words.first(), Qt::CaseInsensitive) ? 1 : 2;
            };
            return rank(a) < rank(b);
        });
    }
    for (const int i : order) {
        shown_.push_back(i);
        choices.push_back(offer_.choices[static_cast<std::size_t>(i)]);
    }
    list_->set_choices(std::move(choices));
    if (open_) resize(offer_.width, wanted_height());
    if (open_ && list_->present() >= 0 && offer_.moved) offer_.moved(offered(list_->present()));
}

void Chooser::take(int row) {
    if (!open_) return;
    const int index = offered(row);
    const auto taken = offer_.taken;
    close_chooser();
    if (taken) taken(index);
}

void Chooser::leave() {
    if (!open_) return;
    const auto left = offer_.left;
    close_chooser();
    if (left) left();
}

void Chooser::close_chooser() {
    if (!open_) return;
    open_ = false;
    const bool had_focus = field_->hasFocus();
    hide();
    if (had_focus && before_ != nullptr && before_->isVisible()) before_->setFocus();
}

bool Chooser::eventFilter(QObject* watched, QEvent* event) {
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool enter = key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter;
        if (enter && list_->present() < 0 && offer_.typed) {
            const QString text = field_->text();
            const auto typed = offer_.typed;
            close_chooser();
            typed(text);
            return true;
        }
        if (list_->take_key(key->key())) return true;
    }
    if (watched == field_ && event->type() == QEvent::FocusOut && open_) {
        const auto reason = static_cast<QFocusEvent*>(event)->reason();
        if (reason != Qt::PopupFocusReason && reason != Qt::ActiveWindowFocusReason) leave();
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace lacquer
