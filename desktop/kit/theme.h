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
inline constexpr QColor stage_words{0xBB, 0xB3, 0xA9};     ///< quiet words on that grey
inline constexpr QColor page{0x1B, 0x17, 0x15};            ///< behind rows and plots
inline constexpr QColor heading{0x24, 0x1E, 0x1A};         ///< behind headings, and between rows
inline constexpr QColor open_row{0x2A, 0x23, 0x1D};
inline constexpr QColor grid{0x2C, 0x25, 0x21};  ///< levels of a plot
inline constexpr QColor faint_grid{0x23, 0x1E, 0x1A};
inline constexpr QColor border{0x4A, 0x40, 0x38};     ///< of buttons and fields, and stubs of threads
inline constexpr QColor edge{0x5A, 0x50, 0x48};       ///< of what stands over the window
inline constexpr QColor word_edge{0x6A, 0x5F, 0x54};  ///< round or under a word
inline constexpr QColor disabled{0x6F, 0x65, 0x5B};
inline constexpr QColor marked{0x5A, 0x4A, 0x2A};  ///< behind selected text
inline constexpr QColor pressed{0x4A, 0x20, 0x18};
inline constexpr QColor vermilion_dim{0x7A, 0x38, 0x2A};  ///< what answers weakly
inline constexpr QColor shade{0x17, 0x14, 0x12, 0xE0};    ///< behind words over a picture
inline constexpr QColor veil{0x2B, 0x2B, 0x2B, 0x90};     ///< over a picture that is out of date
inline constexpr QColor halo{0x00, 0x00, 0x00, 0xB0};     ///< round lines over a picture
inline constexpr QColor backdrop{0x40, 0x50, 0x60};       ///< of one's own, until one is chosen

/// Heights of type, in pixels.
inline constexpr int tiny = 10;
inline constexpr int small = 11;
inline constexpr int plain = 12;
inline constexpr int title = 13;
inline constexpr int huge = 32;

/// Distances that all views keep, in pixels.
inline constexpr int margin = 12;  ///< from a view's border
inline constexpr int gap = 8;      ///< between cards and cells
inline constexpr int radius = 3;   ///< of corners
inline constexpr int header = 34;  ///< height of a panel's head

/// The same colour, but little of it.
QColor faint(QColor colour);

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

/// Round what the keys are on.
void paint_focus(QPainter& painter, const QRect& area);
/// Along the top of a view that the keys are on.
void paint_focus_line(QPainter& painter, const QRect& view);

/// A bar with notches, the mark under words at fault.
void paint_notched_bar(QPainter& painter, int left, int right, int y);

/// Beside the name of what the variant that is on has of its own, with its middle there.
void paint_own_mark(QPainter& painter, QPoint middle);
/// Beside the name of what must pass measures.
void paint_promise_mark(QPainter& painter, QPoint middle);

/// A colour in linear light as the screen shows it, held to what it can; one that is brighter keeps its hue.
QColor swatch(const std::array<double, 3>& colour);

/// `words_shown` cut to `width` with an ellipsis, drawn from the left, centred upright in `area`.
void paint_text(QPainter& painter, const QRect& area, const QString& words_shown, const QFont& font,
                const QColor& colour, Qt::Alignment alignment = Qt::AlignLeft);

}  // namespace lacquer::theme
