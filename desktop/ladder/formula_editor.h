// Typing a formula where it stands: each change is shown at once, faults are marked under the words.
#pragma once

#include <QPlainTextEdit>
#include <optional>

#include "core/base/span.h"

namespace lacquer {

class FormulaEditor : public QPlainTextEdit {
    Q_OBJECT

public:
    explicit FormulaEditor(QWidget* parent);
    /// Marks characters [first, last) as being at fault; an empty range at the end of the text marks its end.
    void mark_fault(int first, int last);
    void clear_fault();
    /// Height that shows all lines of the text at the present width.
    int wanted_height() const;

Q_SIGNALS:
    void accepted();
    void dismissed();

protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void insertFromMimeData(const QMimeData* source) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    std::optional<std::pair<int, int>> fault_;
};

}  // namespace lacquer
