#include "desktop/pages/path_editor.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/drive/arguments.h"
#include "desktop/document/document.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int margin = 14;
constexpr int near = 8;
constexpr int handle_length = 34;

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

PathEditor::PathEditor(Models& models, std::string response, QWidget* parent)
    : QWidget(parent), document_(models.document), name_(std::move(response)), typed_(new LineEditor(this)) {
    setObjectName(QStringLiteral("path_editor"));
    setAccessibleName(tr("Stops of the path"));
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(130);
    setToolTip(tr(
        "Drag a stop or the end of its slope (Alt: one side alone); click between to add one; Enter types its time and "
        "value; E changes its slope, right button for each side; Delete deletes it"));
    typed_->setObjectName(QStringLiteral("path_typed"));
    typed_->setFont(theme::figures(theme::plain));
    typed_->hide();
    connect(typed_, &QLineEdit::editingFinished, this, &PathEditor::take_typed);
    connect(typed_, &LineEditor::dismissed, this, [this] {
        typed_->hide();
        setFocus();
    });
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, [this] { hold_ = Hold::nothing; });
}

PathKeys PathEditor::keys() const {
    const Response* response = find_response(document_.finish(), name_);
    const ResponseKind* kind = response == nullptr ? nullptr : find_response_kind(response->kind);
    if (kind == nullptr || find_argument(*kind, "keys") == nullptr) return {};
    return Arguments(*response, *kind, Tape(), FormulaSource()).keys("keys");
}

QRect PathEditor::plot() const { return rect().adjusted(margin, 8, -margin, -20); }

double PathEditor::seconds() const {
    if (hold_ != Hold::nothing) return held_seconds_;
    const PathKeys own = keys();
    return own.empty() || own.back().at <= 0 ? 1 : own.back().at;
}

std::pair<double, double> PathEditor::heights() const {
    if (hold_ != Hold::nothing) return held_heights_;
    double least = 0;
    double most = 1;
    const PathKeys own = keys();
    const double end = seconds();
    for (int i = 0; i <= 100; ++i) {
        const double value = path_value(own, end * i / 100);
        least = std::min(least, value);
        most = std::max(most, value);
    }
    return {least, most};
}

QPointF PathEditor::place_of(double time, double value) const {
    const QRect area = plot();
    const auto [least, most] = heights();
    return {area.left() + time / seconds() * area.width(),
            area.bottom() - (value - least) / (most - least) * area.height()};
}

double PathEditor::time_at(int x) const {
    const QRect area = plot();
    return std::max(0.0, tidy(static_cast<double>(x - area.left()) / area.width() * seconds()));
}

double PathEditor::value_at(int y) const {
    const QRect area = plot();
    const auto [least, most] = heights();
    return tidy(least + static_cast<double>(area.bottom() - y) / area.height() * (most - least));
}

QPoint PathEditor::key_place(std::size_t key) const {
    const PathKeys own = keys();
    return key < own.size() ? place_of(own[key].at, own[key].value).toPoint() : QPoint();
}

QPoint PathEditor::slope_place(std::size_t key, bool after) const {
    const PathKeys own = keys();
    if (key >= own.size()) return {};
    const QPointF from = place_of(own[key].at, own[key].value);
    const double slope = path_slope(own, key, after);
    const QPointF ahead = place_of(own[key].at + seconds() / 10, own[key].value + slope * seconds() / 10) - from;
    const double length = std::max(std::hypot(ahead.x(), ahead.y()), 1e-6);
    return (from + ahead * ((after ? handle_length : -handle_length) / length)).toPoint();
}

PathEditor::Hold PathEditor::hold_at(QPoint point, int& key) const {
    const PathKeys own = keys();
    if (chosen_ >= 0 && chosen_ < static_cast<int>(own.size())) {
        const auto chosen = static_cast<std::size_t>(chosen_);
        key = chosen_;
        if (chosen > 0 && (slope_place(chosen, false) - point).manhattanLength() <= near) return Hold::before;
        if (chosen + 1 < own.size() && (slope_place(chosen, true) - point).manhattanLength() <= near)
            return Hold::after;
    }
    for (std::size_t i = own.size(); i-- > 0;) {
        if ((key_place(i) - point).manhattanLength() > near) continue;
        key = static_cast<int>(i);
        return Hold::key;
    }
    return Hold::nothing;
}

