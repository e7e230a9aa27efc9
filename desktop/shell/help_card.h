// Words about what is at hand, in place, and the sheet of all keys.
#pragma once

#include <QFrame>
#include <QHash>
#include <QPointer>
#include <string>

class QAction;
class QLabel;
class QScrollArea;

namespace lacquer {

class Document;

class HelpCard : public QFrame {
    Q_OBJECT

public:
    explicit HelpCard(QWidget* window);
    /// Shows rich text as a card at the edge of `area`.
    void show_beside(const QString& html, const QRect& area);
    /// Shows rich text over most of the window.
    void show_sheet(const QString& html);
    QString text() const;

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    void show_at(const QString& html, const QRect& area);
    QLabel* label_;
    QScrollArea* scroll_;
    QPointer<QWidget> before_;
};

/// What a dial is, as rich text.
QString dial_help(const Document& document, const std::string& dial);

/// How the stage is used.
QString stage_help(const Document& document);

/// All actions with their keys, by menu.
QString shortcut_sheet(const QHash<QString, QAction*>& actions);

}  // namespace lacquer
