// Code as it is typed: numbers of lines, the bracket that belongs to the one at the mark, faults under their words,
// lines that keep their distance from the left.
#pragma once

#include <QPlainTextEdit>
#include <optional>
#include <utility>

namespace lacquer {

class CodeText : public QPlainTextEdit {
    Q_OBJECT

public:
    explicit CodeText(QWidget* parent = nullptr);

    /// Another text; the mark stays where it was as far as there is text.
    void set_code(const QString& code);
    /// Marks characters [first, last) as being at fault; an empty range at the end marks the end.
    void set_fault(std::optional<std::pair<int, int>> fault);
    const std::optional<std::pair<int, int>>& fault() const { return fault_; }

    /// The selected lines, or the one with the mark: made remarks or code again, moved in or out.
    void turn_remarks();
    void move_in(int steps);
    /// Goes to a place and shows it.
    void go_to(int at, int length = 0);

    /// Where a line's number stands, as the widget is scrolled now; for tests.
    QRect number_area(int line) const;
    /// The bracket at the mark and the one that belongs to it; nothing away from brackets.
    std::optional<std::pair<int, int>> brackets() const;

Q_SIGNALS:
    /// Escape.
    void dismissed();

protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void insertFromMimeData(const QMimeData* source) override;

private:
    class Numbers;

    int numbers_width() const;
    void place_numbers();
    void paint_numbers(QWidget& onto) const;
    void mark_brackets();
    void new_line();
    void close_bracket();
    template <class Change>
    void change_lines(Change change);

    Numbers* numbers_;
    std::optional<std::pair<int, int>> fault_;
};

}  // namespace lacquer
