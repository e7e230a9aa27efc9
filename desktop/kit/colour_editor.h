// A colour, by its shares and its brightness: typed as text or dragged. Stands over the window where the colour is
// used.
#pragma once

#include <QFrame>
#include <QPointer>
#include <array>
#include <functional>
#include <vector>

namespace lacquer {

class LineEditor;

class ColourEditor : public QFrame {
    Q_OBJECT

public:
    using Colour = std::array<double, 3>;

    explicit ColourEditor(QWidget* window);
    /// Opens below `at`. `changed` gets every colour on the way; `done` hears once whether it is kept.
    void open(const QRect& at, const Colour& colour, std::function<void(const Colour&)> changed,
              std::function<void(bool kept)> done);
    const Colour& colour() const { return colour_; }
    /// Where a track stands: 0 to 2 for red, green and blue as they are shown, 3 for the brightness; for tests.
    QRect track(int index) const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    double share(int index) const;
    void set_share(int index, double share);
    void set(const Colour& colour, bool text);
    void close_editor(bool kept);

    LineEditor* field_;
    Colour colour_{};
    Colour before_{};
    std::function<void(const Colour&)> changed_;
    std::function<void(bool)> done_;
    int dragged_ = -1;
    bool open_ = false;
    QPointer<QWidget> focus_before_;
};

}  // namespace lacquer
