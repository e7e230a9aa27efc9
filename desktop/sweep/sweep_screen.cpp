#include "desktop/sweep/sweep_screen.h"

#include <QAction>
#include <QHBoxLayout>
#include <QPushButton>
#include <QSplitter>
#include <QVBoxLayout>

#include "desktop/kit/chooser.h"
#include "desktop/kit/panel.h"
#include "desktop/sweep/differences.h"
#include "desktop/sweep/measure_list.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_sentence.h"
#include "desktop/sweep/variant_strip.h"

namespace lacquer {

namespace {

constexpr int panel_width = 366;

}  // namespace

SweepScreen::SweepScreen(Models& models, const QHash<QString, QAction*>& actions, Chooser& chooser, QWidget* parent)
    : QWidget(parent),
      sweeping_(models),
      sheet_(new SheetView(sweeping_, this)),
      sentence_(new SweepSentence(models, sweeping_, chooser, this)),
      measures_(new MeasureList(sweeping_, this)),
      strip_(new VariantStrip(models, sweeping_, this)),
      differences_(new Differences(models, this)),
      columns_(new QSplitter(Qt::Horizontal, this)) {
    setObjectName(QStringLiteral("sweep_screen"));
    columns_->setHandleWidth(1);
    columns_->setChildrenCollapsible(false);
    auto* left = new QWidget(columns_);
    auto* left_column = new QVBoxLayout(left);
    left_column->setContentsMargins(0, 0, 0, 0);
    left_column->setSpacing(0);
    left_column->addWidget(head(actions));
    left_column->addWidget(sheet_, 1);
    left_column->addWidget(strip_);
    auto* right = new QWidget(columns_);
    right->setMinimumWidth(panel_width - 80);
    auto* right_column = new QVBoxLayout(right);
    right_column->setContentsMargins(0, 0, 0, 0);
    right_column->setSpacing(0);
    right_column->addWidget(sentence_);
    right_column->addWidget(measures_, 1);
    right_column->addWidget(differences_);
    columns_->addWidget(left);
    columns_->addWidget(right);
    columns_->setStretchFactor(0, 1);
    columns_->setSizes({900, panel_width});
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(columns_);
    // What can't be measured has no measures.
    connect(&sweeping_, &Sweeping::spec_changed, this, [this] {
        measures_->setVisible(sweeping_.mode() == SheetMode::sweep);
        draw_again_->setVisible(sweeping_.mode() == SheetMode::lots);
    });
}

QWidget* SweepScreen::head(const QHash<QString, QAction*>& actions) {
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(this, row);
    const auto add = [&](const char* action, const QString& words) {
        QPushButton* button = panel_button(head, actions[QString::fromLatin1(action)], words);
        row->addWidget(button);
        return button;
    };
    const auto add_mode = [&](const char* action, const QString& words) {
        QPushButton* button = add(action, words);
        QAction* follows = actions[QString::fromLatin1(action)];
        button->setCheckable(true);
        button->setChecked(follows->isChecked());
        connect(follows, &QAction::toggled, button, &QPushButton::setChecked);
        connect(follows, &QAction::triggered, button, [button, follows] { button->setChecked(follows->isChecked()); });
    };
    add_mode("sheet_sweep", tr("Sweep"));
    add_mode("sheet_looks", tr("Set aside"));
    add_mode("sheet_lots", tr("Lots"));
    row->addStretch(1);
    draw_again_ = add("draw_lots", tr("Draw again"));
    draw_again_->hide();
    add("compare_cells", tr("Compare"));
    add("save_sheet", tr("Save…"));
    return head;
}

void SweepScreen::sweep(const std::string& dial) {
    sweeping_.set_mode(SheetMode::sweep);
    SheetSpec spec = sweeping_.spec();
    spec.along = {AxisKind::dial, dial, 0, 1, 12};
    spec = held_to(spec, sweeping_.document().finish());
    if (const Dial* found = find_dial(sweeping_.document().finish(), spec.along.dial)) spec.along = axis_of(*found, 12);
    sweeping_.set_spec(std::move(spec));
}

QList<int> SweepScreen::column_sizes() const { return columns_->sizes(); }

void SweepScreen::set_column_sizes(const QList<int>& sizes) {
    if (sizes.size() == 2) columns_->setSizes(sizes);
}

void SweepScreen::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    sweeping_.set_shown(true);
}

void SweepScreen::hideEvent(QHideEvent* event) {
    QWidget::hideEvent(event);
    sweeping_.set_shown(false);
}

}  // namespace lacquer
