#include "desktop/stage/start_list.h"

#include <QContextMenuEvent>
#include <QFileInfo>
#include <QMenu>
#include <QPainter>
#include <QScrollBar>
#include <chrono>
#include <cmath>
#include <optional>

#include "core/finish/file.h"
#include "core/render/renderer.h"
#include "core/render/view.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/drawing_marks.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int picture_width = 138;
constexpr int picture_height = 78;
constexpr double shown_moment = 0.3;  // of the length: most have begun by then
constexpr double seconds_a_picture = 0.125;
constexpr int kept_role = Qt::UserRole + 2;
constexpr int demo_role = Qt::UserRole + 3;
constexpr int words_role = Qt::UserRole + 4;
constexpr int heading_role = Qt::UserRole + 5;

// A finish as a card shows it; without `checked` it has a fault.
RenderRequest card_of(const std::string& file, const std::string& finish_path) {
    RenderRequest request;
    Result<OpenedFinish> opened = load_finish(file);
    if (!opened) return request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(std::move(opened->finish))));
    const Finish& finish = *request.checked->finish;
    request.finish_path = finish_path;
    const QSize size =
        QSize(finish.frame_width, finish.frame_height).scaled(picture_width, picture_height, Qt::KeepAspectRatio);
    request.width = std::max(1, size.width());
    request.height = std::max(1, size.height());
    request.small_grounds = true;
    // Many ticks come before the moment that is shown: those of a small frame are quick.
    if (!request.checked->ticked.empty()) {
        constexpr int parts = 3;
        request.frame_width = std::max(1, finish.frame_width / parts);
        request.frame_height = std::max(1, finish.frame_height / parts);
    }
    request.steps = {""};
    request.seen = ViewStyle();
    return request;
}

// On the quiet pattern that stands for what is clear. Null if it could not be drawn.
QImage drawn(const RenderRequest& request, Renderer& renderer, const Cancel& cancel) {
    const Result<Frame> frame = renderer.render(request, cancel);
    if (!frame || frame->steps.empty()) return {};
    const Image8& pixels = frame->steps.front().image;
    const QImage image(pixels.data.data(), pixels.width, pixels.height, QImage::Format_RGBA8888);
    QImage card(picture_width, picture_height, QImage::Format_RGBA8888);
    card.fill(Qt::transparent);
    QPainter painter(&card);
    const QRect area((picture_width - pixels.width) / 2, (picture_height - pixels.height) / 2, pixels.width,
                     pixels.height);
    theme::paint_checker(painter, area);
    painter.drawImage(area.topLeft(), image);
    return card;
}

}  // namespace

StartList::StartList(Models& models, Offers offers, QWidget* parent)
    : QListWidget(parent), document_(models.document), drawing_(models.drawing), offers_(offers) {
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
    connect(verticalScrollBar(), &QScrollBar::valueChanged, this, &StartList::tell_cards_in_view);
    connect(this, &QListWidget::itemClicked, this, &StartList::open_item);
    connect(this, &QListWidget::itemActivated, this, &StartList::open_item);
}

void StartList::open_item(const QListWidgetItem* item) {
    // A click may activate too; the first has opened it then.
    if (!isVisible()) return;
    if (const QVariant kept = item->data(kept_role); kept.isValid()) {
        const KeptWork work = found_.kept.at(static_cast<std::size_t>(kept.toInt()));
        document_.bring_back(work);
        return;
    }
    if (item->data(heading_role).toBool()) return;
    const QString path = item->data(Qt::UserRole).toString();
    if (!path.isEmpty()) {
        if (!document_.may_leave()) return;
        // What comes along stays as it is.
        emit taken();
        item->data(demo_role).toBool() ? document_.open_copy(path) : document_.open(path);
        return;
    }
    const QString picture = document_.prompts().picture_to_add(QString());
    if (!picture.isEmpty()) start_from_picture(document_, picture);
}

void StartList::set_recent(const QStringList& paths) {
    if (paths == recent_) return;
    recent_ = paths;
    if (isVisible()) look_again();
}

StartList::~StartList() { stop_moving(); }

