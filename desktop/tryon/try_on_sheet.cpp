#include "desktop/tryon/try_on_sheet.h"

#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/tryon/try_on_grid.h"

namespace lacquer {

TryOnSheet::TryOnSheet(Models& models, QWidget* parent)
    : QFrame(parent),
      document_(models.document),
      drawing_(models.drawing),
      field_(new LineEditor(this)),
      grid_(new TryOnGrid(*this)) {
    setObjectName(QStringLiteral("try_on_sheet"));
    setAccessibleName(tr("Try-on"));
    setStyleSheet(QStringLiteral("#try_on_sheet { background: %1; border-right: 1px solid %2; }")
                      .arg(theme::panel.name(), theme::hairline.name()));
    field_->setObjectName(QStringLiteral("try_on_field"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 8, 1, 0);
    column->setSpacing(6);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(10, 0, 10, 0);
    row->addWidget(field_, 1);
    column->addLayout(row);
    column->addWidget(grid_, 1);
    connect(field_, &QLineEdit::textChanged, this, &TryOnSheet::narrow);
    connect(field_, &LineEditor::dismissed, this, &TryOnSheet::leave);
    connect(&drawing_, &Drawing::candidates_changed, grid_->viewport(), qOverload<>(&QWidget::update));
    field_->installEventFilter(this);
    hide();
}

QWidget* TryOnSheet::grid_viewport() const { return grid_->viewport(); }

void TryOnSheet::open(const QRect& area, TryOnUse use) {
    use_ = use;
    const std::string step = document_.selected();
    if (use == TryOnUse::replace && find_step(document_.finish(), step) == nullptr) return;
    all_ = try_on(document_.checked(), step, use);
    // What fits first, within each group.
    std::stable_sort(all_.begin(), all_.end(), [](const TryOn& a, const TryOn& b) {
        return std::tuple(std::string_view(a.group), !a.fits) < std::tuple(std::string_view(b.group), !b.fits);
    });
    std::vector<std::string> formulas;
    for (const TryOn& tried : all_) formulas.push_back(tried.formula);
    setGeometry(area);
    {
        const QSignalBlocker quiet(field_);
        field_->clear();
    }
    const QString of = step.empty() ? tr("the picture") : qs(shown_name(step));
    field_->setPlaceholderText(use == TryOnUse::replace
                                   ? tr("In place of what makes %1 - type what it should do").arg(of)
                                   : tr("On %1 - type what it should do").arg(of));
    open_ = true;
    show();
    raise();
    narrow();
    drawing_.ask_candidates(step, use, formulas);
    field_->setFocus();
}

void TryOnSheet::narrow() {
    const QStringList words = field_->text().simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    shown_.clear();
    index_.clear();
    for (std::size_t i = 0; i < all_.size(); ++i) {
        const QString text = qs(all_[i].title + " " + all_[i].operation + " " + all_[i].group + " " + all_[i].about);
        const bool holds = std::all_of(words.begin(), words.end(),
                                       [&](const QString& word) { return text.contains(word, Qt::CaseInsensitive); });
        if (!holds) continue;
        shown_.push_back(all_[i]);
        index_.push_back(i);
    }
    // The one that is called so is the one that is meant.
    present_ = 0;
    for (std::size_t i = 0; i < shown_.size() && !words.isEmpty(); ++i) {
        if (qs(shown_[i].title).startsWith(words.join(QLatin1Char(' ')), Qt::CaseInsensitive)) {
            present_ = static_cast<int>(i);
            break;
        }
    }
    grid_->rebuild();
    grid_->reveal(present_);
    show_present();
}

QImage TryOnSheet::picture_of(int candidate) const {
    const auto found = drawing_.candidates().find(candidate_name(index_[static_cast<std::size_t>(candidate)]));
    return found == drawing_.candidates().end() ? QImage() : found->second.image;
}

QRect TryOnSheet::candidate_area(int candidate) const { return grid_->area_of(candidate); }

void TryOnSheet::go(int to) {
    if (to < 0 || to >= static_cast<int>(shown_.size())) return;
    present_ = to;
    grid_->reveal(to);
    show_present();
}

void TryOnSheet::show_present() {
    if (!open_ || present_ >= static_cast<int>(shown_.size())) return;
    const TryOn& tried = shown_[static_cast<std::size_t>(present_)];
    if (tried.fits) drawing_.show_candidate(tried.formula, use_, tried.title);
    document_.say(tried.fits ? qs(tried.title + ": " + tried.about) : qs(tried.title + ": " + tried.why_not));
}

void TryOnSheet::take() {
    if (!open_ || present_ >= static_cast<int>(shown_.size())) return;
    const TryOn tried = shown_[static_cast<std::size_t>(present_)];
    if (!tried.fits) return document_.say(qs(tried.why_not));
    close_sheet();
    auto made = take_try_on(document_.finish(), document_.selected(), tried, use_);
    if (!made) return document_.say(fault_words(made.fault()));
    document_.edit(std::move(made->first),
                   use_ == TryOnUse::replace
                       ? tr("%1 is made by %2 now").arg(qs(shown_name(made->second)), qs(tried.title))
                       : tr("Added %1").arg(qs(tried.title)));
    document_.select(made->second);
    emit taken(qs(made->second));
}

void TryOnSheet::leave() {
    if (!open_) return;
    close_sheet();
    document_.say(tr("Left as it was"));
    emit taken({});
}

void TryOnSheet::close_sheet() {
    open_ = false;
    hide();
    drawing_.put_candidate_away();
}

bool TryOnSheet::eventFilter(QObject* watched, QEvent* event) {
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        switch (static_cast<QKeyEvent*>(event)->key()) {
            case Qt::Key_Up:
                go(grid_->next_row(present_, -1));
                return true;
            case Qt::Key_Down:
                go(grid_->next_row(present_, 1));
                return true;
            case Qt::Key_Left:
                go(present_ - 1);
                return true;
            case Qt::Key_Right:
                go(present_ + 1);
                return true;
            case Qt::Key_Return:
            case Qt::Key_Enter:
                take();
                return true;
            default:
                break;
        }
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace lacquer
