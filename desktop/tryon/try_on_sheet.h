// The sheet of all operations already applied to the selected step, as live pictures. It covers the ladder; the stage
// shows the one that the keys or the mouse are on.
#pragma once

#include <QFrame>
#include <functional>
#include <vector>

#include "core/finish/try_on.h"

namespace lacquer {

class LineEditor;
class Document;
class Drawing;
struct Models;
class TryOnGrid;

class TryOnSheet : public QFrame {
    Q_OBJECT

public:
    TryOnSheet(Models& models, QWidget* parent);
    /// Opens over `area` for the selected step.
    void open(const QRect& area, TryOnUse use);
    bool is_open() const { return open_; }
    /// The candidates that what is typed leaves, in their order.
    const std::vector<TryOn>& candidates() const { return shown_; }
    int present() const { return present_; }
    /// Takes the present one, or leaves all as it was.
    void take();
    void leave();
    /// Where a candidate's picture stands now; for tests.
    QRect candidate_area(int candidate) const;
    QWidget* grid_viewport() const;

Q_SIGNALS:
    void taken(const QString& step);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    friend class TryOnGrid;
    void narrow();
    void go(int to);
    void show_present();
    void close_sheet();
    QImage picture_of(int candidate) const;

    Document& document_;
    Drawing& drawing_;
    LineEditor* field_;
    TryOnGrid* grid_;
    TryOnUse use_ = TryOnUse::add_below;
    std::vector<TryOn> all_;
    std::vector<TryOn> shown_;
    std::vector<std::size_t> index_;  ///< of each shown one among all
    int present_ = 0;
    bool open_ = false;
};

}  // namespace lacquer
