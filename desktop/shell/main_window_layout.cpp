// How the window shares out its room: kept between runs, larger here or there by one key, the stage alone by another.
#include <QAction>
#include <QScreen>
#include <QSplitter>
#include <QStackedWidget>

#include "desktop/document/document.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/notice_bar.h"
#include "desktop/shell/settings.h"
#include "desktop/shell/top_bar.h"
#include "desktop/stage/stage_view.h"
#include "desktop/sweep/sweep_screen.h"

namespace lacquer {

namespace {

constexpr QSize first_size{1280, 800};
constexpr int first_ladder_width = 460;
constexpr int first_dials_height = 264;
constexpr double large_share = 0.68;

QVariantList kept(const QSplitter& splitter) {
    QVariantList sizes;
    for (const int size : splitter.sizes()) sizes.append(size);
    return sizes;
}

QList<int> sizes_from(const QVariant& kept, const QList<int>& otherwise) {
    QList<int> sizes;
    for (const QVariant& size : kept.toList()) sizes.append(size.toInt());
    return sizes.size() == 2 ? sizes : otherwise;
}

}  // namespace

void MainWindow::restore_layout() {
    // At first as large as is usual, but no larger than the screen has room for.
    const QRect room = screen()->availableGeometry();
    resize(first_size.boundedTo(room.size()));
    const QByteArray geometry = settings_.value("window/geometry").toByteArray();
    if (!geometry.isEmpty()) restoreGeometry(geometry);
    columns_->setSizes(sizes_from(settings_.value("window/columns"),
                                  {first_ladder_width, std::max(320, width() - first_ladder_width)}));
    rows_->setSizes(sizes_from(settings_.value("window/rows"),
                               {std::max(180, height() - 90 - first_dials_height), first_dials_height}));
    rehearse_->set_sizes(sizes_from(settings_.value("window/rehearse_columns"), {}),
                         sizes_from(settings_.value("window/rehearse_rows"), {}));
    if (settings_.value("window/shelf").toBool()) dial_pages_->setCurrentIndex(shelf_page);
    sweep_->set_column_sizes(sizes_from(settings_.value("window/sweep_columns"), {}));
    const QString last = settings_.value("window/screen").toString();
    if (last == QStringLiteral("rehearse")) show_screen(Where::rehearse);
    if (last == QStringLiteral("sweep")) show_screen(Where::sweep);
    if (last == QStringLiteral("ship")) show_screen(Where::ship);
}

void MainWindow::keep_layout() {
    // What is only large for now is not how it usually is.
    set_stage_alone(false);
    hide_code();
    make_large(*columns_, columns_before_, 0, false);
    make_large(*rows_, rows_before_, 1, false);
    QVariantMap values;
    const auto keep = [&values](const char* key, const QVariant& value) { values[QString::fromLatin1(key)] = value; };
    keep("window/geometry", saveGeometry());
    keep("window/columns", kept(*columns_));
    keep("window/rows", kept(*rows_));
    const Where shown = screen_shown();
    keep("window/screen", shown == Where::rehearse ? QStringLiteral("rehearse")
                          : shown == Where::sweep  ? QStringLiteral("sweep")
                          : shown == Where::ship   ? QStringLiteral("ship")
                                                   : QStringLiteral("bench"));
    keep("window/shelf", dial_pages_->currentIndex() == shelf_page);
    const auto list = [](const QList<int>& sizes) {
        QVariantList numbers;
        for (const int size : sizes) numbers.append(size);
        return numbers;
    };
    if (!rehearse_->column_sizes().isEmpty()) keep("window/rehearse_columns", list(rehearse_->column_sizes()));
    keep("window/rehearse_rows", list(rehearse_->row_sizes()));
    keep("window/sweep_columns", list(sweep_->column_sizes()));
    settings_.set_values(values);
}

// More room for one side, and back again to what it was.
void MainWindow::make_large(QSplitter& splitter, QList<int>& before, int side, bool large) {
    if (large == !before.isEmpty()) return;
    if (!large) {
        splitter.setSizes(before);
        before.clear();
        return;
    }
    before = splitter.sizes();
    const int all = before.value(0) + before.value(1);
    const int more = static_cast<int>(all * large_share);
    splitter.setSizes(side == 0 ? QList<int>{more, all - more} : QList<int>{all - more, more});
}

void MainWindow::toggle_large_ladder() { make_large(*columns_, columns_before_, 0, columns_before_.isEmpty()); }

void MainWindow::toggle_large_dials() { make_large(*rows_, rows_before_, 1, rows_before_.isEmpty()); }

void MainWindow::set_stage_alone(bool alone) {
    if (alone == stage_alone_) return;
    if (alone && screen_shown() != Where::bench && !rehearses()) show_screen(Where::bench);
    stage_alone_ = alone;
    for (QWidget* other : {static_cast<QWidget*>(top_bar_), ladder_side_, dials_side_, foot_})
        other->setVisible(!alone);
    rehearse_->set_stage_alone(alone);
    if (alone) {
        stage_->setFocus();
        document_.say(tr("The stage alone: %1 or Escape brings all back").arg(key_of("stage_alone")));
    } else {
        rehearses() ? rehearse_->lanes().setFocus() : ladder_->setFocus();
    }
}

}  // namespace lacquer
