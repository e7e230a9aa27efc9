#include "desktop/sweep/measure_list.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/text.h"
#include "desktop/kit/theme.h"
#include "desktop/sweep/sweeping.h"

namespace lacquer {

namespace {

constexpr int list_border = 14;
constexpr int plot_height = 150;
constexpr int plot_top = 26;
constexpr int list_line = 16;
constexpr int indent = 18;
constexpr int mend_height = 22;

QString mark_of(Verdict verdict) {
    return verdict == Verdict::passes        ? QStringLiteral("✓")
           : verdict == Verdict::falls_short ? QStringLiteral("✗")
                                             : QStringLiteral("–");
}

QColor colour_of(Verdict verdict) {
    return verdict == Verdict::passes        ? theme::celadon
           : verdict == Verdict::falls_short ? theme::vermilion_text
                                             : theme::quiet;
}

}  // namespace

MeasureList::MeasureList(Sweeping& sweeping, QWidget* parent) : QAbstractScrollArea(parent), sweeping_(sweeping) {
    setObjectName(QStringLiteral("measures"));
    setAccessibleName(tr("Measures"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setToolTip(tr(
        "A click on a row plots it. 'must pass' is written into the finish, and lacquer-cli inspect holds it to that"));
    connect(&sweeping_, &Sweeping::measured_changed, this, &MeasureList::rebuild);
    connect(&sweeping_, &Sweeping::spec_changed, this, &MeasureList::rebuild);
}

QString MeasureList::words_of(const Measured& one) const {
    const QString words = core_words(one.words);
    return one.shape.empty() ? words : tr("in %1: %2").arg(qs(one.shape), words);
}

bool MeasureList::is_promised(const std::string& id) const {
    const Dial* dial = sweeping_.swept_dial();
    return dial != nullptr && std::find(dial->promises.begin(), dial->promises.end(), id) != dial->promises.end();
}

void MeasureList::rebuild() {
    rows_.clear();
    const int width = viewport()->width() - 2 * list_border;
    const QFontMetrics metrics(theme::words(theme::small));
    const QFontMetrics buttons(theme::words(theme::plain));
    const QString promise = tr("must pass");
    int y = plot_top + plot_height + 12;
    for (const Measured& one : sweeping_.measured()) {
        Row row;
        const int high =
            metrics.boundingRect(QRect(0, 0, width - indent, 1000), Qt::TextWordWrap, words_of(one)).height();
        row.promise = QRect(list_border + width - buttons.horizontalAdvance(promise) - 18, y + 6,
                            buttons.horizontalAdvance(promise) + 18, list_line);
        int x = list_border + indent;
        int bottom = y + 6 + list_line + high + 6;
        for (const Mend& mend : one.mends) {
            const int wide = buttons.horizontalAdvance(core_words(mend.words)) + 18;
            row.mends.emplace_back(x, bottom, wide, mend_height);
            x += wide + 6;
        }
        if (!one.mends.empty()) bottom += mend_height + 6;
        row.area = QRect(list_border, y, width, bottom - y);
        rows_.push_back(std::move(row));
        y = bottom;
    }
    present_ = std::clamp(present_, 0, std::max(0, cell_count() - 1));
    verticalScrollBar()->setRange(0, std::max(0, y + list_border - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(list_line);
    viewport()->update();
}

const MeasureList::Row* MeasureList::row_of(const std::string& id) const {
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (sweeping_.measured()[i].id == id) return &rows_[i];
    }
    return nullptr;
}

QRect MeasureList::row_area(const std::string& id) const {
    const Row* row = row_of(id);
    return row != nullptr ? row->area.translated(0, -verticalScrollBar()->value()) : QRect();
}

QRect MeasureList::promise_area(const std::string& id) const {
    const Row* row = row_of(id);
    return row != nullptr ? row->promise.translated(0, -verticalScrollBar()->value()) : QRect();
}

QRect MeasureList::mend_area(const std::string& id) const {
    const Row* row = row_of(id);
    return row != nullptr && !row->mends.empty() ? row->mends.front().translated(0, -verticalScrollBar()->value())
                                                 : QRect();
}

const Measured* MeasureList::plotted() const {
    const std::vector<Measured>& all = sweeping_.measured();
    const auto index = static_cast<std::size_t>(present_);
    if (index < all.size() && !all[index].curves.empty()) return &all[index];
    for (const char* wanted : {"pace", "seen"}) {
        for (const Measured& one : all) {
            if (one.id == wanted && !one.curves.empty()) return &one;
        }
    }
    return nullptr;
}

void MeasureList::paint_plot(QPainter& painter, const QRect& area) const {
    painter.fillRect(area, theme::page);
    const Measured* one = plotted();
    if (one == nullptr) {
        const QString words = sweeping_.swept_dial() == nullptr ? tr("Sweep a dial to measure it")
                              : sweeping_.measuring()           ? tr("measuring ...")
                                                                : QString();
        return theme::paint_text(painter, area, words, theme::words(), theme::quiet, Qt::AlignHCenter);
    }
    const QRect room = area.adjusted(30, 12, -14, -24);
    double least_x = 1e300;
    double most_x = -1e300;
    double most_y = 0;
    for (const MeasureCurve& curve : one->curves) {
        for (const auto& [x, y] : curve.points) {
            least_x = std::min(least_x, x);
            most_x = std::max(most_x, x);
            if (std::isfinite(y)) most_y = std::max(most_y, y);
        }
    }
    if (!(most_x > least_x)) return;
    if (!(most_y > 0)) most_y = 1;
    const auto place = [&](double x, double y) {
        return QPointF(room.left() + (x - least_x) / (most_x - least_x) * room.width(),
                       room.bottom() - y / most_y * room.height());
    };
    painter.setPen(theme::hairline);
    painter.drawLine(room.bottomLeft(), room.bottomRight());
    painter.drawLine(room.topLeft(), room.bottomLeft());
    painter.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = one->curves.size(); i-- > 0;) {
        QPainterPath path;
        bool is_first = true;
        for (const auto& [x, y] : one->curves[i].points) {
            is_first ? path.moveTo(place(x, y)) : path.lineTo(place(x, y));
            is_first = false;
        }
        painter.setPen(i == 0 ? QPen(theme::vermilion, 2) : QPen(theme::quiet, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(path);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    const QRect below(room.left(), room.bottom() + 4, room.width(), list_line);
    const QFont font = theme::figures(theme::tiny);
    theme::paint_text(painter, below, qs(plain_number(least_x, 2)), font, theme::quiet);
    theme::paint_text(painter, below, qs(plain_number(most_x, 2)), font, theme::quiet, Qt::AlignRight);
    theme::paint_text(painter, QRect(area.left(), room.top() - 7, 26, list_line),
                      qs(plain_number(most_y, most_y < 10 ? 2 : 0)), font, theme::quiet, Qt::AlignRight);
}

void MeasureList::paint_row(QPainter& painter, std::size_t index) const {
    const Measured& one = sweeping_.measured()[index];
    const Row& row = rows_[index];
    const bool promised = is_promised(one.id);
    if (static_cast<int>(index) == present_ && hasFocus()) theme::paint_focus(painter, row.area.adjusted(-6, 2, 5, -2));
    painter.setPen(theme::hairline);
    painter.drawLine(row.area.left(), row.area.bottom(), row.area.right(), row.area.bottom());
    const int top = row.area.top() + 6;
    theme::paint_text(painter, QRect(row.area.left(), top, indent, list_line), mark_of(one.verdict),
                      theme::words(theme::plain, true), colour_of(one.verdict));
    theme::paint_text(painter,
                      QRect(row.area.left() + indent, top, row.promise.left() - row.area.left() - indent, list_line),
                      core_words(one.title), theme::words(theme::plain, true), theme::text);
    const QRect box(row.promise.left(), row.promise.top() + 2, 11, 11);
    painter.setPen(promised ? theme::celadon : theme::border);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(box);
    if (promised) painter.fillRect(box.adjusted(3, 3, -2, -2), theme::celadon);
    theme::paint_text(painter, row.promise.adjusted(17, 0, 2, 0), tr("must pass"), theme::words(theme::small),
                      promised ? theme::text : theme::disabled);
    painter.setFont(theme::words(theme::small));
    painter.setPen(theme::quiet);
    painter.drawText(QRect(row.area.left() + indent, top + list_line, row.area.width() - indent, row.area.height()),
                     Qt::TextWordWrap, words_of(one));
    for (std::size_t mend = 0; mend < row.mends.size(); ++mend) {
        painter.setPen(theme::border);
        painter.setBrush(theme::raised);
        painter.drawRoundedRect(row.mends[mend].adjusted(0, 0, -1, -1), theme::radius, theme::radius);
        theme::paint_text(painter, row.mends[mend], core_words(one.mends[mend].words), theme::words(), theme::text,
                          Qt::AlignHCenter);
    }
}

void MeasureList::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    painter.translate(0, -verticalScrollBar()->value());
    const Measured* plot = plotted();
    QString title = plot != nullptr ? core_words(plot->curves.front().words) : tr("Measures");
    if (sweeping_.measuring()) title += tr(" · measuring ...");
    theme::paint_text(painter, QRect(list_border, 4, viewport()->width() - 2 * list_border, list_line), title,
                      theme::words(theme::plain, true), theme::text);
    paint_plot(painter, QRect(list_border, plot_top, viewport()->width() - 2 * list_border, plot_height));
    for (std::size_t i = 0; i < rows_.size(); ++i) paint_row(painter, i);
}

void MeasureList::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    rebuild();
}

void MeasureList::scrollContentsBy(int, int) { viewport()->update(); }

void MeasureList::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const QPoint at = event->pos() + QPoint(0, verticalScrollBar()->value());
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (!rows_[i].area.contains(at)) continue;
        present_ = static_cast<int>(i);
        const std::string id = sweeping_.measured()[i].id;
        viewport()->update();
        if (rows_[i].promise.contains(at)) return sweeping_.toggle_promise(id);
        for (std::size_t mend = 0; mend < rows_[i].mends.size(); ++mend) {
            if (rows_[i].mends[mend].contains(at)) return sweeping_.take_mend(id, mend);
        }
        return;
    }
}

void MeasureList::keyPressEvent(QKeyEvent* event) {
    const auto index = static_cast<std::size_t>(present_);
    const bool is_one = index < rows_.size();
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            present_ = std::clamp(present_ + (event->key() == Qt::Key_Up ? -1 : 1), 0, std::max(0, cell_count() - 1));
            return viewport()->update();
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (is_one) sweeping_.toggle_promise(sweeping_.measured()[index].id);
            return;
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void MeasureList::focusInEvent(QFocusEvent*) { viewport()->update(); }
void MeasureList::focusOutEvent(QFocusEvent*) { viewport()->update(); }

int MeasureList::cell_count() const { return static_cast<int>(rows_.size()); }

AccessibleCell MeasureList::cell(int index) const {
    const Measured& one = sweeping_.measured()[static_cast<std::size_t>(index)];
    AccessibleCell told{core_words(one.title), words_of(one), row_area(one.id)};
    told.chosen = index == present_;
    told.actions = {is_promised(one.id) ? tr("need not pass") : tr("must pass")};
    for (const Mend& mend : one.mends) told.actions.append(core_words(mend.words));
    return told;
}

void MeasureList::act_on_cell(int index, const QString& action) {
    const Measured& one = sweeping_.measured()[static_cast<std::size_t>(index)];
    for (std::size_t mend = 0; mend < one.mends.size(); ++mend) {
        if (core_words(one.mends[mend].words) == action) return sweeping_.take_mend(one.id, mend);
    }
    sweeping_.toggle_promise(one.id);
}

}  // namespace lacquer
