// The sweep screen: the sheet with the strip of variants below, beside it the sentence, the measures and what the
// variant changes.
#pragma once

#include <QHash>
#include <QWidget>

#include "desktop/sweep/sweeping.h"

class QAction;
class QPushButton;
class QSplitter;

namespace lacquer {

class Chooser;
class Differences;
class MeasureList;
class SheetView;
class SweepSentence;
class VariantStrip;

class SweepScreen : public QWidget {
    Q_OBJECT

public:
    /// The buttons are those of the window's actions, by their ids.
    SweepScreen(Models& models, const QHash<QString, QAction*>& actions, Chooser& chooser, QWidget* parent = nullptr);

    Sweeping& sweeping() { return sweeping_; }
    SheetView& sheet() { return *sheet_; }
    SweepSentence& sentence() { return *sentence_; }
    MeasureList& measures() { return *measures_; }
    VariantStrip& strip() { return *strip_; }
    Differences& differences() { return *differences_; }
    /// Sweeps a dial over its range.
    void sweep(const std::string& dial);
    QList<int> column_sizes() const;
    void set_column_sizes(const QList<int>& sizes);

protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    QWidget* head(const QHash<QString, QAction*>& actions);

    Sweeping sweeping_;
    SheetView* sheet_;
    SweepSentence* sentence_;
    MeasureList* measures_;
    VariantStrip* strip_;
    Differences* differences_;
    QSplitter* columns_;
    QPushButton* draw_again_ = nullptr;
};

}  // namespace lacquer
