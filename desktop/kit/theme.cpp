#include "desktop/kit/theme.h"

#include <fontconfig/fontconfig.h>
#include <QApplication>
#include <QFontDatabase>
#include <QPalette>
#include <algorithm>
#include <cmath>

#include "core/picture/transfer.h"
#include "desktop/kit/accessible_cells.h"

// Resources of a static library are linked in only when named, and the name lives outside all namespaces.
static void load_resources() { Q_INIT_RESOURCE(resources); }

namespace lacquer::theme {

namespace {

QString style_sheet() {
    return QStringLiteral(
               "QToolTip { background: %1; color: %2; border: 1px solid %3; padding: 3px 6px; }"
               "QMenu { background: %1; color: %2; border: 1px solid %3; padding: 4px 0; }"
               "QMenu::item { padding: 4px 24px 4px 12px; }"
               "QMenu::item:selected { background: %3; }"
               "QMenu::item:disabled { color: %8; }"
               "QMenu::separator { height: 1px; background: %3; margin: 4px 0; }"
               "QLineEdit, QPlainTextEdit { background: %4; color: %2; border: 1px solid %9; border-radius: 2px;"
               " padding: 1px 3px; selection-background-color: %6; selection-color: %2; }"
               "QLineEdit:focus, QPlainTextEdit:focus { border-color: %5; }"
               "QPushButton { background: %1; color: %2; border: 1px solid %9; border-radius: 3px; padding: 3px "
               "10px; }"
               "QPushButton:hover { border-color: %7; }"
               "QPushButton:focus { border-color: %5; }"
               "QPushButton:checked { background: %4; border-color: %7; }"
               "QPushButton:disabled { color: %8; }"
               "QPushButton::menu-indicator { image: none; width: 0; }"
               "QScrollBar:vertical { background: transparent; width: 8px; margin: 0; }"
               "QScrollBar::handle:vertical { background: %3; border-radius: 3px; min-height: 24px; margin: 1px; }"
               "QScrollBar:horizontal { background: transparent; height: 8px; margin: 0; }"
               "QScrollBar::handle:horizontal { background: %3; border-radius: 3px; min-width: 24px; margin: 1px; }"
               "QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }"
               "QSplitter::handle { background: %3; }")
        .arg(raised.name(), text.name(), hairline.name(), black.name(), gold.name(), marked.name(), quiet.name(),
             disabled.name(), border.name());
}

}  // namespace

QColor faint(QColor colour) {
    constexpr int little = 0x55;
    colour.setAlpha(little);
    return colour;
}

QFont words(int pixels, bool bold) {
    QFont font(QStringLiteral("B612"));
    font.setPixelSize(pixels);
    font.setBold(bold);
    return font;
}

QFont figures(int pixels) {
    QFont font(QStringLiteral("JetBrains Mono"));
    font.setPixelSize(pixels);
    font.setFixedPitch(true);
    return font;
}

void prepare_fonts() {
    constexpr const char* rules =
        "<fontconfig><selectfont><rejectfont><pattern><patelt name=\"family\"><string>B612 Mono</string></patelt>"
        "</pattern></rejectfont></selectfont></fontconfig>";
    FcConfig* config = FcInitLoadConfig();
    if (config == nullptr) return;
    FcConfigParseAndLoadFromMemory(config, reinterpret_cast<const FcChar8*>(rules), FcTrue);
    if (FcConfigBuildFonts(config) == FcFalse || FcConfigSetCurrent(config) == FcFalse) FcConfigDestroy(config);
}

void apply(QApplication& application) {
    load_resources();
    for (const char* file :
         {":/fonts/B612-Regular.otf", ":/fonts/B612-Bold.otf", ":/fonts/JetBrainsMono-Regular.ttf"}) {
        QFontDatabase::addApplicationFont(QString::fromLatin1(file));
    }
    application.setStyle(QStringLiteral("Fusion"));
    application.setFont(words());
    QPalette palette;
    palette.setColor(QPalette::Window, panel);
    palette.setColor(QPalette::WindowText, text);
    palette.setColor(QPalette::Base, black);
    palette.setColor(QPalette::AlternateBase, panel);
    palette.setColor(QPalette::Text, text);
    palette.setColor(QPalette::PlaceholderText, quiet);
    palette.setColor(QPalette::Button, raised);
    palette.setColor(QPalette::ButtonText, text);
    palette.setColor(QPalette::Highlight, marked);
    palette.setColor(QPalette::HighlightedText, text);
    palette.setColor(QPalette::ToolTipBase, raised);
    palette.setColor(QPalette::ToolTipText, text);
    application.setPalette(palette);
    application.setStyleSheet(style_sheet());
    install_accessible_cells();
}

void paint_checker(QPainter& painter, const QRect& area) {
    constexpr int side = 8;
    painter.save();
    painter.setClipRect(area, Qt::IntersectClip);
    painter.fillRect(area, QColor(0x66, 0x66, 0x66));
    for (int y = area.top(); y <= area.bottom(); y += side) {
        const int odd = ((y - area.top()) / side) % 2;
        for (int x = area.left() + odd * side; x <= area.right(); x += 2 * side) {
            painter.fillRect(x, y, side, side, QColor(0x99, 0x99, 0x99));
        }
    }
    painter.restore();
}

void paint_focus(QPainter& painter, const QRect& area) {
    painter.save();
    painter.setPen(QPen(gold, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(area.adjusted(0, 0, -1, -1));
    painter.restore();
}

void paint_focus_line(QPainter& painter, const QRect& view) {
    painter.fillRect(QRect(view.left(), view.top(), view.width(), 2), gold);
}

void paint_notched_bar(QPainter& painter, int left, int right, int y) {
    painter.fillRect(left, y, std::max(4, right - left), 2, vermilion);
    for (int x = left; x < std::max(left + 4, right); x += 6) painter.fillRect(x, y - 2, 2, 2, vermilion);
}

void paint_own_mark(QPainter& painter, QPoint middle) {
    const QPolygon shape(
        {middle + QPoint(0, -3), middle + QPoint(3, 0), middle + QPoint(0, 3), middle + QPoint(-3, 0)});
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(gold);
    painter.drawPolygon(shape);
    painter.restore();
}

void paint_promise_mark(QPainter& painter, QPoint middle) {
    painter.save();
    painter.setPen(QPen(celadon, 1.5));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.drawPolyline(QPolygon({middle + QPoint(-4, 0), middle + QPoint(-1, 3), middle + QPoint(4, -3)}));
    painter.restore();
}

QColor swatch(const std::array<double, 3>& colour) {
    const double brightness = std::max({1.0, colour[0], colour[1], colour[2]});
    const auto level = [&](double part) {
        return static_cast<int>(std::lround(std::clamp(srgb_encode(part / brightness), 0.0, 1.0) * 255));
    };
    return {level(colour[0]), level(colour[1]), level(colour[2])};
}

void paint_text(QPainter& painter, const QRect& area, const QString& words_shown, const QFont& font,
                const QColor& colour, Qt::Alignment alignment) {
    painter.setFont(font);
    painter.setPen(colour);
    const QString shown = painter.fontMetrics().elidedText(words_shown, Qt::ElideRight, area.width());
    painter.drawText(area, static_cast<int>(alignment | Qt::AlignVCenter) | Qt::TextSingleLine, shown);
}

}  // namespace lacquer::theme
