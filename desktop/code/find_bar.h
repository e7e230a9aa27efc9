// Words looked for in a text, and others put in their place.
#pragma once

#include <QWidget>

class QLabel;
class QPlainTextEdit;

namespace lacquer {

class LineEditor;

class FindBar : public QWidget {
    Q_OBJECT

public:
    explicit FindBar(QPlainTextEdit& text, QWidget* parent = nullptr);

    /// Opens with what is selected, if that is within a line, else with what was looked for last.
    void open();
    void close_bar();
    /// Goes to the next place, or the one before; round the end.
    void next(bool backwards = false);
    /// Puts the other words in place of the ones that are found, and goes on.
    void replace();
    void replace_all();

    LineEditor& wanted() { return *wanted_; }
    LineEditor& other() { return *other_; }

Q_SIGNALS:
    void said(const QString& words);

private:
    void look();
    int count() const;

    QPlainTextEdit& text_;
    LineEditor* wanted_;
    LineEditor* other_;
    QLabel* found_;
};

}  // namespace lacquer
