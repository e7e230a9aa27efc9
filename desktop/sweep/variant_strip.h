// The finish itself and its variants as a row of live pictures.
#pragma once

#include <QAbstractScrollArea>

#include "desktop/kit/accessible_cells.h"

class QMenu;

namespace lacquer {

class Document;
class Sweeping;
struct Models;

class VariantStrip : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    VariantStrip(Models& models, Sweeping& sweeping, QWidget* parent = nullptr);
    /// Of the finish itself (0), a variant (1, 2, ...), or the card behind them, which adds one.
    QRect card_area(int card) const;
    void set_menu(QMenu* menu) { menu_ = menu; }
    QSize sizeHint() const override;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_variant();

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    int variants() const;
    std::string name_of(int card) const;
    QString words_of(int card) const;
    void put_on(int card);
    void rebuild();
    void tell_view();
    int card_on() const;

    Document& document_;
    Sweeping& sweeping_;
    QMenu* menu_ = nullptr;
};

}  // namespace lacquer
