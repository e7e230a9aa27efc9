// Colours, type and small drawing habits of the whole window.
#pragma once

#include <QColor>
#include <QFont>
#include <QPainter>
#include <QString>
#include <array>

class QApplication;

namespace lacquer::theme {

inline constexpr QColor black{0x17, 0x14, 0x12};  ///< behind everything
inline constexpr QColor panel{0x1F, 0x1B, 0x18};
inline constexpr QColor raised{0x29, 0x23, 0x1F};
inline constexpr QColor hairline{0x3A, 0x32, 0x2C};
inline constexpr QColor text{0xE9, 0xE2, 0xD8};
inline constexpr QColor quiet{0xA3, 0x97, 0x8A};
inline constexpr QColor vermilion{0xD9, 0x47, 0x2B};       ///< alive and driven
inline constexpr QColor vermilion_text{0xFF, 0x8A, 0x6B};  ///< the same, as words
inline constexpr QColor gold{0xE0, 0xB0, 0x4A};            ///< selected, and what it comes from
inline constexpr QColor celadon{0x7F, 0xB7, 0x9A};         ///< on, passed, and what uses the selected
inline constexpr QColor stage_grey{0x2B, 0x2B, 0x2B};      ///< round every picture

/// Words: B612, 12 px unless told otherwise.
QFont words(int pixels = 12, bool bold = false);
/// Formulas and figures: JetBrains Mono, 11 px unless told otherwise.
QFont figures(int pixels = 11);

/// Keeps the system's B612 Mono, which also answers to the name B612, from taking its place. To be called before the
/// application is made.
void prepare_fonts();

/// Loads the shipped fonts and gives the application its palette and style sheet.
void apply(QApplication& application);

/// A checker of two greys behind pictures with opacity.
void paint_checker(QPainter& painter, const QRect& area);

/// A bar with notches, the mark under words at fault.
void paint_notched_bar(QPainter& painter, int left, int right, int y);

/// A colour in linear light as the screen shows it, held to what it can; one that is brighter keeps its hue.
QColor swatch(const std::array<double, 3>& colour);

/// `words_shown` cut to `width` with an ellipsis, drawn from the left, centred upright in `area`.
void paint_text(QPainter& painter, const QRect& area, const QString& words_shown, const QFont& font,
                const QColor& colour, Qt::Alignment alignment = Qt::AlignLeft);

}  // namespace lacquer::theme