void StartList::showEvent(QShowEvent* event) {
    QListWidget::showEvent(event);
    look_again();
    if (count() > 0) start_moving();
}

void StartList::hideEvent(QHideEvent* event) {
    QListWidget::hideEvent(event);
    stop_moving();
}

void StartList::resizeEvent(QResizeEvent* event) {
    QListWidget::resizeEvent(event);
    tell_cards_in_view();
}

// On the disk's thread.
StartList::Found StartList::look(const QStringList& recent, Offers offers) {
    Found found;
    found.demo_folder = lacquer::demo_folder();
    found.demos = demos_in(found.demo_folder);
    if (offers == Offers::demos) return found;
    found.kept = kept_work();
    std::vector<std::string> unasked;
    for (const KeptWork& work : found.kept) unasked.push_back(work.file);
    for (const QString& path : recent) {
        // The demos stand below anyway.
        if (!QFileInfo::exists(path) || (!found.demo_folder.isEmpty() && path.startsWith(found.demo_folder))) continue;
        found.recent.append(path);
        unasked.push_back(path.toStdString());
    }
    for (const std::string& file : unasked) {
        if (ended_while_drawing(file)) found.untrusted.insert(file);
    }
    return found;
}

void StartList::look_again() {
    ++looking_;
    document_.disk().then(
        this, [recent = recent_, offers = offers_] { return look(recent, offers); },
        [this](Found found) {
            --looking_;
            take(std::move(found));
        });
}

void StartList::take(Found found) {
    if (!isVisible() || (found == found_ && count() > 0)) return;
    found_ = std::move(found);
    stop_moving();
    clear();
    fill();
    emit filled();
}

void StartList::fill() {
    QPixmap blank(picture_width, picture_height);
    blank.fill(theme::panel);
    QPixmap own = blank;
    {
        QPainter painter(&own);
        theme::paint_text(painter, own.rect(), QStringLiteral("+"), theme::words(theme::huge), theme::quiet,
                          Qt::AlignHCenter);
    }
    sources_.clear();
    const auto add = [&](const Source& source, const QString& path, const QString& name, const QString& words) {
        auto* item = new QListWidgetItem(QIcon(blank), name, this);
        item->setData(Qt::UserRole, path);
        item->setToolTip(QStringLiteral("<p>%1</p>").arg(words.toHtmlEscaped()));
        item->setData(words_role, name + QLatin1Char(' ') + words);
        sources_.push_back(source);
        return item;
    };
    // Drawn without anybody having opened it now.
    const auto unasked = [&](const std::string& file, const std::string& finish_path) {
        return Source{file, finish_path, !found_.untrusted.contains(file), true};
    };
    if (offers_ == Offers::everything) {
        for (std::size_t i = 0; i < found_.kept.size(); ++i) {
            const KeptWork& work = found_.kept[i];
            const QString where = work.path.empty() ? tr("It was never saved.") : qs(work.path);
            QListWidgetItem* item =
                add(unasked(work.file, work.path), QString(), tr("Unsaved: %1").arg(qs(work.name)),
                    tr("Lacquer ended before this was saved. A click brings it back. %1").arg(where));
            item->setData(kept_role, static_cast<int>(i));
            item->setForeground(theme::gold);
        }
        QListWidgetItem* fresh = add({}, QString(), tr("New from a picture…"), tr("A new finish, sized to a picture"));
        fresh->setIcon(QIcon(own));
        fresh->setData(Qt::UserRole + 1, true);
        for (const QString& path : found_.recent) {
            add(unasked(path.toStdString(), path.toStdString()), path, QFileInfo(path).completeBaseName(),
                tr("Recent: %1").arg(path));
        }
    }
    std::optional<DrivenBy> group;
    for (const Demo& demo : found_.demos) {
        if (group != demo.by) {
            group = demo.by;
            QListWidgetItem* heading = add({}, QString(), driven_words(demo.by), QString());
            heading->setIcon(QIcon());
            heading->setToolTip(QString());
            heading->setFlags(Qt::NoItemFlags);
            heading->setFont(theme::words(theme::plain, true));
            heading->setData(heading_role, true);
            heading->setData(Qt::UserRole + 1, true);
        }
        add({demo.path.toStdString(), demo.path.toStdString()}, demo.path, demo.name, demo.brief)
            ->setData(demo_role, true);
    }
    narrow();
    start_moving();
}

