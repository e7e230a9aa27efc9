// How the stage is looked at. None of it changes the finish.
#pragma once

#include <QColor>
#include <QSize>
#include <string>

#include "core/render/view.h"
#include "desktop/kit/theme.h"

namespace lacquer {

/// What lies behind pictures with opacity.
enum class Backdrop { checker, black, white, own };

struct Look {
    ViewStyle style;
    bool curtain = false;
    std::string curtain_other;  ///< the step or picture on its left; empty for the first picture, as it came in
    double curtain_at = 0.5;    ///< share of the picture's width
    std::string pinned;         ///< a step that stays in view beside the one that is shown
    QSize frame;                ///< another frame to look at; empty for the finish's own
    std::string droplets;       ///< the ground of droplets whose page is open, so that its hands are seen
    bool line_grid = false;     ///< straight lines in place of pictures
    bool safe_area = false;     ///< lines within which screens show everything
    int decimals = 3;           ///< of values that are shown
    Backdrop backdrop = Backdrop::checker;
    QColor own_backdrop = theme::backdrop;
    friend bool operator==(const Look&, const Look&) = default;
};

}  // namespace lacquer
