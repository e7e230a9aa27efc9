// What the sheet shows, as a sentence whose words are live: numbers are dragged, turned or typed, names are chosen.
#pragma once

#include <QWidget>
#include <functional>
#include <vector>

#include "desktop/kit/accessible_cells.h"
#include "desktop/kit/wheel.h"

namespace lacquer {

class Chooser;
class LineEditor;
class Sweeping;
struct Models;
struct SheetAxis;
struct SheetSpec;

class SweepSentence : public QWidget, public CellSource {
    Q_OBJECT

public:
    SweepSentence(Models& models, Sweeping& sweeping, Chooser& chooser, QWidget* parent = nullptr);
    /// Where a word stands: "along", "from", "to", "count", "against", "against_from", "against_to", "against_count",
    /// "step", "moment", "shapes", "reach", "seed", "dials".
    QRect word_area(const QString& id) const;
    QSize sizeHint() const override;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    struct Word {
        QString id;  ///< empty for words that are only read
        QString text;
        bool is_number = false;
        bool is_driven = false;  ///< a dial that something drives
        bool breaks = false;     ///< a new line begins with it
        QRect area = {};
    };
    void rebuild();
    QString moment_words() const;
    void add_axis(const SheetAxis& axis, const QString& prefix);
    void lay_out();
    int live_at(QPoint point) const;
    void go(int by);
    void change_by(const QString& id, double steps);
    void set_number(const QString& id, double value);
    double number_of(const QString& id) const;
    double step_of(const QString& id) const;
    void activate(int word);
    void choose_axis(bool along);
    void choose_step();
    void choose_dials();
    void type_number(int word);
    void end_typing(bool keep);

    Models& models_;
    Sweeping& sweeping_;
    Chooser& chooser_;
    LineEditor* editor_;
    QString typed_;  ///< the word whose number is typed
    std::vector<Word> words_;
    int present_ = -1;
    int dragged_ = -1;
    QPoint pressed_;
    double drag_from_ = 0;
    bool moved_ = false;
    Wheel wheel_;
};

}  // namespace lacquer
