#include "desktop/stage/start_list.h"

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
    const auto open = [this](const QListWidgetItem* item) {
        // A click may activate too; the first has opened it then.
        if (isVisible() && session_.may_leave()) session_.open(item->data(Qt::UserRole).toString());
    };
    connect(this, &QListWidget::itemClicked, this, open);
    connect(this, &QListWidget::itemActivated, this, open);
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
    const QList<Demo> demos = demos_in(demo_folder());
    QPixmap blank(picture_width, picture_height);
    blank.fill(theme::panel);
    std::vector<std::string> paths;
    for (const Demo& demo : demos) {
        auto* item = new QListWidgetItem(QIcon(blank), demo.name, this);
        item->setData(Qt::UserRole, demo.path);
        item->setToolTip(QStringLiteral("<p>%1</p>").arg(demo.brief.toHtmlEscaped()));
        paths.push_back(demo.path.toStdString());
    }
    drawing_ = std::thread([this, paths = std::move(paths)] {
        WorkerPool pool(1);
        Renderer renderer(pool);
        for (std::size_t i = 0; i < paths.size() && !cancel_.requested(); ++i) {
            const QImage image = drawn(paths[i], renderer, pool, cancel_);
            if (image.isNull()) continue;
            QMetaObject::invokeMethod(
                this, [this, row = static_cast<int>(i), image] { set_picture(row, image); }, Qt::QueuedConnection);
        }
    });
}

void StartList::set_picture(int row, const QImage& image) {
    // Chosen or not, it is the same picture.
    QIcon icon;
    for (const auto mode : {QIcon::Normal, QIcon::Selected}) icon.addPixmap(QPixmap::fromImage(image), mode);
    item(row)->setIcon(icon);
    item(row)->setData(Qt::UserRole + 1, true);
}

}  // namespace lacquer
