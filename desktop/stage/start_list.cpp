#include "desktop/stage/start_list.h"

#include <QFileInfo>
#include <QPainter>

#include "core/finish/file.h"
#include "core/render/renderer.h"
#include "core/render/view.h"
#include "desktop/session/session.h"
#include "desktop/theme/theme.h"

namespace lacquer {

namespace {

constexpr int picture_width = 138;
constexpr int picture_height = 78;
constexpr double shown_moment = 0.3;  // of the length: most have begun by then

// The finish in the middle of its course, on the quiet pattern that stands for what is clear. Null if it has a fault.
QImage drawn(const std::string& path, Renderer& renderer, WorkerPool& pool, const Cancel& cancel) {
    Result<OpenedFinish> opened = load_finish(path);
    if (!opened) return {};
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(std::move(opened->finish))));
    const Finish& finish = *request.checked->finish;
    request.finish_path = path;
    request.cues = finish.tape;
    request.time = finish.length * shown_moment;
    const QSize size =
        QSize(finish.frame_width, finish.frame_height).scaled(picture_width, picture_height, Qt::KeepAspectRatio);
    request.width = size.width();
    request.height = size.height();
    request.small_grounds = true;
    request.steps = {""};
    const Result<Frame> frame = renderer.render(request, cancel);
    if (!frame || frame->steps.empty()) return {};
    const DrawnStep& step = frame->steps.front();
    const Image8 pixels = to_image(step.picture, step.type, pool);
    const QImage image(pixels.data.data(), pixels.width, pixels.height, QImage::Format_RGBA8888);
    QImage card(picture_width, picture_height, QImage::Format_RGBA8888);
    card.fill(Qt::transparent);
    QPainter painter(&card);
    const QRect area(QPoint((picture_width - size.width()) / 2, (picture_height - size.height()) / 2), size);
    theme::paint_checker(painter, area);
    painter.drawImage(area.topLeft(), image);
    return card;
}

}  // namespace

StartList::StartList(Session& session, QWidget* parent) : QListWidget(parent), session_(session) {
    setObjectName(QStringLiteral("start_list"));
    setViewMode(QListView::IconMode);
    setMovement(QListView::Static);
    setResizeMode(QListView::Adjust);
    setUniformItemSizes(true);
    setWordWrap(true);
    setFrameShape(QFrame::NoFrame);
    setFont(theme::words());
    QPalette colours = palette();
    colours.setColor(QPalette::Base, theme::stage_grey);
    setPalette(colours);
    setAccessibleName(tr("Finishes to start from"));
    setIconSize({picture_width, picture_height});
    setGridSize({picture_width + 12, picture_height + 30});
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(this, &QListWidget::itemClicked, this, &StartList::open_item);
    connect(this, &QListWidget::itemActivated, this, &StartList::open_item);
}

void StartList::open_item(const QListWidgetItem* item) {
    // A click may activate too; the first has opened it then.
    if (!isVisible()) return;
    const QString path = item->data(Qt::UserRole).toString();
    if (!path.isEmpty()) {
        if (session_.may_leave()) session_.open(path);
        return;
    }
    const QString picture = session_.prompts().picture_to_add(QString());
    if (!picture.isEmpty()) session_.start_from_picture(picture);
}

void StartList::set_recent(const QStringList& paths) {
    if (paths == recent_) return;
    recent_ = paths;
    cancel_.request();
    clear();
    if (isVisible()) fill();
}

StartList::~StartList() {
    cancel_.request();
    if (drawing_.joinable()) drawing_.join();
}

void StartList::showEvent(QShowEvent* event) {
    QListWidget::showEvent(event);
    if (count() == 0) fill();
}

void StartList::fill() {
    QPixmap blank(picture_width, picture_height);
    blank.fill(theme::panel);
    QPixmap own = blank;
    {
        QPainter painter(&own);
        theme::paint_text(painter, own.rect(), QStringLiteral("+"), theme::words(32), theme::quiet, Qt::AlignHCenter);
    }
    auto* fresh = new QListWidgetItem(QIcon(own), tr("New from a picture…"), this);
    fresh->setToolTip(tr("A finish of the picture's size that works on it"));
    fresh->setData(Qt::UserRole + 1, true);
    std::vector<std::string> paths{std::string()};
    const auto add = [&](const QString& path, const QString& name, const QString& words) {
        auto* item = new QListWidgetItem(QIcon(blank), name, this);
        item->setData(Qt::UserRole, path);
        item->setToolTip(QStringLiteral("<p>%1</p>").arg(words.toHtmlEscaped()));
        paths.push_back(path.toStdString());
    };
    const QString folder = demo_folder();
    for (const QString& path : recent_) {
        const QFileInfo file(path);
        // The demos stand below anyway.
        if (file.exists() && (folder.isEmpty() || !path.startsWith(folder)))
            add(path, file.completeBaseName(), tr("Worked on of late: %1").arg(path));
    }
    for (const Demo& demo : demos_in(folder)) add(demo.path, demo.name, demo.brief);
    if (drawing_.joinable()) drawing_.join();
    cancel_ = Cancel();
    drawing_ = std::thread([this, paths = std::move(paths), cancel = cancel_] {
        WorkerPool pool(1);
        Renderer renderer(pool);
        for (std::size_t i = 0; i < paths.size() && !cancel.requested(); ++i) {
            if (paths[i].empty()) continue;
            const QImage image = drawn(paths[i], renderer, pool, cancel);
            if (image.isNull()) continue;
            QMetaObject::invokeMethod(
                this,
                [this, cancel, row = static_cast<int>(i), image] {
                    if (!cancel.requested()) set_picture(row, image);
                },
                Qt::QueuedConnection);
        }
    });
}

void StartList::set_picture(int row, const QImage& image) {
    // Chosen or not, it is the same picture.
    if (item(row) == nullptr) return;
    QIcon icon;
    for (const auto mode : {QIcon::Normal, QIcon::Selected}) icon.addPixmap(QPixmap::fromImage(image), mode);
    item(row)->setIcon(icon);
    item(row)->setData(Qt::UserRole + 1, true);
}

}  // namespace lacquer
