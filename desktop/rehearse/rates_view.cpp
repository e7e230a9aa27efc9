#include "desktop/rehearse/rates_view.h"

#include <QPainter>

#include "core/base/text.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int line_height = 18;

QString row_words(const RateRow& row) {
    const QString difference = qs(plain_number(row.largest, 4));
    if (!row.why.empty()) return QStringLiteral("%1 %2 · %3").arg(qs(shown_name(row.name)), difference, qs(row.why));
    return QStringLiteral("%1 %2").arg(qs(shown_name(row.name)), difference);
}

}  // namespace

RatesView::RatesView(Models& models, QWidget* parent) : QWidget(parent), drawing_(models.drawing) {
    setObjectName(QStringLiteral("rates"));
    setAccessibleName(tr("Frame-rate check"));
    connect(&drawing_, &Drawing::rates_changed, this, [this] {
        updateGeometry();
        setToolTip(lines().join(QLatin1Char('\n')));
        update();
    });
}

QStringList RatesView::lines() const {
    const RateReport* report = drawing_.rates();
    if (drawing_.checking_rates()) return {tr("playing the tape at every rate ...")};
    if (report == nullptr) return {tr("the same tape at 24, 30, 60 and 144 frames/s, and uneven ones")};
    QStringList lines{qs(report->words)};
    lines.append(tr("%1 picture: at most %2, on average %3, in %4")
                     .arg(report->picture_largest <= 1e-5 ? QStringLiteral("✓") : QStringLiteral("✗"),
                          qs(plain_number(report->picture_largest, 4)), qs(plain_number(report->picture_mean, 5)),
                          QString::number(report->pictures)));
    QStringList plain;
    for (const RateRow& row : report->rows) {
        const QString mark = row.largest <= 1e-5 ? QStringLiteral("✓ ") : QStringLiteral("✗ ");
        (row.why.empty() ? plain : lines).append(mark + row_words(row));
    }
    // What there is nothing to say about stands together.
    if (!plain.isEmpty()) lines.append(plain.join(QStringLiteral("   ")));
    return lines;
}

QSize RatesView::sizeHint() const {
    // Long lines take two.
    int rows = 0;
    for (const QString& line : lines()) rows += line.size() > 60 ? static_cast<int>(line.size() / 52) + 1 : 1;
    return {360, rows * line_height};
}

void RatesView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    painter.setFont(theme::words());
    int y = 0;
    for (const QString& line : lines()) {
        const QColor colour = line.startsWith(QStringLiteral("✗"))   ? theme::vermilion_text
                              : line.startsWith(QStringLiteral("✓")) ? theme::celadon
                              : drawing_.rates() != nullptr          ? theme::text
                                                                     : theme::quiet;
        painter.setPen(colour);
        const QRect area = painter.boundingRect(QRect(0, y, width(), 200), Qt::TextWordWrap, line);
        painter.drawText(area, Qt::TextWordWrap, line);
        y = area.bottom() + 4;
    }
}

}  // namespace lacquer