void StartList::set_filter(const QString& words) {
    filter_ = words;
    narrow();
}

// Headings are no use among what was looked for.
void StartList::narrow() {
    const QStringList words = filter_.simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    for (int row = 0; row < count(); ++row) {
        const QString all = item(row)->data(words_role).toString();
        const bool holds = std::all_of(words.begin(), words.end(),
                                       [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
        item(row)->setHidden(!words.isEmpty() && (item(row)->data(heading_role).toBool() || !holds));
    }
    tell_cards_in_view();
}

QListWidgetItem* StartList::first_shown() const {
    for (int row = 0; row < count(); ++row) {
        if (!item(row)->isHidden() && !item(row)->data(heading_role).toBool()) return item(row);
    }
    return nullptr;
}

bool StartList::open_first() {
    const QListWidgetItem* first = first_shown();
    if (first != nullptr) open_item(first);
    return first != nullptr;
}

void StartList::select_first() { setCurrentItem(first_shown()); }

void StartList::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void StartList::start_moving() {
    stop_moving();
    tell_cards_in_view();
    cancel_ = Cancel();
    drawer_ = std::thread([this, cancel = cancel_, stores = drawing_.stores()] { draw_cards(cancel, stores); });
}

void StartList::stop_moving() {
    {
        const std::lock_guard lock(mutex_);
        cancel_.request();
    }
    wake_.notify_all();
    if (drawer_.joinable()) drawer_.join();
}

void StartList::tell_cards_in_view() {
    // Rows and columns are even: where the view begins and ends, its cards do.
    const int columns = std::max(1, viewport()->width() / gridSize().width());
    const int scrolled = verticalScrollBar()->value();
    first_in_view_ = scrolled / gridSize().height() * columns;
    last_in_view_ = ((scrolled + viewport()->height()) / gridSize().height() + 1) * columns - 1;
    // Of what was looked for, any may be in view.
    if (!filter_.isEmpty()) {
        first_in_view_ = 0;
        last_in_view_ = count();
    }
}

// All cards once, then those in view again and again, each round a little later in their course. On its own thread.
void StartList::draw_cards(const Cancel& cancel, const std::shared_ptr<RenderStores>& stores) {
    WorkerPool pool(1);
    Renderer renderer(pool, std::nullopt, stores);
    renderer.watch_reading([cancel](const std::string&, double) { return !cancel.requested(); });
    std::vector<RenderRequest> cards;
    std::vector<QImage> last(sources_.size());
    for (int round = 0; !cancel.requested(); ++round) {
        const auto begun = std::chrono::steady_clock::now();
        for (std::size_t i = 0; i < sources_.size() && !cancel.requested(); ++i) {
            const int row = static_cast<int>(i);
            const Source& source = sources_[i];
            const bool first = round == 0 && source.marked && source.trusted;
            if (first) mark_drawing(source.file);
            if (round == 0)
                cards.push_back(source.trusted ? card_of(source.file, source.finish_path) : RenderRequest());
            if (cards[i].checked == nullptr) {
                if (first) unmark_drawing(source.file);
                continue;
            }
            if (round > 0 && (row < first_in_view_ || row > last_in_view_)) continue;
            const double length = cards[i].checked->finish->length;
            cards[i].time = std::fmod(length * shown_moment + round * seconds_a_picture, length);
            const QImage image = drawn(cards[i], renderer, cancel);
            if (first) unmark_drawing(source.file);
            if (image.isNull() || image == last[i]) continue;
            last[i] = image;
            QMetaObject::invokeMethod(
                this,
                [this, cancel, row, image] {
                    if (!cancel.requested()) set_picture(row, image);
                },
                Qt::QueuedConnection);
        }
        std::unique_lock lock(mutex_);
        wake_.wait_until(lock, begun + std::chrono::duration<double>(seconds_a_picture),
                         [&] { return cancel.requested(); });
    }
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
