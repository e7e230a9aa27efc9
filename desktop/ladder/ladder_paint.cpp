// How the ladder looks.
#include <QPainter>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/variants.h"
#include "core/lang/checker.h"
#include "core/lang/rename.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/switch.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"
#include "desktop/kit/value_text.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/formula_line.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

void LadderView::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::page);
    const bool no_steps =
        std::none_of(rows_.begin(), rows_.end(), [](const LadderRow& r) { return r.kind == LadderRowKind::step; });
    painter.save();
    painter.translate(-scrolled());
    const QRect visible = viewport()->rect().translated(scrolled());
    const auto for_visible = [&](bool coats, const auto& paint) {
        for (const LadderRow& row : rows_) {
            if ((row.kind == LadderRowKind::coat) == coats && row.area.intersects(visible)) paint(row);
        }
    };
    for_visible(false, [&](const LadderRow& row) { paint_step(painter, row); });
    paint_threads(painter);
    // Headings last: a thread runs on behind them.
    for_visible(true, [&](const LadderRow& row) { paint_coat(painter, row); });
    painter.restore();
    paint_chips(painter);
    if (no_steps) paint_empty(painter);
    if (dragging_ == Dragging::picture || dragging_ == Dragging::row) paint_dragged(painter);
    if (hasFocus()) theme::paint_focus_line(painter, viewport()->rect());
}

