// The window: the bench with its ladder, stage, dials and time rule.
#pragma once

#include <QHash>
#include <QWidget>
#include <functional>

#include "core/finish/finish.h"

class QAction;
class QLabel;
class QMenu;
class QPushButton;
class QSettings;
class QSplitter;
class QStackedWidget;

namespace lacquer {

class CuePads;
class DialsView;
class FieldForm;
class LadderView;
class Session;
class StageView;
class TimeRule;
class TopBar;

class MainWindow : public QWidget {
    Q_OBJECT

public:
    MainWindow(Session& session, QSettings& settings, QWidget* parent = nullptr);
    LadderView& ladder() { return *ladder_; }
    DialsView& dials() { return *dials_; }
    TimeRule& time_rule() { return *time_rule_; }
    CuePads& cue_pads() { return *cue_pads_; }
    TopBar& top_bar() { return *top_bar_; }

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void build_actions();
    QHash<QString, std::function<void()>> handlers();
    QMenu* menu_of(const QString& title);
    QWidget* ladder_side();
    QWidget* dials_side();
    QWidget* foot();
    void refresh_words();
    void show_form();
    void close_form();
    void choose_page(const QStringList& names, const std::function<void(int)>& open, const QString& none);
    void choose(const QStringList& names, const std::function<void(int)>& take);
    void open_demo();
    void add_dial();
    void add_response();
    void add_stops(GroundKind kind);
    void add_cue();

    Session& session_;
    QSettings& settings_;
    QHash<QString, QAction*> actions_;
    QHash<QString, QMenu*> menus_;
    TopBar* top_bar_;
    LadderView* ladder_;
    StageView* stage_;
    DialsView* dials_;
    FieldForm* form_;
    TimeRule* time_rule_;
    CuePads* cue_pads_;
    QStackedWidget* dial_pages_ = nullptr;
    QSplitter* columns_ = nullptr;
    QSplitter* rows_ = nullptr;
    QLabel* step_words_ = nullptr;
    QLabel* dial_words_ = nullptr;
    QPushButton* play_button_ = nullptr;
};

}  // namespace lacquer
