// What the frame-rate check found.
#pragma once

#include <QWidget>

namespace lacquer {

class Session;

class RatesView : public QWidget {
    Q_OBJECT

public:
    RatesView(Session& session, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    /// The lines that are shown; for tests.
    QStringList lines() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Session& session_;
};

}  // namespace lacquer
