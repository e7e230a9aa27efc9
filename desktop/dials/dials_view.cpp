#include "desktop/dials/dials_view.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/dial_text.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"
#include "desktop/playing/playing.h"

namespace lacquer {

namespace {

using theme::margin;
constexpr int card_width = 252;
constexpr int card_height = 100;
constexpr int row_height = 28;
constexpr int trace_samples = 200;

// The dials that reach a step, by way of any others.
std::set<std::string, std::less<>> dials_reaching(const CheckedFinish& checked, const std::string& step) {
    std::set<std::string, std::less<>> seen;
    std::set<std::string, std::less<>> dials;
    std::vector<std::string> todo{step};
    while (!todo.empty()) {
        const std::string name = todo.back();
        todo.pop_back();
        if (!seen.insert(name).second) continue;
        const CheckedStep* found = find_step(checked, name);
        const Typed* typed = found != nullptr && found->typed ? &*found->typed : nullptr;
        for (const CheckedDial& dial : checked.dials) {
            if (dial.name != name) continue;
            dials.insert(name);
            if (dial.formula) typed = &*dial.formula;
        }
        if (typed == nullptr) continue;
        for (std::string& used : names_used(*typed)) todo.push_back(std::move(used));
    }
    return dials;
}

std::vector<std::string> dial_names(const Finish& finish) {
    std::vector<std::string> names;
    for (const Dial& dial : finish.dials) names.push_back(dial.name);
    return names;
}

}  // namespace

DialsView::DialsView(Models& models, QWidget* parent)
    : QAbstractScrollArea(parent),
      document_(models.document),
      playing_(models.playing),
      drawing_(models.drawing),
      value_editor_(new LineEditor(viewport())) {
    setObjectName(QStringLiteral("dials"));
    setAccessibleName(tr("Dials"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    value_editor_->setObjectName(QStringLiteral("value_editor"));
    value_editor_->setFont(theme::figures(theme::plain));
    value_editor_->hide();
    connect(value_editor_, &QLineEdit::editingFinished, this, [this] { end_value(true); });
    connect(value_editor_, &LineEditor::dismissed, this, [this] { end_value(false); });
    connect(&document_, &Document::finish_changed, this, [this] {
        retrace();
        rebuild();
    });
    connect(&document_, &Document::selection_changed, this, &DialsView::rebuild);
    connect(&document_, &Document::called_off, this, [this] { dragged_.clear(); });
    connect(&playing_, &Playing::time_changed, this, [this] { viewport()->update(); });
    connect(&drawing_, &Drawing::warnings_changed, this, [this] {
        viewport()->update();
        const Dial* dial = find_dial(document_.finish(), chosen_.one());
        if (dial != nullptr && warning_of(*dial) != nullptr) viewport()->setToolTip(qs(warning_of(*dial)->message));
    });
    retrace();
    rebuild();
}

QPoint DialsView::scrolled() const { return {0, verticalScrollBar()->value()}; }

void DialsView::retrace() {
    const Finish& finish = document_.finish();
    // What the traces go by; a dial that only stands still changes none of them.
    Driven now{finish.responses, finish.signals, finish.tape, finish.length, {}};
    std::string formulas;
    for (const Dial& dial : finish.dials) formulas += dial.formula + " ";
    for (Response response : finish.responses) {
        for (const std::string* formula : formulas_of(response)) formulas += *formula + " ";
    }
    for (const Dial& dial : finish.dials) {
        const bool read = formulas.find(dial.name) != std::string::npos;
        if (!dial.formula.empty() || read) now.dials.push_back(dial);
    }
    if (now == driven_) return;
    driven_ = std::move(now);
    traces_.clear();
    const bool any =
        std::any_of(finish.dials.begin(), finish.dials.end(), [](const Dial& d) { return !d.formula.empty(); });
    if (!any) return;
    const std::shared_ptr<const Play> play = playing_.tape_play();
    for (int i = 0; i < trace_samples; ++i) {
        const double time = finish.length * i / (trace_samples - 1);
        const DriveValues values = play->values(time);
        for (const Dial& dial : finish.dials) {
            if (dial.formula.empty()) continue;
            traces_[dial.name].push_back(static_cast<float>(setting_from(values.at(dial.name))[0]));
        }
    }
}

void DialsView::rebuild() {
    const Finish& finish = document_.finish();
    reaching_ = dials_reaching(document_.checked(), document_.selected());
    std::vector<std::size_t> order(finish.dials.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return reaching_.contains(finish.dials[a].name) && !reaching_.contains(finish.dials[b].name);
    });
    cells_.clear();
    const int width = viewport()->width();
    int x = margin;
    int y = 4;
    const auto is_card = [&](std::size_t i) { return !finish.dials[i].formula.empty(); };
    bool any_card = false;
    for (const std::size_t i : order) {
        if (!is_card(i)) continue;
        if (any_card && x + card_width > width - margin) {
            x = margin;
            y += card_height + 8;
        }
        any_card = true;
        Cell cell{i, true, QRect(x, y, card_width, card_height), {}, {}, {}};
        cell.name = QRect(x + 10, y + 6, 120, 18);
        cell.value = QRect(x + 130, y + 6, card_width - 140, 18);
        cell.track = QRect(x + 10, y + 30, card_width - 20, 12);
        cells_.push_back(cell);
        x += card_width + 8;
    }
    if (any_card) y += card_height + 8;
    const int columns = std::clamp(width / 350, 1, 4);
    const int column_width = (width - 2 * margin - (columns - 1) * 20) / columns;
    int n = 0;
    headings_.clear();
    // Those of a group stand under its heading, in the order of the groups' first dials.
    std::vector<std::string> groups{""};
    for (const Dial& dial : finish.dials) {
        if (std::find(groups.begin(), groups.end(), dial.group) == groups.end()) groups.push_back(dial.group);
    }
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        const auto rank = [&](std::size_t i) { return std::find(groups.begin(), groups.end(), finish.dials[i].group); };
        return rank(a) < rank(b);
    });
    std::string group;
    for (const std::size_t i : order) {
        if (is_card(i)) continue;
        if (finish.dials[i].group != group) {
            group = finish.dials[i].group;
            y += (n + columns - 1) / columns * row_height + (n > 0 ? 4 : 0);
            n = 0;
            headings_.push_back({qs(group), QRect(margin, y, width - 2 * margin, row_height - 4)});
            y += row_height - 4;
        }
        const int left = margin + (n % columns) * (column_width + 20);
        const int top = y + n / columns * row_height;
        Cell cell{i, false, QRect(left, top, column_width, row_height), {}, {}, {}};
        cell.name = QRect(left, top, 96, row_height);
        cell.value = QRect(left + column_width - 116, top, 116, row_height);
        cell.track = QRect(left + 104, top + row_height / 2 - 6, column_width - 104 - 128, 12);
        cells_.push_back(cell);
        ++n;
    }
    const int bottom = y + (n + columns - 1) / columns * row_height + 8;
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(row_height);
    verticalScrollBar()->setRange(0, std::max(0, bottom - viewport()->height()));
    std::vector<std::string> there;
    for (const Cell& cell : cells_) there.push_back(finish.dials[cell.dial].name);
    chosen_.keep_among(there);
    viewport()->update();
}

