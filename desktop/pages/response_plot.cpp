#include "desktop/pages/response_plot.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/play.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr double lead_in = 0.1;  // seconds before the cue

// How long there is something to see: until it is at rest, or a few seconds of what never rests.
double seconds_shown(const Answerer& answer) {
    constexpr double longest = 12;
    double last = 0;
    const double end = answer(longest).value[0];
    for (int i = 0; i <= 600; ++i) {
        const double time = longest * i / 600;
        if (std::fabs(answer(time).value[0] - end) > 1e-6) last = time;
    }
    return last > longest * 0.9 ? 4 : std::max(0.5, last * 1.15);
}

}  // namespace

ResponsePlot::ResponsePlot(Models& models, std::string response, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing), name_(std::move(response)) {
    setObjectName(QStringLiteral("response_plot"));
    setFixedHeight(84);
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
}

void ResponsePlot::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const QRect area = rect().adjusted(0, 4, 0, -14);
    painter.fillRect(area, theme::black);
    const Response* response = find_response(document_.finish(), name_);
    if (response == nullptr) return;
    // One full and one weak cue, and signals that go from one end to the other half-way.
    const auto played = [&](double strength) {
        Tape tape;
        if (!response->cue.empty()) tape.cues = {{response->cue, lead_in, strength}};
        const bool changes = response->cue.empty();
        for (const Signal& signal : document_.finish().signals) {
            if (!changes) break;
            tape.changes.push_back({signal.name, 0, {signal.least, 0, 0}});
            tape.changes.push_back({signal.name, 0.5, {signal.most, 1, 0}});
        }
        sort_tape(tape);
        const auto play = std::make_shared<const Play>(playing_.tape_play()->shared_checked(), tape);
        return Answerer([play, name = name_](double time) { return play->answer(name, time); });
    };
    const Answerer strong = played(1);
    const Answerer weak = played(0.3);
    const double seconds = seconds_shown(strong);
    double least = 0;
    double most = 0;
    std::vector<std::pair<QPolygonF, QColor>> lines;
    const ResponseKind* kind = find_response_kind(response->kind);
    for (const bool full : {false, true}) {
        if (!full && response->cue.empty()) continue;
        const Answerer& answer = full ? strong : weak;
        for (int part = 0; part < (kind != nullptr ? kind->width : 1); ++part) {
            QPolygonF line;
            for (int x = 0; x < area.width(); ++x) {
                const double value = answer(seconds * x / area.width()).value[static_cast<std::size_t>(part)];
                least = line.isEmpty() && lines.empty() ? value : std::min(least, value);
                most = line.isEmpty() && lines.empty() ? value : std::max(most, value);
                line.append(QPointF(x, value));
            }
            lines.emplace_back(std::move(line), full ? theme::vermilion : theme::vermilion_dim);
        }
    }
    if (!(most > least)) most = least + 1;
    painter.setRenderHint(QPainter::Antialiasing);
    for (auto& [line, colour] : lines) {
        for (QPointF& point : line)
            point = {area.left() + point.x(),
                     area.bottom() - 4 - (point.y() - least) / (most - least) * (area.height() - 8)};
        painter.setPen(QPen(colour, 1.5));
        painter.drawPolyline(line);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    const QRect foot(area.left(), area.bottom() + 1, area.width(), 14);
    const QString words =
        response->cue.empty() ? tr("signals go from end to end at 0.5 s") : tr("a cue of strength 1, and one of 0.3");
    theme::paint_text(painter, foot, words, theme::words(theme::tiny), theme::quiet);
    theme::paint_text(painter, foot, tr("%1 s").arg(qs(plain_number(seconds, 2))), theme::figures(theme::tiny),
                      theme::quiet, Qt::AlignRight);
    theme::paint_text(painter, QRect(area.left() + 4, area.top(), 80, 14), qs(plain_number(most, 3)),
                      theme::figures(theme::tiny), theme::quiet);
    theme::paint_text(painter, QRect(area.left() + 4, area.bottom() - 14, 80, 14), qs(plain_number(least, 3)),
                      theme::figures(theme::tiny), theme::quiet);
}

}  // namespace lacquer
