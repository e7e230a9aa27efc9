#include "desktop/stage/transect_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"

namespace lacquer {

namespace {

constexpr int left_margin = 44;
constexpr int right_margin = 12;
constexpr int top_margin = 24;
constexpr int bottom_margin = 20;

// Curves differ by pattern as well as by colour.
const std::array<QPen, 4> pens = {QPen(theme::gold, 1.6), QPen(theme::celadon, 1.6, Qt::DashLine),
                                  QPen(theme::vermilion_text, 1.6, Qt::DotLine),
                                  QPen(theme::text, 1.2, Qt::DashDotLine)};

void collect_edges(const Expression& e, const Finish& finish, std::vector<std::string>& names) {
    for (const Expression& arg : e.args) collect_edges(arg, finish, names);
    if (e.kind != ExpressionKind::call) return;
    const std::size_t edges = e.text == "smoothstep" ? 2 : e.text == "step" ? 1 : 0;
    for (std::size_t i = 0; i < std::min(edges, e.args.size()); ++i) {
        const Dial* dial = e.args[i].kind == ExpressionKind::name ? find_dial(finish, e.args[i].text) : nullptr;
        if (dial != nullptr && dial->kind == DialKind::number) names.push_back(dial->name);
    }
    if (e.text != "threshold" || e.args.size() < 2 || e.args[1].kind != ExpressionKind::name) return;
    if (find_dial(finish, e.args[1].text) != nullptr) names.push_back(e.args[1].text);
}

}  // namespace

TransectView::TransectView(Models& models, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing), drawing_(models.drawing) {
    setObjectName(QStringLiteral("transect"));
    setAccessibleName(tr("Transect"));
    setMouseTracking(true);
    connect(&drawing_, &Drawing::probe_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, [this] { dragged_dial_.clear(); });
    connect(&drawing_, &Drawing::shown_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::selection_changed, this, qOverload<>(&QWidget::update));
}

void TransectView::set_line(int first, int count, double length) {
    first_ = first;
    count_ = count;
    length_ = std::max(1.0, length);
    update();
}

QRect TransectView::plot() const { return rect().adjusted(left_margin, top_margin, -right_margin, -bottom_margin); }

// The selected step, the one on the stage, the pinned one, and what the selected one compares with its edges.
std::vector<TransectView::Curve> TransectView::curves() const {
    std::vector<std::string> names{document_.selected()};
    names.push_back(drawing_.shown().empty() ? finished_step(document_.checked()) : drawing_.shown());
    if (!drawing_.look().pinned.empty()) names.push_back(drawing_.look().pinned);
    std::vector<Curve> all;
    std::vector<std::string> done;
    for (const std::string& name : names) {
        if (std::find(done.begin(), done.end(), name) != done.end()) continue;
        done.push_back(name);
        const DrawnStep* drawn = drawing_.probe().find(name);
        if (drawn == nullptr || drawn->picture.width < first_ + count_) continue;
        const int parts = width_of(drawn->type);
        // A colour is read by its brightness: ITU-R BT.709.
        const bool colour = parts >= 3;
        for (int part = 0; part < (colour ? 1 : parts); ++part) {
            Curve curve{shown_name(name), {}};
            if (parts == 2) curve.name += part == 0 ? " x" : " y";
            if (colour) curve.name += " brightness";
            for (int i = 0; i < count_; ++i) {
                const float* at = drawn->picture.at(first_ + i, 0);
                curve.values.push_back(colour ? 0.2126F * at[0] + 0.7152F * at[1] + 0.0722F * at[2] : at[part]);
            }
            all.push_back(std::move(curve));
        }
    }
    return all;
}

std::vector<std::string> TransectView::curve_names() const {
    std::vector<std::string> names;
    for (const Curve& curve : curves()) names.push_back(curve.name);
    return names;
}

float TransectView::value_of(const std::string& curve, int sample) const {
    for (const Curve& c : curves()) {
        if (c.name == curve && sample < static_cast<int>(c.values.size()))
            return c.values[static_cast<std::size_t>(sample)];
    }
    return std::nanf("");
}

std::pair<float, float> TransectView::range(const std::vector<Curve>& curves) const {
    float least = 0;
    float most = 1;
    for (const Curve& curve : curves) {
        for (const float value : curve.values) {
            if (!std::isfinite(value)) continue;
            least = std::min(least, value);
            most = std::max(most, value);
        }
    }
    return {least, most};
}

double TransectView::y_of(double value, std::pair<float, float> range) const {
    const QRect area = plot();
    const double low = static_cast<double>(range.first);
    const double high = static_cast<double>(range.second);
    return area.bottom() - (value - low) / (high - low) * area.height();
}

std::vector<std::string> TransectView::edge_dials() const {
    std::vector<std::string> names;
    const Step* step = find_step(document_.finish(), document_.selected());
    if (step == nullptr || is_code(step->formula)) return names;
    if (const Result<Expression> parsed = parse(step->formula)) collect_edges(*parsed, document_.finish(), names);
    return names;
}

int TransectView::edge_y(const std::string& dial) const {
    const auto value = playing_.values().find(dial);
    if (value == playing_.values().end()) return -1;
    return static_cast<int>(y_of(setting_from(value->second)[0], range(curves())));
}

QString TransectView::reading() const {
    const auto [low, high] = std::minmax(guides_[0], guides_[1]);
    const double width = (high - low) * length_;
    QStringList words{tr("width %1 px").arg(qs(plain_number(width, 1)))};
    for (const Curve& curve : curves()) {
        const auto at = [&](double share) {
            const auto i = static_cast<std::size_t>(std::lround(share * (count_ - 1)));
            return static_cast<double>(curve.values[std::min(i, curve.values.size() - 1)]);
        };
        if (curve.values.empty()) continue;
        const double rise = at(high) - at(low);
        words.append(tr("%1 %2 to %3, %4 per 100 px")
                         .arg(qs(curve.name), qs(plain_number(at(low), 3)), qs(plain_number(at(high), 3)),
                              qs(plain_number(width > 0 ? rise / width * 100 : 0, 3))));
    }
    return words.join(QStringLiteral(" · "));
}

void TransectView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::page);
    painter.setPen(theme::hairline);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
    const QRect area = plot();
    const std::vector<Curve> all = curves();
    const auto span = range(all);
    theme::paint_text(painter, QRect(left_margin, 3, width() - left_margin - right_margin, 18), reading(),
                      theme::words(theme::small), theme::text);
    if (all.empty()) {
        theme::paint_text(painter, area, tr("Drawing…"), theme::words(theme::small), theme::quiet);
        return;
    }
    // Round values across, pixels along.
    const double low = static_cast<double>(span.first);
    const double high = static_cast<double>(span.second);
    const double raw = (high - low) / 4;
    const double power = std::pow(10.0, std::floor(std::log10(raw)));
    const double by = power * (raw / power >= 5 ? 5 : raw / power >= 2 ? 2 : 1);
    for (double value = std::ceil(low / by) * by; value <= high + by / 100; value += by) {
        const int y = static_cast<int>(y_of(value, span));
        painter.fillRect(QRect(area.left(), y, area.width(), 1), theme::grid);
        theme::paint_text(painter, QRect(2, y - 7, left_margin - 8, 14), qs(plain_number(value, 3)),
                          theme::figures(theme::tiny), theme::quiet, Qt::AlignRight);
    }
    for (int i = 0; i <= 4; ++i) {
        const int x = area.left() + area.width() * i / 4;
        const QRect label = i == 0   ? QRect(x, area.bottom() + 3, 80, 14)
                            : i == 4 ? QRect(x - 80, area.bottom() + 3, 80, 14)
                                     : QRect(x - 40, area.bottom() + 3, 80, 14);
        theme::paint_text(painter, label, tr("%1 px").arg(std::lround(length_ * i / 4)), theme::figures(theme::tiny),
                          theme::quiet,
                          i == 0   ? Qt::AlignLeft
                          : i == 4 ? Qt::AlignRight
                                   : Qt::AlignHCenter);
    }
    painter.setRenderHint(QPainter::Antialiasing);
    int label_x = area.left() + 6;
    for (std::size_t c = 0; c < all.size(); ++c) {
        painter.setPen(pens[c % pens.size()]);
        QPolygonF line;
        for (std::size_t i = 0; i < all[c].values.size(); ++i) {
            const double value = static_cast<double>(all[c].values[i]);
            if (!std::isfinite(value)) continue;
            const double x = area.left() + static_cast<double>(i) / std::max(1, count_ - 1) * area.width();
            line.append(QPointF(x, y_of(value, span)));
        }
        painter.drawPolyline(line);
        painter.drawLine(label_x, area.top() + 7, label_x + 18, area.top() + 7);
        const QString name = qs(all[c].name);
        theme::paint_text(painter, QRect(label_x + 22, area.top(), 160, 14), name, theme::words(theme::small),
                          theme::text);
        label_x += 34 + QFontMetrics(theme::words(theme::small)).horizontalAdvance(name);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (const std::string& dial : edge_dials()) {
        const int y = edge_y(dial);
        if (y < area.top() || y > area.bottom()) continue;
        painter.setPen(QPen(theme::vermilion, 1, Qt::DashLine));
        painter.drawLine(area.left(), y, area.right(), y);
        theme::paint_text(painter, QRect(area.right() - 120, y - 15, 116, 14), qs(shown_name(dial)),
                          theme::words(theme::small), theme::vermilion_text, Qt::AlignRight);
    }
    for (const double guide : guides_) {
        const int x = area.left() + static_cast<int>(guide * area.width());
        painter.fillRect(QRect(x, area.top(), 1, area.height()), theme::text);
        painter.fillRect(QRect(x - 3, area.bottom() - 5, 7, 6), theme::text);
    }
}

