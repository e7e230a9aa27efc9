// The rehearse screen: the stage, pads and faders beside it, lanes below. The stage itself is lent by the window.
#pragma once

#include <QHash>
#include <QWidget>

class QAction;
class QLabel;
class QPushButton;
class QSplitter;
class QStackedWidget;

namespace lacquer {

class CuePads;
class LanesView;
class RatesView;
class Document;
class Playing;
class GameLink;
struct Models;
class SignalFaders;

class RehearseScreen : public QWidget {
    Q_OBJECT

public:
    /// The buttons are those of the window's actions, by their ids. `page` is shown in place of pads and faders where
    /// something is to be changed.
    RehearseScreen(Models& models, const QHash<QString, QAction*>& actions, QWidget* page, QWidget* parent = nullptr);
    /// Takes the stage in.
    void take_stage(QWidget* stage);

    CuePads& pads() { return *pads_; }
    SignalFaders& faders() { return *faders_; }
    LanesView& lanes() { return *lanes_; }
    RatesView& rates() { return *rates_; }
    /// How room is shared between the stage and what is beside it (none before the stage was here), and below.
    QList<int> column_sizes() const;
    QList<int> row_sizes() const;
    void set_sizes(const QList<int>& columns, const QList<int>& rows);
    /// Only the stage, or all again.
    void set_stage_alone(bool alone);
    void show_page(bool shown);
    bool shows_page() const;

private:
    QWidget* hands();
    QWidget* below();
    void refresh_words();
    void refresh_link();

    Document& document_;
    Playing& playing_;
    GameLink& link_;
    const QHash<QString, QAction*>& actions_;
    CuePads* pads_;
    SignalFaders* faders_;
    LanesView* lanes_;
    RatesView* rates_;
    QSplitter* columns_;
    QSplitter* rows_;
    QWidget* below_ = nullptr;
    QList<int> wanted_columns_;
    QStackedWidget* side_;
    QLabel* time_words_ = nullptr;
    QLabel* link_words_ = nullptr;
    QPushButton* listen_ = nullptr;
    QPushButton* play_ = nullptr;
    QPushButton* record_ = nullptr;
    QPushButton* keep_ = nullptr;
    QPushButton* loop_ = nullptr;
    QPushButton* slow_ = nullptr;
};

}  // namespace lacquer
