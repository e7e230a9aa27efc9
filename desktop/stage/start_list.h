// What there is to start from, as pictures: shown while a finish is still empty.
#pragma once

#include <QListWidget>
#include <thread>

#include "core/base/cancel.h"
#include "desktop/session/demos.h"

namespace lacquer {

class Session;

class StartList : public QListWidget {
    Q_OBJECT

public:
    explicit StartList(Session& session, QWidget* parent = nullptr);
    ~StartList() override;
    /// Finishes that were worked on of late, newest first; they stand before the demos.
    void set_recent(const QStringList& paths);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void fill();
    void open_item(const QListWidgetItem* item);
    void set_picture(int row, const QImage& image);

    Session& session_;
    QStringList recent_;
    Cancel cancel_;
    std::thread drawing_;
};

}  // namespace lacquer
