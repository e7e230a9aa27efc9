// A field to type in with a list below it: what is typed narrows the list. Stands over the window until something is
// taken or it is left by Escape.
#pragma once

#include <QFrame>
#include <QPointer>
#include <functional>
#include <vector>

#include "desktop/kit/choice_list.h"

namespace lacquer {

class LineEditor;

class Chooser : public QFrame {
    Q_OBJECT

public:
    explicit Chooser(QWidget* window);

    /// Opens at a place of the window, offering `choices`; those that hold all words typed stay. `taken` gets the index
    /// in `choices`. With `free_text`, Enter on a text that no choice matches gives it to `typed`.
    struct Offer {
        QString title;
        std::vector<Choice> choices;
        std::function<void(int)> taken;
        std::function<void(int)> moved = nullptr;      ///< the present choice has changed; may be null
        std::function<void()> left = nullptr;          ///< closed without taking; may be null
        std::function<QImage(int)> picture = nullptr;  ///< of a choice; may be null
        std::function<void(QString)> typed = nullptr;  ///< takes what no choice matches; may be null
        int width = 380;
    };
    void open(QPoint at, Offer offer);
    void close_chooser();
    /// The same, and whoever opened it is told that nothing was taken.
    void leave();
    ChoiceList& list() { return *list_; }
    LineEditor& field() { return *field_; }
    /// Index among the offered choices of the list's row.
    int offered(int row) const { return shown_.at(static_cast<std::size_t>(row)); }
    /// Paints pictures anew.
    void refresh() { list_->viewport()->update(); }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void narrow();
    int wanted_height() const;
    void take(int row);
    LineEditor* field_;
    ChoiceList* list_;
    Offer offer_;
    std::vector<int> shown_;
    bool open_ = false;
    QPointer<QWidget> before_;  ///< had the focus
};

}  // namespace lacquer
