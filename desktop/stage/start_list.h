// What there is to start from, as moving pictures: shown while a finish is still empty.
#pragma once

#include <QListWidget>
#include <atomic>
#include <condition_variable>
#include <mutex>
#include <set>
#include <string>
#include <thread>
#include <vector>

#include "core/base/cancel.h"
#include "desktop/document/demos.h"
#include "desktop/document/recovery.h"

class QMenu;

namespace lacquer {

class Document;
class Drawing;
struct Models;
struct RenderStores;

class StartList : public QListWidget {
    Q_OBJECT

public:
    /// All that there is to start from, or the demos alone.
    enum class Offers { everything, demos };

    explicit StartList(Models& models, Offers offers = Offers::everything, QWidget* parent = nullptr);
    ~StartList() override;
    /// Finishes that were worked on of late, newest first; they stand before the demos.
    void set_recent(const QStringList& paths);
    /// Only cards whose name or words hold all of these.
    void set_filter(const QString& words);
    void set_menu(QMenu* menu) { menu_ = menu; }
    /// Opens the first card that is shown. False if there is none.
    bool open_first();
    void select_first();
    /// Whether what there is to start from is still being looked for.
    bool looking() const { return looking_ > 0; }

Q_SIGNALS:
    void taken();
    void filled();

protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    /// What a card draws.
    struct Source {
        std::string file;         ///< empty for a card without a picture of its own
        std::string finish_path;  ///< where its pictures are looked for from
        bool trusted = true;      ///< a demo, or what did not bring Lacquer down when it was drawn last
        bool marked = false;      ///< to be written down while it is drawn
    };

    /// What lies on the disk to start from.
    struct Found {
        std::vector<KeptWork> kept;
        QStringList recent;
        QString demo_folder;
        QList<Demo> demos;
        std::set<std::string> untrusted;  ///< files that brought Lacquer down when they were drawn last
        friend bool operator==(const Found&, const Found&) = default;
    };

    static Found look(const QStringList& recent, Offers offers);
    void look_again();
    void take(Found found);
    void fill();
    void open_item(const QListWidgetItem* item);
    void set_picture(int row, const QImage& image);
    void start_moving();
    void stop_moving();
    void tell_cards_in_view();
    void narrow();
    QListWidgetItem* first_shown() const;
    void draw_cards(const Cancel& cancel, const std::shared_ptr<RenderStores>& stores);

    Document& document_;
    Drawing& drawing_;
    Offers offers_;
    int looking_ = 0;
    QMenu* menu_ = nullptr;
    QString filter_;
    QStringList recent_;
    Found found_;
    std::vector<Source> sources_;
    std::atomic<int> first_in_view_ = 0;
    std::atomic<int> last_in_view_ = 0;
    Cancel cancel_;
    std::mutex mutex_;
    std::condition_variable wake_;
    std::thread drawer_;
};

}  // namespace lacquer