DialValue DialsView::present_value(const Dial& dial) const {
    if (dial.formula.empty()) return dial.value;
    const auto found = playing_.values().find(dial.name);
    return found == playing_.values().end() ? dial.value : setting_from(found->second);
}

const DialsView::Cell* DialsView::cell_at(QPoint point) const {
    const QPoint at = point + scrolled();
    const auto found =
        std::find_if(cells_.begin(), cells_.end(), [&](const Cell& cell) { return cell.area.contains(at); });
    return found == cells_.end() ? nullptr : &*found;
}

const DialsView::Cell* DialsView::cell_of(const std::string& dial) const {
    const auto found = std::find_if(cells_.begin(), cells_.end(),
                                    [&](const Cell& cell) { return document_.finish().dials[cell.dial].name == dial; });
    return found == cells_.end() ? nullptr : &*found;
}

QRect DialsView::track_area(const std::string& dial) const {
    const Cell* cell = cell_of(dial);
    return cell == nullptr ? QRect() : cell->track.translated(-scrolled());
}

void DialsView::choose(const std::string& dial) {
    chosen_.choose(dial);
    if (const Cell* cell = cell_of(dial)) {
        if (cell->area.top() < verticalScrollBar()->value()) verticalScrollBar()->setValue(cell->area.top() - 4);
        if (cell->area.bottom() > verticalScrollBar()->value() + viewport()->height()) {
            verticalScrollBar()->setValue(cell->area.bottom() - viewport()->height() + 4);
        }
    }
    viewport()->update();
}

void DialsView::toggle_chosen(const std::string& dial) {
    chosen_.toggle(dial, dial_names(document_.finish()));
    viewport()->update();
}

void DialsView::choose_all() {
    chosen_.choose_all(dial_names(document_.finish()));
    document_.say(tr("Chose %1").arg(tr("%n dial(s)", nullptr, static_cast<int>(chosen_.all().size()))));
    viewport()->update();
}

// ---- hands ----

void DialsView::resizeEvent(QResizeEvent*) { rebuild(); }

