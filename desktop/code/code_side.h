// The code of a step, or of an operation's file, beside the stage. What is typed counts at once; as long as it has a
// fault, the last good picture stays. The variable at the mark tells its value. Operations are in code_operation.cpp.
#pragma once

#include <QTimer>
#include <QWidget>
#include <optional>
#include <string>

#include "core/catalogue/catalogue.h"

class QAction;
class QHBoxLayout;
class QLabel;
template <class Key, class T>
class QHash;

namespace lacquer {

class CodeColours;
class CodeText;
class Document;
class Drawing;
class FindBar;
class TextCompletion;
struct Models;

class CodeSide : public QWidget {
    Q_OBJECT

public:
    CodeSide(Models& models, const QHash<QString, QAction*>& actions, QWidget* window);
    ~CodeSide() override;

    /// Opens the code of a step; nothing for one that there is not.
    void open_step(const std::string& step);
    /// Opens an operation's file of the user's folder. One that is not there yet begins with a template and is written
    /// when its text makes sense.
    void open_operation(const std::string& folder, const std::string& name);
    /// What is open is kept, and the side can be hidden.
    void leave();
    bool is_open() const { return !step_.empty() || operation_.has_value(); }
    /// The step whose code is open; empty for none.
    const std::string& step() const { return step_; }

    // What the actions do.
    void find();
    void find_next(bool backwards);
    void turn_remarks();
    void move_in(int steps);
    /// The variable at the mark on the stage, or off it.
    void toggle_seen();
    bool sees() const;
    /// The variable, or what is marked, becomes a step of its own.
    void extract();
    /// One step back: the field of words, the variable on the stage. False if there was nothing of that.
    bool step_back();
    /// The word at the mark explained, as rich text; empty for one of which nothing is known.
    QString help() const;

    CodeText& text() { return *text_; }
    FindBar& find_bar() { return *find_bar_; }
    TextCompletion& completion() { return *completion_; }
    /// What is told below the code: the variable's value, the fault or the function's signature.
    QString value_words() const;
    QString told_words() const;
    /// Nothing is still being checked or written.
    bool settled() const { return !typing_timer_.isActive() && writing_ == 0; }

Q_SIGNALS:
    /// Left by Escape, or because what was open has gone.
    void left();

private:
    struct OpenOperation {
        std::string folder;
        OperationFile file;
        bool is_written = true;
        std::optional<Fault> fault;
        QString header;  ///< what its head says, in words
    };

    void build_foot();
    void typed();
    void step_typed();
    void follow_finish();
    void follow_selection();
    void follow_mark();
    void see_variable();
    void show_faults();
    void tell();
    QString signature_words() const;
    std::uint32_t mark() const;

    void operation_typed();
    void check_operation();
    void take_operation_check(const std::string& text, Result<std::optional<Operation>> read);
    void write_operation();
    void leave_operation();

    Document& document_;
    Drawing& drawing_;
    std::string step_;
    std::optional<OpenOperation> operation_;
    bool filling_ = false;
    QLabel* title_;
    QLabel* told_;
    QLabel* value_;
    CodeText* text_;
    CodeColours* colours_;
    TextCompletion* completion_;
    FindBar* find_bar_;
    QTimer typing_timer_;  ///< an operation is checked when its typing rests
    int writing_ = 0;
};

}  // namespace lacquer
