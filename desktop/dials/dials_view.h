// The dials: driven ones as cards with a trace of where their value has been and will be, the others as rows.
#pragma once

#include <QAbstractScrollArea>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "desktop/kit/accessible_cells.h"
#include "desktop/kit/chosen_names.h"

#include "core/finish/finish.h"
#include "core/inspect/warning.h"

class QMenu;

namespace lacquer {

class LineEditor;
class Document;
class Playing;
class Drawing;
struct Models;

class DialsView : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    DialsView(Models& models, QWidget* parent = nullptr);

    void set_menu(QMenu* menu) { menu_ = menu; }
    /// The chosen dial's name; empty if there is none.
    const std::string& chosen() const { return chosen_.one(); }
    void choose(const std::string& dial);
    void edit_value();
    void delete_chosen();
    void reset_chosen();
    void value_as_default();
    void move_chosen(int direction);
    /// The chosen dial by so many increments.
    void step_chosen(double increments);
    /// Selects the next step that uses the chosen dial.
    void go_to_use();
    /// The chosen dials as text; of a single one its value.
    void copy_chosen();
    /// A value into the chosen dial. False if what was copied is none.
    bool paste_value();
    void choose_all();
    const std::vector<std::string>& all_chosen() const { return chosen_.all(); }
    /// Takes the first mend that a warning about the chosen dial offers.
    void take_mend();

    /// Where a dial's track stands now; for tests.
    QRect track_area(const std::string& dial) const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_form(const QString& dial);
    /// A colour dial is to be changed; `at` is where it stands in the window.
    void wants_colour(const QString& dial, const QRect& at);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent*) override { viewport()->update(); }
    void focusOutEvent(QFocusEvent*) override { viewport()->update(); }
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    struct Cell {
        std::size_t dial = 0;
        bool card = false;
        QRect area;
        QRect name;
        QRect track;
        QRect value;
    };
    void rebuild();
    void retrace();
    DialValue present_value(const Dial& dial) const;
    const Cell* cell_at(QPoint point) const;
    const Cell* cell_of(const std::string& dial) const;
    QPoint scrolled() const;
    void paint_cell(QPainter& painter, const Cell& cell) const;
    void paint_track(QPainter& painter, const Cell& cell, const Dial& dial) const;
    void paint_card_trace(QPainter& painter, const Cell& cell, const Dial& dial) const;
    void drag_to(QMouseEvent* event);
    void end_value(bool keep);
    void toggle_chosen(const std::string& dial);
    QString chosen_words() const;
    QString source_words(const Dial& dial) const;
    const Warning* warning_of(const Dial& dial) const;
    struct Driven {
        std::vector<Response> responses;
        std::vector<Signal> signal_list;
        Tape tape;
        double length = 0;
        std::vector<Dial> dials;
        friend bool operator==(const Driven&, const Driven&) = default;
    };
    Driven driven_;  ///< what the traces were made from
    struct Heading {
        QString words;
        QRect area;
    };
    std::vector<Heading> headings_;

    Document& document_;
    Playing& playing_;
    Drawing& drawing_;
    QMenu* menu_ = nullptr;
    std::vector<Cell> cells_;
    std::map<std::string, std::vector<float>, std::less<>> traces_;
    std::set<std::string, std::less<>> reaching_;
    ChosenNames chosen_;
    std::string dragged_;
    double drag_share_ = 0;
    int drag_x_ = 0;
    LineEditor* value_editor_;
};

}  // namespace lacquer
