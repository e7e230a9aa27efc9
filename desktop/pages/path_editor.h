// The stops of a path, and how steeply it goes through them.
#pragma once

#include <string>

#include "core/drive/path_keys.h"
#include "desktop/kit/plot_editor.h"

namespace lacquer {

class Document;
struct Models;

class PathEditor : public PlotEditor {
    Q_OBJECT

public:
    PathEditor(Models& models, std::string response, QWidget* parent = nullptr);
    /// The end of a slope's handle, in pixels; for tests.
    QPoint slope_place(std::size_t key, bool after) const;

protected:
    std::vector<QPointF> stops() const override;
    Extent extent() const override;
    double farthest() const override;
    void paint_plot(QPainter& painter, const QRect& area) override;
    void add_stop(std::size_t before, QPointF at) override;
    void move_stop(std::size_t stop, QPointF to) override;
    void delete_stop(std::size_t stop) override;
    void change_way(std::size_t stop) override;
    void fill_menu(QMenu& menu, std::size_t stop) override;
    QString text_of(std::size_t stop) const override;
    std::size_t take_text(std::size_t stop, const QString& text) override;
    bool take_hold(QPoint at) override;
    void drag_held(QMouseEvent* event) override;

private:
    PathKeys keys() const;
    void change(PathKeys keys, const QString& what, const std::string& merge_key = {});
    void set_slope(std::size_t stop, SlopeKind kind, bool before, bool after);
    void paint_slopes(QPainter& painter, const QRect& area, const PathKeys& own);

    Document& document_;
    std::string name_;
    bool holds_after_ = false;  ///< of the two slopes at a stop
};

}  // namespace lacquer
