// How many drops of a ground live over the tape, with its cues: small enough to stand beside a page's groups.
#pragma once

#include <QWidget>
#include <string>
#include <vector>

namespace lacquer {

class Document;
class Playing;
struct Models;

class DropPlot : public QWidget {
    Q_OBJECT

public:
    DropPlot(Models& models, std::string ground, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {260, 24}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QString words() const;
    void count_anew();

    Document& document_;
    Playing& playing_;
    std::string ground_;
    std::vector<float> counts_;  ///< along the plot; empty where they have to be counted anew
};

}  // namespace lacquer
