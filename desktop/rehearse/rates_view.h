// What the frame-rate check found.
#pragma once

#include <QWidget>

namespace lacquer {

class Drawing;
struct Models;

class RatesView : public QWidget {
    Q_OBJECT

public:
    RatesView(Models& models, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    /// The lines that are shown; for tests.
    QStringList lines() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Drawing& drawing_;
};

}  // namespace lacquer
