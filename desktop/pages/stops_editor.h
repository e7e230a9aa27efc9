// The stops of a gradient or a curve.
#pragma once

#include <string>

#include "core/finish/finish.h"
#include "desktop/kit/plot_editor.h"

namespace lacquer {

class Document;
struct Models;

class StopsEditor : public PlotEditor {
    Q_OBJECT

public:
    StopsEditor(Models& models, std::string ground, StopValues values, QWidget* parent = nullptr);

Q_SIGNALS:
    /// A stop of a gradient is to have another colour.
    void wants_colour(const QString& ground, std::size_t stop, const QRect& at);

protected:
    std::vector<QPointF> stops() const override;
    Extent extent() const override;
    bool has_heights() const override { return values_ == StopValues::heights; }
    void paint_plot(QPainter& painter, const QRect& area) override;
    QColor colour_of(std::size_t stop) const override;
    void add_stop(std::size_t before, QPointF at) override;
    void move_stop(std::size_t stop, QPointF to) override;
    void delete_stop(std::size_t stop) override;
    void change_way(std::size_t stop) override;
    void fill_menu(QMenu& menu, std::size_t stop) override;
    QString text_of(std::size_t stop) const override;
    std::size_t take_text(std::size_t stop, const QString& text) override;
    bool open_value(std::size_t stop) override;

private:
    const Stops* own() const;
    void set_easing(std::size_t stop, const std::string& easing);
    void change(std::vector<Stop> list, const QString& what, const std::string& merge_key = {});

    Document& document_;
    std::string name_;
    StopValues values_;
};

}  // namespace lacquer
