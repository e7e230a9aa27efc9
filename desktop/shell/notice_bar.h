// The line along the foot: what was said last, failures until they are seen, long work with its share, and what a frame
// costs.
#pragma once

#include <QWidget>

#include "desktop/kit/accessible_cells.h"

namespace lacquer {

class Document;
class Drawing;
struct Models;

class NoticeBar : public QWidget, public CellSource {
    Q_OBJECT

public:
    explicit NoticeBar(Models& models, QWidget* parent = nullptr);
    /// What was said last; for tests.
    const QString& notice() const { return notice_; }
    /// A failure that nobody has seen yet; empty if there is none.
    QString failure() const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;
    /// What is going on that takes long, and how to stop it; empty if nothing is.
    QString work() const;

Q_SIGNALS:
    void wants_list();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    QString facts() const;

    Document& document_;
    Drawing& drawing_;
    QString notice_;
};

}  // namespace lacquer
