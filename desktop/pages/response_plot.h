// A response as a curve: what it does after a strong cue and after a weak one, or by itself.
#pragma once

#include <QWidget>
#include <string>

namespace lacquer {

class Document;
class Playing;
struct Models;

class ResponsePlot : public QWidget {
    Q_OBJECT

public:
    ResponsePlot(Models& models, std::string response, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {400, height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Document& document_;
    Playing& playing_;
    std::string name_;
};

}  // namespace lacquer
