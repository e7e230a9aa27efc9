// What the variant that is on changes, one line a thing, and what it has of things that are gone.
#pragma once

#include <QAbstractScrollArea>
#include <vector>

#include "core/finish/overlay.h"
#include "desktop/kit/accessible_cells.h"

namespace lacquer {

class Document;
struct Models;

class Differences : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit Differences(Models& models, QWidget* parent = nullptr);
    QRect row_area(int row) const;
    /// The things of the list at hand: its name; empty if there is none.
    std::string present() const;
    QSize sizeHint() const override;

    int cell_count() const override { return static_cast<int>(entries_.size()); }
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    void rebuild();
    void follow(int row);

    Document& document_;
    std::vector<OverlayEntry> entries_;  ///< what the variant has
    std::vector<QString> words_;
    int present_ = 0;
};

}  // namespace lacquer
