#include "desktop/pages/drop_plot.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <utility>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/drop_counts.h"
#include "desktop/playing/playing.h"

namespace lacquer {

namespace {

constexpr int pixels_a_sample = 3;

}  // namespace

DropPlot::DropPlot(Models& models, std::string ground, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing), ground_(std::move(ground)) {
    setObjectName(QStringLiteral("drop_plot"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setToolTip(tr("How many live over the tape, its cues below; now, and in the long run if things stay as they are"));
    connect(&document_, &Document::finish_changed, this, &DropPlot::count_anew);
    connect(&playing_, &Playing::played_changed, this, &DropPlot::count_anew);
    connect(&playing_, &Playing::time_changed, this, [this] {
        setAccessibleName(words());
        update();
    });
    setAccessibleName(words());
}

void DropPlot::count_anew() {
    counts_.clear();
    setAccessibleName(words());
    update();
}

QString DropPlot::words() const {
    const Emitter* emitter = playing_.play().emitter(ground_);
    if (emitter == nullptr) return tr("none");
    const double now = playing_.play().drop_count(ground_, playing_.time());
    return tr("%1 live, in the long run %2")
        .arg(qs(plain_number(now, 0)), qs(plain_number(emitter->steady(playing_.time()), 1)));
}

void DropPlot::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const QString told = words();
    const int told_width = QFontMetrics(theme::words(theme::small)).horizontalAdvance(told) + 8;
    const QRect plot = rect().adjusted(0, 1, -told_width, -1);
    theme::paint_text(painter, QRect(plot.right() + 8, 0, told_width, height()), told, theme::words(theme::small),
                      theme::quiet);
    if (plot.width() < 2 * pixels_a_sample) return;
    painter.fillRect(plot, theme::black);
    const double length = std::max(document_.finish().length, 1e-3);
    const auto x_of = [&](double time) { return plot.left() + time / length * (plot.width() - 1); };
    const int samples = std::max(2, plot.width() / pixels_a_sample);
    if (static_cast<int>(counts_.size()) != samples)
        counts_ = drop_counts(playing_.play(), ground_, 0, length, samples);
    const float most = std::max(1.0F, *std::max_element(counts_.begin(), counts_.end()));
    QPainterPath line;
    for (std::size_t i = 0; i < counts_.size(); ++i) {
        const double x = x_of(length * static_cast<double>(i) / static_cast<double>(counts_.size() - 1));
        const QPointF at(x, plot.bottom() - 2 - static_cast<double>(counts_[i] / most) * (plot.height() - 5));
        i == 0 ? line.moveTo(at) : line.lineTo(at);
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::celadon, 1.2));
    painter.drawPath(line);
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (const Cue& cue : playing_.played().cues)
        painter.fillRect(QRect(static_cast<int>(x_of(cue.at)), plot.bottom() - 3, 2, 4), theme::vermilion);
    painter.fillRect(QRect(static_cast<int>(x_of(playing_.time())), plot.top(), 1, plot.height()), theme::text);
}

}  // namespace lacquer
