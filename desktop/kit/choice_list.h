// A list to choose from, painted by us: a small picture, a name, a few words. Keys and mouse move along it.
#pragma once

#include <QAbstractScrollArea>
#include <QImage>
#include <QString>
#include <functional>
#include <string>
#include <vector>

#include "desktop/kit/accessible_cells.h"

namespace lacquer {

struct Choice {
    QString name;
    QString words = {};  ///< quiet, behind the name
    QString key = {};    ///< at the right end
    bool fits = true;    ///< what does not is quieter, and can be chosen all the same
    bool has_picture = false;
    bool is_code = false;  ///< the name is written as formulas are
    bool failed = false;   ///< tells of something that went wrong, and is marked so
    bool heading = false;  ///< parts the list and cannot be chosen
};

class ChoiceList : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit ChoiceList(QWidget* parent = nullptr);
    /// Shows these; the first is the present one.
    void set_choices(std::vector<Choice> choices);
    const std::vector<Choice>& choices() const { return choices_; }
    /// The picture of a choice; asked for at painting, null while there is none.
    void set_pictures(std::function<QImage(int)> pictures) { pictures_ = std::move(pictures); }
    int present() const { return present_; }
    void set_present(int choice);
    /// Moves along; true if the key was one of the list's.
    bool take_key(int key);
    int row_height() const;
    /// Where a choice stands now; for tests.
    QRect choice_area(int choice) const;
    QSize sizeHint() const override;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void taken(int choice);
    void moved(int choice);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void rebuild();
    void go(int by);
    int choice_at(QPoint point) const;
    std::vector<Choice> choices_;
    std::function<QImage(int)> pictures_;
    int present_ = -1;
    bool any_picture_ = false;
};

}  // namespace lacquer