void PathEditor::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const PathKeys own = keys();
    const QRect area = plot();
    painter.fillRect(area, theme::black);
    QPolygonF line;
    for (int x = 0; x <= area.width(); ++x) {
        const double time = seconds() * x / area.width();
        line.append(place_of(time, path_value(own, time)));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::vermilion, 1.5));
    painter.drawPolyline(line);
    if (chosen_ >= 0 && chosen_ < static_cast<int>(own.size())) {
        const auto chosen = static_cast<std::size_t>(chosen_);
        for (const bool after : {false, true}) {
            if (after ? chosen + 1 >= own.size() : chosen == 0) continue;
            painter.setPen(QPen(theme::gold, 1));
            painter.drawLine(key_place(chosen), slope_place(chosen, after));
            painter.setBrush(theme::panel);
            painter.drawEllipse(QPointF(slope_place(chosen, after)), 3, 3);
        }
        const PathKey& key = own[chosen];
        const QString slopes = key.before == key.after
                                   ? qs(shown_name(std::string(slope_kind_name(key.after.kind))))
                                   : tr("%1 before, %2 after")
                                         .arg(qs(shown_name(std::string(slope_kind_name(key.before.kind)))),
                                              qs(shown_name(std::string(slope_kind_name(key.after.kind)))));
        theme::paint_text(painter, QRect(area.left(), area.bottom() + 3, area.width(), 16),
                          tr("%1 s   %2   %3").arg(qs(plain_number(key.at, 3)), qs(plain_number(key.value, 3)), slopes),
                          theme::figures(theme::small), theme::text);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (std::size_t i = 0; i < own.size(); ++i) {
        const QPoint at = key_place(i);
        painter.fillRect(QRect(at.x() - 4, at.y() - 4, 9, 9),
                         static_cast<int>(i) == chosen_ ? theme::gold : theme::text);
        painter.fillRect(QRect(at.x() - 2, at.y() - 2, 5, 5), theme::black);
    }
    theme::paint_text(painter, QRect(area.left(), area.bottom() + 3, area.width(), 16),
                      tr("%1 s").arg(qs(plain_number(seconds(), 3))), theme::figures(theme::tiny), theme::quiet,
                      Qt::AlignRight);
}

void PathEditor::change(PathKeys keys, const QString& what, bool dragging) {
    Finish changed = document_.finish();
    for (Response& response : changed.responses) {
        if (response.name == name_) response.settings["keys"] = std::move(keys);
    }
    document_.edit(std::move(changed), what, dragging ? "keys " + name_ : std::string());
}

void PathEditor::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    setFocus();
    int key = 0;
    const Hold hold = hold_at(event->pos(), key);
    if (hold == Hold::nothing && plot().adjusted(-2, -2, 2, 2).contains(event->pos())) {
        PathKeys own = keys();
        const PathKey fresh{time_at(event->pos().x()), value_at(event->pos().y()), {}, {}};
        const auto place = std::upper_bound(own.begin(), own.end(), fresh.at,
                                            [](double t, const PathKey& other) { return t < other.at; });
        chosen_ = static_cast<int>(place - own.begin());
        own.insert(place, fresh);
        change(std::move(own), tr("Added a stop"), false);
        return;
    }
    if (hold == Hold::nothing) return;
    held_heights_ = heights();
    held_seconds_ = seconds();
    chosen_ = key;
    hold_ = hold;
    document_.set_interacting(true);
    update();
}

void PathEditor::mouseMoveEvent(QMouseEvent* event) {
    PathKeys own = keys();
    if (hold_ == Hold::nothing || chosen_ < 0 || chosen_ >= static_cast<int>(own.size())) return;
    PathKey& key = own[static_cast<std::size_t>(chosen_)];
    if (hold_ == Hold::key) {
        const auto i = static_cast<std::size_t>(chosen_);
        // A key stays between its neighbours.
        const double least = i == 0 ? 0 : own[i - 1].at;
        const double most = i + 1 < own.size() ? own[i + 1].at : std::max(held_seconds_ * 4, 1.0);
        key.at = std::clamp(time_at(event->pos().x()), least, most);
        key.value = value_at(event->pos().y());
        return change(std::move(own), tr("Moved a stop"), true);
    }
    const double away = time_at(event->pos().x()) - key.at;
    const bool after = hold_ == Hold::after;
    if (after ? away <= 0 : away >= 0) return;
    const Slope slope{SlopeKind::by_hand, tidy((value_at(event->pos().y()) - key.value) / away)};
    const bool one_side = event->modifiers().testFlag(Qt::AltModifier);
    if (after || !one_side) key.after = slope;
    if (!after || !one_side) key.before = slope;
    change(std::move(own), tr("Set a slope"), true);
}

void PathEditor::mouseReleaseEvent(QMouseEvent*) {
    if (hold_ != Hold::nothing) document_.set_interacting(false);
    hold_ = Hold::nothing;
    update();
}