void DialsView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const Cell* cell = cell_at(event->pos());
    if (cell == nullptr) return;
    const Dial dial = document_.finish().dials[cell->dial];
    if (event->modifiers().testFlag(Qt::ControlModifier) && event->button() == Qt::LeftButton &&
        !cell->track.contains(event->pos() + scrolled()))
        return toggle_chosen(dial.name);
    const bool among = chosen_.holds(dial.name);
    if (event->button() == Qt::LeftButton || !among) choose(dial.name);
    const QPoint at = event->pos() + scrolled();
    if (event->button() != Qt::LeftButton || !cell->track.adjusted(-4, -4, 4, 4).contains(at)) return;
    if (dial.kind == DialKind::toggle) {
        playing_.set_dial(dial.name, dial_value_stepped(dial, present_value(dial), 1));
        document_.seal_edit();
        return;
    }
    dragged_ = dial.name;
    drag_x_ = event->pos().x();
    drag_share_ = dial_share(dial, present_value(dial));
    const double pressed = static_cast<double>(at.x() - cell->track.left()) / (cell->track.width() - 1);
    document_.set_interacting(true);
    // A press on the handle picks it up; one beside it brings it there.
    if (std::fabs(pressed - drag_share_) * cell->track.width() > 5) {
        drag_share_ = std::clamp(pressed, 0.0, 1.0);
        playing_.set_dial(dial.name, dial_value_at(dial, present_value(dial), drag_share_, false));
    }
}

void DialsView::mouseMoveEvent(QMouseEvent* event) {
    if (!dragged_.empty()) drag_to(event);
}

void DialsView::drag_to(QMouseEvent* event) {
    const Cell* cell = cell_of(dragged_);
    const Dial* dial = find_dial(document_.finish(), dragged_);
    if (cell == nullptr || dial == nullptr) return;
    const bool fine = (event->modifiers() & Qt::ShiftModifier) != 0;
    const bool coarse = (event->modifiers() & Qt::ControlModifier) != 0;
    const double moved = static_cast<double>(event->pos().x() - drag_x_) / (cell->track.width() - 1);
    drag_x_ = event->pos().x();
    drag_share_ += moved * (fine ? 0.1 : 1);
    playing_.set_dial(dragged_, dial_value_at(*dial, present_value(*dial), drag_share_, coarse));
}

void DialsView::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_.empty()) return;
    const Dial* dial = find_dial(document_.finish(), dragged_);
    if (dial != nullptr && dial->formula.empty()) {
        document_.say(tr("%1 is %2").arg(qs(shown_name(dragged_)), dial_value_text(*dial, dial->value)));
    } else if (dial != nullptr) {
        document_.say(tr("%1 is held; {let_go} lets it go").arg(qs(shown_name(dragged_))));
    }
    dragged_.clear();
    document_.set_interacting(false);
}

void DialsView::mouseDoubleClickEvent(QMouseEvent* event) {
    const Cell* cell = cell_at(event->pos());
    if (cell == nullptr) return;
    const QPoint at = event->pos() + scrolled();
    const std::string name = document_.finish().dials[cell->dial].name;
    choose(name);
    if (cell->value.contains(at) && document_.finish().dials[cell->dial].kind == DialKind::colour) {
        emit wants_colour(qs(name), QRect(viewport()->mapTo(window(), cell->value.translated(-scrolled()).topLeft()),
                                          cell->value.size()));
    } else if (cell->value.contains(at)) {
        edit_value();
    } else if (!cell->track.contains(at)) {
        emit wants_form(qs(name));
    }
}

void DialsView::keyPressEvent(QKeyEvent* event) {
    const Cell* cell = cell_of(chosen_.one());
    if (cell == nullptr) return QAbstractScrollArea::keyPressEvent(event);
    const auto at = cell - cells_.data();
    const auto go = [&](std::ptrdiff_t to) {
        to = std::clamp<std::ptrdiff_t>(to, 0, static_cast<std::ptrdiff_t>(cells_.size()) - 1);
        choose(document_.finish().dials[cells_[static_cast<std::size_t>(to)].dial].name);
    };
    const double by = pace_of(event->modifiers());
    switch (event->key()) {
        case Qt::Key_Up:
            return go(at - 1);
        case Qt::Key_Down:
            return go(at + 1);
        case Qt::Key_Left:
            return step_chosen(-by);
        case Qt::Key_Right:
            return step_chosen(by);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return edit_value();
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void DialsView::step_chosen(double increments) {
    if (const Dial* dial = find_dial(document_.finish(), chosen_.one()))
        playing_.set_dial(dial->name, dial_value_stepped(*dial, present_value(*dial), increments));
}

void DialsView::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

const Warning* DialsView::warning_of(const Dial& dial) const {
    const auto& warnings = drawing_.warnings();
    const auto found =
        std::find_if(warnings.begin(), warnings.end(), [&](const Warning& w) { return w.where == dial.name; });
    return found == warnings.end() ? nullptr : &*found;
}

}  // namespace lacquer
