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
class FieldForm;
class LanesView;
class RatesView;
class Session;
class SignalFaders;

class RehearseScreen : public QWidget {
    Q_OBJECT

public:
    /// The buttons are those of the window's actions, by their ids.
    RehearseScreen(Session& session, const QHash<QString, QAction*>& actions, QWidget* parent = nullptr);
    /// Takes the stage in.
    void take_stage(QWidget* stage);

    CuePads& pads() { return *pads_; }
    SignalFaders& faders() { return *faders_; }
    LanesView& lanes() { return *lanes_; }
    RatesView& rates() { return *rates_; }
    FieldForm& form() { return *form_; }
    /// The page of fields in place of pads and faders, or those again.
    void show_form(bool shown);
    bool shows_form() const;

private:
    QWidget* hands();
    QWidget* below();
    void refresh_words();
    void refresh_link();

    Session& session_;
    const QHash<QString, QAction*>& actions_;
    CuePads* pads_;
    SignalFaders* faders_;
    LanesView* lanes_;
    RatesView* rates_;
    FieldForm* form_;
    QSplitter* columns_;
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