bool PathEditor::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_E || key == Qt::Key_Delete || key == Qt::Key_Backspace || key == Qt::Key_Return) {
            event->accept();
            return true;
        }
    }
    return QWidget::event(event);
}

void PathEditor::keyPressEvent(QKeyEvent* event) {
    PathKeys own = keys();
    const int count = static_cast<int>(own.size());
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        chosen_ = std::clamp(chosen_ + (event->key() == Qt::Key_Left ? -1 : 1), 0, std::max(0, count - 1));
        return update();
    }
    if (chosen_ < 0 || chosen_ >= count) return QWidget::keyPressEvent(event);
    if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) {
        if (count <= 1) return document_.say(tr("A path has at least one stop"));
        own.erase(own.begin() + chosen_);
        chosen_ = std::min(chosen_, count - 2);
        return change(std::move(own), tr("Deleted a stop"), false);
    }
    if (event->key() == Qt::Key_E) {
        const SlopeKind now = own[static_cast<std::size_t>(chosen_)].after.kind;
        const SlopeKind next = now == SlopeKind::smooth     ? SlopeKind::level
                               : now == SlopeKind::level    ? SlopeKind::straight
                               : now == SlopeKind::straight ? SlopeKind::stay
                                                            : SlopeKind::smooth;
        return set_slope(next, true, true);
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return type_key();
    QWidget::keyPressEvent(event);
}

void PathEditor::set_slope(SlopeKind kind, bool before, bool after) {
    PathKeys own = keys();
    if (chosen_ < 0 || chosen_ >= static_cast<int>(own.size())) return;
    PathKey& key = own[static_cast<std::size_t>(chosen_)];
    const auto i = static_cast<std::size_t>(chosen_);
    // By hand begins with what it is.
    if (before) key.before = {kind, kind == SlopeKind::by_hand ? path_slope(own, i, false) : 0};
    if (after) key.after = {kind, kind == SlopeKind::by_hand ? path_slope(own, i, true) : 0};
    change(std::move(own), tr("Slope: %1").arg(qs(shown_name(std::string(slope_kind_name(kind))))), false);
}

void PathEditor::contextMenuEvent(QContextMenuEvent* event) {
    int key = 0;
    if (hold_at(event->pos(), key) == Hold::nothing) return;
    chosen_ = key;
    update();
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("slope_menu"));
    const auto add = [&](const QString& side, bool before, bool after) {
        for (const SlopeKind kind :
             {SlopeKind::smooth, SlopeKind::level, SlopeKind::straight, SlopeKind::by_hand, SlopeKind::stay}) {
            if (kind == SlopeKind::stay && !after) continue;
            const QString words = qs(shown_name(std::string(slope_kind_name(kind))));
            menu->addAction(side.isEmpty() ? words : tr("%1, %2").arg(words, side), this,
                            [this, kind, before, after] { set_slope(kind, before, after); });
        }
    };
    add({}, true, true);
    menu->addSeparator();
    add(tr("before it"), true, false);
    menu->addSeparator();
    add(tr("after it"), false, true);
    menu->popup(event->globalPos());
}

void PathEditor::type_key() {
    const PathKeys own = keys();
    const PathKey& key = own[static_cast<std::size_t>(chosen_)];
    typed_->setText(moment_text(key.at, key.value));
    typed_->setGeometry(
        std::clamp(key_place(static_cast<std::size_t>(chosen_)).x() - 60, 0, std::max(0, width() - 150)), 4, 150, 24);
    typed_->show();
    typed_->setFocus();
    typed_->selectAll();
}

void PathEditor::take_typed() {
    if (typed_->isHidden()) return;
    const QString text = typed_->text();
    const bool had_focus = typed_->hasFocus();
    typed_->hide();
    if (had_focus) setFocus();
    PathKeys own = keys();
    const auto moment = moment_from(text);
    if (!moment) return document_.say(tr("Type seconds and a value: 0.5 s, 0.8"));
    if (chosen_ < 0 || chosen_ >= static_cast<int>(own.size())) return;
    const PathKey typed{moment->first, moment->second, own[static_cast<std::size_t>(chosen_)].before,
                        own[static_cast<std::size_t>(chosen_)].after};
    own.erase(own.begin() + chosen_);
    const auto place =
        std::upper_bound(own.begin(), own.end(), typed.at, [](double t, const PathKey& other) { return t < other.at; });
    chosen_ = static_cast<int>(place - own.begin());
    own.insert(place, typed);
    change(std::move(own), tr("Set a stop"), false);
}

}  // namespace lacquer