void TransectView::mousePressEvent(QMouseEvent* event) {
    const QRect area = plot();
    dragged_guide_ = -1;
    dragged_dial_.clear();
    constexpr int near_by = 5;
    for (std::size_t i = 0; i < guides_.size(); ++i) {
        const int x = area.left() + static_cast<int>(guides_[i] * area.width());
        if (std::abs(event->pos().x() - x) <= near_by) dragged_guide_ = static_cast<int>(i);
    }
    if (dragged_guide_ >= 0) return;
    for (const std::string& dial : edge_dials()) {
        if (std::abs(event->pos().y() - edge_y(dial)) > near_by) continue;
        dragged_dial_ = dial;
        document_.set_interacting(true);
        return;
    }
    // Elsewhere the nearer guide comes.
    const double share = std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), 0.0, 1.0);
    dragged_guide_ = std::fabs(share - guides_[0]) < std::fabs(share - guides_[1]) ? 0 : 1;
    guides_[static_cast<std::size_t>(dragged_guide_)] = share;
    update();
    parentWidget()->update();
}

void TransectView::mouseMoveEvent(QMouseEvent* event) {
    const QRect area = plot();
    if (dragged_guide_ >= 0 && (event->buttons() & Qt::LeftButton) != 0) {
        guides_[static_cast<std::size_t>(dragged_guide_)] =
            std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), 0.0, 1.0);
        parentWidget()->update();
        return update();
    }
    if (!dragged_dial_.empty()) {
        const auto span = range(curves());
        const double value = static_cast<double>(span.first) + (area.bottom() - event->pos().y()) *
                                                                   static_cast<double>(span.second - span.first) /
                                                                   area.height();
        const Dial* dial = find_dial(document_.finish(), dragged_dial_);
        if (dial == nullptr) return;
        const double unit = dial->increment;
        const double snapped = std::round(std::clamp(value, dial->least, dial->most) / unit) * unit;
        playing_.set_dial(dragged_dial_, {std::round(snapped * 1e9) / 1e9, 0, 0});
        return;
    }
    bool edge = false;
    for (const std::string& dial : edge_dials()) edge = edge || std::abs(event->pos().y() - edge_y(dial)) <= 5;
    setCursor(edge ? Qt::SizeVerCursor : Qt::ArrowCursor);
}

void TransectView::mouseReleaseEvent(QMouseEvent*) {
    if (!dragged_dial_.empty()) document_.set_interacting(false);
    dragged_dial_.clear();
    dragged_guide_ = -1;
}

}  // namespace lacquer