// What hangs at the mouse, and what letting go would do.
void LadderView::paint_dragged(QPainter& painter) const {
    if (dragging_ == Dragging::row && drop_fits_ && drop_coat_) {
        const QRect heading = heading_area(*drop_coat_);
        painter.setPen(QPen(theme::gold, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(heading.adjusted(1, 1, -1, -1));
    } else if (dragging_ == Dragging::row && drop_fits_) {
        const LadderRow* row = find_row(rows_, drop_below_);
        const int y = row != nullptr ? row->area.bottom() - scrolled().y() : coat_row_height - scrolled().y();
        painter.fillRect(QRect(ladder_margin, y - 1, viewport()->width() - ladder_margin, 2), theme::gold);
    }
    const QRect area(drag_at_ + QPoint(12, 8), QSize(44, 25));
    painter.drawImage(area, thumbnail_of(dragged_step_));
    const int width = QFontMetrics(theme::words(theme::small)).horizontalAdvance(drop_words_) + 12;
    QRect words(area.left(), area.bottom() + 2, width, 18);
    if (words.right() > viewport()->width()) words.moveRight(viewport()->width() - 2);
    painter.fillRect(words, theme::shade);
    theme::paint_text(painter, words.adjusted(6, 0, 0, 0), drop_words_, theme::words(theme::small),
                      drop_fits_ ? theme::text : theme::vermilion_text);
}

void LadderView::paint_empty(QPainter& painter) const {
    if (!filter_.isEmpty() && step_count(document_.finish()) > 0) {
        theme::paint_text(painter, QRect(24, 16, viewport()->width() - 48, 20), tr("No step says %1").arg(filter_),
                          theme::words(), theme::quiet);
        return;
    }
    const int top = rows_.empty() ? 24 : rows_.back().area.bottom() + 24;
    const QRect area(24, top, viewport()->width() - 48, 96);
    painter.setFont(theme::words());
    painter.setPen(theme::quiet);
    const bool no_ground = first_picture(document_.finish()) == nullptr;
    painter.drawText(
        area, Qt::TextWordWrap,
        document_.keyed(
            no_ground
                ? tr("Add the picture to work on first ({add_picture}), then a step ({add_step}).\n\n"
                     "A step is one value for every pixel: a formula over what stands above it.")
                : tr("Add a step ({add_step}).\n\nA step is one value for every pixel: a formula over the picture, "
                     "uv, time and the steps above it.")));
}

void LadderView::paint_coat(QPainter& painter, const LadderRow& row) const {
    const Coat& coat = document_.finish().coats[row.coat];
    painter.fillRect(row.area, theme::heading);
    painter.fillRect(QRect(row.area.left(), row.area.top(), row.area.width(), 1), theme::hairline);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme::text);
    const QPointF c(17, row.area.center().y() + 1);
    const QPolygonF mark = coat.folded ? QPolygonF({c + QPointF(-2, -4), c + QPointF(3, 0), c + QPointF(-2, 4)})
                                       : QPolygonF({c + QPointF(-4, -2), c + QPointF(4, -2), c + QPointF(0, 3)});
    painter.drawPolygon(mark);
    painter.setRenderHint(QPainter::Antialiasing, false);
    const QFont name_font = theme::words(theme::plain, true);
    theme::paint_text(painter, row.area.adjusted(28, 0, -160, 0), qs(coat.name), name_font,
                      coat.on ? theme::text : theme::quiet);
    int left = std::max(110, 28 + QFontMetrics(name_font).horizontalAdvance(qs(coat.name)) + 16);
    if (coat.folded && !coat.steps.empty()) {
        painter.drawImage(QRect(left, row.area.top() + 3, 40, 22), thumbnail_of(coat.steps.back().name));
        left += 48;
    }
    // What is counted and measured keeps its room; a long note gives way.
    const QString facts = coat_facts(coat);
    const QRect room = row.area.adjusted(left, 0, -50, 0);
    theme::paint_text(painter, room, facts, theme::words(), theme::quiet, Qt::AlignRight);
    const int facts_width = QFontMetrics(theme::words()).horizontalAdvance(facts);
    const QString words = coat_words(coat);
    if (!words.isEmpty())
        theme::paint_text(painter, room.adjusted(0, 0, -facts_width - 14, 0), words, theme::words(), theme::quiet);
    paint_switch(painter, row.area.topRight() + QPoint(-36, 8), coat.on);
    if (chosen_coat_ == row.coat)
        painter.fillRect(QRect(row.area.left(), row.area.top(), 2, row.area.height()), theme::gold);
}

QString LadderView::coat_facts(const Coat& coat) const {
    QStringList facts;
    if (!coat.on) facts.append(tr("off"));
    facts.append(tr("%n step(s)", nullptr, static_cast<int>(coat.steps.size())));
    double milliseconds = 0;
    for (const Step& step : coat.steps) {
        const auto found = drawing_.stage().step_milliseconds.find(step.name);
        if (found != drawing_.stage().step_milliseconds.end()) milliseconds += found->second;
    }
    if (milliseconds >= 0.05) facts.append(QStringLiteral("≈%1 ms").arg(milliseconds, 0, 'f', 1));
    return facts.join(QStringLiteral(" · "));
}

// The coat's note; of a folded one also what it takes from the steps above it, whose threads end at the heading.
QString LadderView::coat_words(const Coat& coat) const {
    QStringList words;
    if (coat.folded) {
        QStringList from;
        for (const std::string& source : coat_sources(coat)) from.append(qs(shown_name(source)));
        if (!from.isEmpty()) words.append(tr("from %1").arg(from.join(QStringLiteral(", "))));
    }
    if (!coat.note.empty()) words.append(qs(coat.note));
    return words.join(QStringLiteral(" · "));
}

void LadderView::paint_row_picture(QPainter& painter, const LadderRow& row) const {
    const auto found = drawing_.thumbnails().find(row.name);
    const bool drawn = found != drawing_.thumbnails().end();
    const CheckedStep* checked = find_step(document_.checked(), row.name);
    paint_thumbnail(painter, row.thumbnail, drawn ? found->second.image : QImage(),
                    {.clear = drawn && found->second.type == Type::vec4,
                     .stale = checked != nullptr && checked->fault,
                     .outlined = true,
                     .shown = drawing_.shown() == row.name});
}

void LadderView::paint_formula(QPainter& painter, const LadderRow& row) const {
    const FormulaLine& line = line_of(row);
    // The painter is moved by what is scrolled; the line stands in the viewport.
    painter.save();
    painter.translate(scrolled());
    line.draw(painter);
    paint_words(painter, row, line);
    const Step& step = document_.finish().coats[row.coat].steps[row.step];
    const CheckedStep* checked = find_step(document_.checked(), row.name);
    if (row.name == selected_shown_) {
        const auto mark = [&](Span span) {
            const QRect words = line.area_of(span);
            if (words.isValid())
                theme::paint_notched_bar(painter, words.left(), std::max(words.right(), words.left() + 6),
                                         words.bottom() + 1);
        };
        if (checked != nullptr && checked->fault) mark(checked->fault->place.span);
        for (const Warning& warning : drawing_.warnings()) {
            const bool whole = warning.span.begin == warning.span.end || warning.span.end > step.formula.size();
            if (warning.where == row.name && !whole) mark(warning.span);
        }
    }
    painter.restore();
    if (line.is_cut()) {
        const QRect end(row.formula_area.right() - 15, row.area.top() + 1, 16, row.area.height() - 2);
        painter.fillRect(end, row.name == hovered_ ? theme::panel : theme::page);
        theme::paint_text(painter, end, QStringLiteral("…"), theme::figures(), theme::quiet, Qt::AlignRight);
    }
}

// The word under the mouse, the word that the keys are on, and swatches before colours.
void LadderView::paint_words(QPainter& painter, const LadderRow& row, const FormulaLine& line) const {
    painter.save();
    painter.setClipRect(row.formula_area.translated(-scrolled()).adjusted(-2, 0, 2, 3));
    const auto frame = [&](Span span, const QColor& colour) {
        painter.setPen(colour);
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(line.area_of(span).adjusted(-2, -1, 1, 1), 2, 2);
    };
    if (hovered_word_ && hovered_word_->step == row.name) {
        const LiveWord& word = hovered_word_->word;
        const bool drop = dragging_ == Dragging::picture;
        const Span span = word.kind == LiveKind::colour ? Span{word.span.begin, word.span.begin + 4} : word.span;
        frame(span, drop && !drop_fits_ ? theme::vermilion : drop ? theme::celadon : theme::word_edge);
    }
    if (row.name == selected_shown_ && word_cursor_ >= 0 && hasFocus()) {
        const std::vector<LiveWord> words = words_of_selected();
        for (const LiveWord& word : words) {
            if (choosing_value_ && can_be_dial(word)) frame(word.span, theme::celadon);
        }
        if (word_cursor_ < static_cast<int>(words.size()))
            frame(words[static_cast<std::size_t>(word_cursor_)].span, theme::gold);
    }
    if (row.name == selected_shown_) {
        const Step& step = document_.finish().coats[row.coat].steps[row.step];
        for (const LiveWord& word : words(step.formula)) {
            if (word.kind != LiveKind::colour) continue;
            const QRect area = line.area_of({word.span.begin, word.span.begin + 4});
            painter.fillRect(QRect(area.left(), area.bottom() - 1, area.width(), 3), theme::swatch(word.colour));
        }
    }
    painter.restore();
}

void LadderView::paint_values(QPainter& painter, const LadderRow& row) const {
    const DrawnStep* drawn = drawing_.probe().find(row.name);
    QRect area = row.formula_area;
    if (row.name == selected_shown_) area.setHeight(17);
    if (drawn == nullptr || drawn->picture.width < 1) {
        theme::paint_text(painter, area, tr("no value here"), theme::words(theme::small), theme::quiet);
        return;
    }
    const float* values = drawn->picture.at(0, 0);
    const int parts = width_of(drawn->type);
    const QRect box(area.left(), area.center().y() - 6, 20, 13);
    painter.fillRect(box.adjusted(-1, -1, 1, 1), theme::hairline);
    painter.fillRect(box, value_swatch(values, parts));
    theme::paint_text(painter, area.adjusted(28, 0, 0, 0), value_text(values, parts, drawing_.look().decimals),
                      theme::figures(), theme::text);
}

void LadderView::paint_step(QPainter& painter, const LadderRow& row) const {
    const Finish& finish = document_.finish();
    const Step& step = finish.coats[row.coat].steps[row.step];
    const bool open = row.name == selected_shown_;
    const bool on = finish.coats[row.coat].on && step.on;
    if (open) {
        painter.fillRect(row.area, theme::open_row);
        painter.fillRect(QRect(0, row.area.top(), 3, row.area.height()), theme::gold);
    } else if (is_selected(row.name)) {
        painter.fillRect(row.area, theme::open_row);
        painter.fillRect(QRect(0, row.area.top(), 3, row.area.height()), theme::gold);
    } else if (row.name == hovered_) {
        painter.fillRect(row.area, theme::panel);
    }
    painter.fillRect(QRect(0, row.area.bottom(), row.area.width(), 1), theme::heading);
    paint_row_picture(painter, row);
    const int beside_name = row.name_area.left() - 5;
    if (differs_from_base(document_.finish(), row.name))
        theme::paint_own_mark(painter, QPoint(beside_name, row.name_area.center().y()));
    if (uses_promised(step.formula))
        theme::paint_promise_mark(painter, QPoint(row.area.right() - 8, row.name_area.center().y() + 1));
    if (open) return paint_open_step(painter, row);
    const CheckedStep* checked = find_step(document_.checked(), row.name);
    const bool fault = checked != nullptr && checked->fault;
    theme::paint_text(painter, row.name_area, qs(shown_name(step.name)), theme::words(theme::plain, true),
                      on ? theme::text : theme::quiet);
    if (fault) {
        theme::paint_notched_bar(painter, row.name_area.left(), row.name_area.left() + 24, row.area.bottom() - 5);
        theme::paint_text(painter, row.formula_area, core_words(checked->fault->message), theme::words(theme::small),
                          theme::vermilion_text);
        return;
    }
    if (shows_values_) return paint_values(painter, row);
    if (!on) painter.setOpacity(0.5);
    paint_formula(painter, row);
    painter.setOpacity(1);
    const auto& warnings = drawing_.warnings();
    const bool warned = std::any_of(warnings.begin(), warnings.end(),
                                    [&](const Warning& warning) { return warning.where == row.name; });
    if (warned)
        theme::paint_notched_bar(painter, row.name_area.left(), row.name_area.left() + 14, row.area.bottom() - 4);
}

bool LadderView::uses_promised(const std::string& formula) const {
    const auto& dials = document_.finish().dials;
    return std::any_of(dials.begin(), dials.end(), [&](const Dial& dial) {
        return !dial.promises.empty() && formula.find(dial.name) != std::string::npos &&
               rename_in_formula(formula, dial.name, "*") != formula;
    });
}

void LadderView::paint_open_step(QPainter& painter, const LadderRow& row) const {
    const Step& step = document_.finish().coats[row.coat].steps[row.step];
    const CheckedStep* checked = find_step(document_.checked(), row.name);
    const QString name = qs(shown_name(step.name));
    theme::paint_text(painter, row.name_area, name, theme::words(theme::plain, true), theme::text);
    const int after_name = QFontMetrics(theme::words(theme::plain, true)).horizontalAdvance(name) + 8;
    QStringList facts;
    if (!step.on || !document_.finish().coats[row.coat].on) facts.append(tr("off"));
    if (step.stand_in) facts.append(tr("stand-in"));
    if (find_ticked(document_.checked(), step.name) != nullptr) facts.append(tr("at ticks"));
    const auto thumb = drawing_.thumbnails().find(row.name);
    if (checked->typed) facts.append(type_words(checked->typed->type));
    if (checked->typed && thumb != drawing_.thumbnails().end()) {
        const bool exact =
            drawing_.stage().step == row.name && !drawing_.stage().reduced && !drawing_.stage().in_a_drag;
        const ValueRange range = exact ? drawing_.stage().range : thumb->second.range;
        facts.append(tr("%1 to %2%3")
                         .arg(qs(plain_number(static_cast<double>(range.least), 3)),
                              qs(plain_number(static_cast<double>(range.most), 3)),
                              exact ? QString() : QStringLiteral(" ≈")));
        if (range.not_finite > 0) facts.append(tr("some values are not finite"));
    }
    if (editing_ == Editing::step_name) facts.clear();
    theme::paint_text(painter, row.name_area.adjusted(after_name, 0, 0, 0), facts.join(QStringLiteral(" · ")),
                      theme::words(), theme::quiet);
    if (shows_values_) {
        paint_values(painter, row);
    } else if (editing_ != Editing::formula) {
        paint_formula(painter, row);
    }

    QRect line(row.formula_area.left(), row.formula_area.bottom() + 3, row.area.width() - row.formula_area.left() - 12,
               row_line_height);
    for (const RowLine& words : lines_) {
        const int left = words.marked ? 14 : 0;
        if (words.marked) theme::paint_notched_bar(painter, line.left(), line.left() + 8, line.center().y() + 1);
        theme::paint_text(painter, line.adjusted(left, 0, 0, 0), words.words, theme::words(theme::small), words.colour);
        const std::vector<QRect> areas = mend_areas(words, line);
        for (std::size_t i = 0; i < areas.size(); ++i) {
            painter.setPen(theme::border);
            painter.setBrush(theme::raised);
            painter.drawRoundedRect(areas[i].adjusted(0, 0, -1, -1), 3, 3);
            theme::paint_text(painter, areas[i].adjusted(6, 0, -4, 0), core_words(words.mends[i].words),
                              theme::words(theme::small), theme::celadon);
        }
        line.translate(0, row_line_height);
    }
}

void LadderView::paint_thread(QPainter& painter, const LadderRow& from, const LadderRow& to, int lane,
                              bool dashed) const {
    QPen pen(dashed ? theme::celadon : theme::gold, 2);
    if (dashed) pen.setDashPattern({1.5, 1.5});
    painter.setPen(pen);
    const int x = 32 - lane * 6;
    const int y0 = from.thumbnail.center().y() + (from.name == selected_shown_ ? 8 : 0);
    const int y1 = to.thumbnail.center().y() + (to.name == selected_shown_ ? -8 : 0);
    painter.drawPolyline(QPolygon({QPoint(38, y0), QPoint(x, y0), QPoint(x, y1), QPoint(38, y1)}));
}

void LadderView::paint_threads(QPainter& painter) const {
    painter.setPen(QPen(theme::border, 1));
    for (const LadderRow& row : rows_) {
        if (row.kind != LadderRowKind::step || row.name == selected_shown_) continue;
        if (!sources(row.name).empty()) {
            const int y = row.thumbnail.center().y();
            painter.drawLine(32, y, 38, y);
        }
    }
    const std::string centre = hovered_.empty() ? selected_shown_ : hovered_;
    const LadderRow* own = find_row(rows_, centre);
    if (own == nullptr) return;
    int lane = 0;
    for (const std::string& source : sources(centre)) {
        if (const LadderRow* row = find_row(rows_, source)) paint_thread(painter, *row, *own, lane++ % 4, false);
    }
    lane = 0;
    for (const std::string& user : users(centre)) {
        if (const LadderRow* row = find_row(rows_, user)) paint_thread(painter, *own, *row, 4 - lane++ % 2, true);
    }
}

// Ends of the selected step's threads that are out of view, as words that can be clicked.
void LadderView::paint_chips(QPainter& painter) {
    chips_.clear();
    const std::string& centre = selected_shown_;
    std::vector<std::string> above;
    std::vector<std::string> below;
    std::vector<std::string> ends = sources(centre);
    for (const std::string& user : users(centre)) ends.push_back(user);
    for (const std::string& end : ends) {
        const LadderRow* row = find_row(rows_, end);
        if (row == nullptr) continue;
        const QRect area = row->area.translated(-scrolled());
        if (area.bottom() < 8) above.push_back(end);
        if (area.top() > viewport()->height() - 8) below.push_back(end);
    }
    const auto put = [&](const std::vector<std::string>& names, int y, const QString& arrow) {
        int x = ladder_margin;
        for (const std::string& name : names) {
            const QString text = arrow + qs(shown_name(name));
            const int width = QFontMetrics(theme::figures(theme::tiny)).horizontalAdvance(text) + 12;
            if (x + width > viewport()->width() - 12) return;
            const QRect area(x, y, width, 18);
            painter.setPen(theme::hairline);
            painter.setBrush(theme::raised);
            painter.drawRoundedRect(area, 3, 3);
            theme::paint_text(painter, area, text, theme::figures(theme::tiny), theme::gold, Qt::AlignHCenter);
            chips_.push_back({area, name});
            x += width + 6;
        }
    };
    put(above, 4, QStringLiteral("↑ "));
    put(below, viewport()->height() - 24, QStringLiteral("↓ "));
}

}  // namespace lacquer
