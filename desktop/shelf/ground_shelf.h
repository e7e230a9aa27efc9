// What the finish reads, as cards: each with a picture, its layers, and what it costs to hold.
#pragma once

#include <QAbstractScrollArea>
#include <functional>
#include <map>
#include <string>
#include <vector>

#include "desktop/kit/accessible_cells.h"
#include "desktop/kit/chosen_names.h"

#include "core/inspect/warning.h"

class QMenu;

namespace lacquer {

class Document;
class Drawing;
struct Models;

class GroundShelf : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    /// `facts` says what a card tells of a ground below its picture, before its size.
    GroundShelf(Models& models, std::function<QString(const Ground&)> facts, QWidget* parent = nullptr);

    void set_menu(QMenu* menu) { menu_ = menu; }
    /// The chosen ground's name; empty if there is none.
    const std::string& chosen() const { return chosen_.one(); }
    void choose(const std::string& ground);
    void copy_chosen();
    void choose_all();
    const std::vector<std::string>& all_chosen() const { return chosen_.all(); }
    /// Deletes the chosen grounds, and says what read them.
    void delete_chosen();
    /// Takes the first mend that a warning about the chosen ground offers.
    void take_mend();
    /// Shows the chosen ground on the stage, or the finished picture again.
    void show_chosen();

    /// What all of them hold in memory, about, in bytes.
    double bytes() const;

    /// Where a ground's card, or the small picture of one of its layers, stands now; for tests.
    QRect card_area(const std::string& ground) const;
    QRect picture_area(const std::string& picture) const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_page(const QString& ground);
    void chosen_changed();
    void sizes_changed() const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent*) override { viewport()->update(); }
    void focusOutEvent(QFocusEvent*) override { viewport()->update(); }
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;

private:
    struct PictureAt {
        std::string name;
        QRect area;
    };
    struct Card {
        std::string ground;
        QRect area;
        std::vector<PictureAt> pictures;  ///< the first is the large one
    };
    void rebuild();
    void tell_in_view();
    QPoint scrolled() const;
    const Card* card_at(QPoint point) const;
    const PictureAt* picture_at(QPoint point) const;
    void paint_card(QPainter& painter, const Card& card) const;
    void paint_picture(QPainter& painter, const PictureAt& picture) const;
    const Warning* warning_of(const std::string& ground) const;
    QString facts(const Ground& ground) const;
    QSize size_of(const Ground& ground) const;
    std::vector<std::string> names() const;
    QSize file_size(const std::string& path) const;
    double bytes_of(const Ground& ground) const;
    void show_picture(const std::string& name);
    void toggle_chosen(const std::string& ground);

    Document& document_;
    Drawing& drawing_;
    std::function<QString(const Ground&)> facts_;
    QMenu* menu_ = nullptr;
    std::vector<Card> cards_;
    mutable std::map<std::string, QSize> sizes_;
    ChosenNames chosen_;
};

}  // namespace lacquer
