// A list below the mark in a text of formulas or code: what completes the word that is being typed.
#pragma once

#include <QObject>
#include <functional>
#include <string>

#include "core/finish/completion.h"

class QKeyEvent;
class QPlainTextEdit;

namespace lacquer {

class ChoiceList;
class Document;
class Drawing;
struct Models;

class TextCompletion : public QObject {
    Q_OBJECT

public:
    /// For what is typed in `editor`, as a formula of the step that `step` tells; nothing is offered where that is
    /// empty. The list stands over `window`.
    TextCompletion(Models& models, QPlainTextEdit& editor, std::function<std::string()> step, QWidget* window);

    /// Shows what completes the word at the mark, if there is one that has been begun.
    void offer();
    void hide();
    /// What the function is called with in whose brackets the mark stands; empty outside of all.
    const std::vector<std::string>& inside() const { return completions_.inside; }
    std::size_t argument() const { return completions_.argument; }
    ChoiceList& list() { return *list_; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void read();
    void take(int row);
    bool take_key(const QKeyEvent& key);

    Document& document_;
    Drawing& drawing_;
    QPlainTextEdit& editor_;
    std::function<std::string()> step_;
    ChoiceList* list_;
    Completions completions_;
    bool touched_ = false;  ///< the keys have gone along the list
};

}  // namespace lacquer
