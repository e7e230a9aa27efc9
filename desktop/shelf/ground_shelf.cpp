#include "desktop/shelf/ground_shelf.h"

#include <QClipboard>
#include <QContextMenuEvent>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHelpEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QToolTip>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/steps_text.h"
#include "core/finish/stops_table.h"
#include "core/picture/table.h"
#include "desktop/document/document.h"
#include "desktop/document/picture_size.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"

namespace lacquer {

namespace {

using theme::gap;
using theme::margin;
constexpr int card_width = 240;
constexpr int card_height = 216;
constexpr QSize large{card_width - 16, 126};
constexpr QSize little{53, 30};

QString size_words(double bytes) {
    constexpr double mega = 1024 * 1024;
    return bytes >= mega / 10 ? QObject::tr("%1 MB").arg(bytes / mega, 0, 'f', 1)
                              : QObject::tr("%1 KB").arg(bytes / 1024, 0, 'f', 0);
}

// Colours from left to right, or a line: what reading it gives.
void paint_stops(QPainter& painter, const QRect& area, StopValues values, const Stops& stops) {
    const Picture table = stops_table(stops);
    const bool curve = values == StopValues::heights;
    double most = 1;
    for (int i = 0; curve && i < table.width; ++i) most = std::max(most, static_cast<double>(table.at(i, 0)[0]));
    QPolygonF line;
    for (int x = 0; x < area.width(); ++x) {
        const auto at = table_value(table, static_cast<double>(x) / std::max(1, area.width() - 1));
        if (curve) {
            line.append(QPointF(area.left() + x, area.bottom() - 4 - at[0] / most * (area.height() - 8)));
        } else {
            painter.fillRect(QRect(area.left() + x, area.top(), 1, area.height()),
                             theme::swatch({at[0], at[1], at[2]}));
        }
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::text, 1.5));
    painter.drawPolyline(line);
    painter.setRenderHint(QPainter::Antialiasing, false);
}

}  // namespace

GroundShelf::GroundShelf(Models& models, std::function<QString(const Ground&)> facts, QWidget* parent)
    : QAbstractScrollArea(parent), document_(models.document), drawing_(models.drawing), facts_(std::move(facts)) {
    setObjectName(QStringLiteral("ground_shelf"));
    setAccessibleName(tr("Grounds"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    connect(&document_, &Document::finish_changed, this, &GroundShelf::rebuild);
    connect(&drawing_, &Drawing::thumbnails_changed, this, [this] { viewport()->update(); });
    connect(&drawing_, &Drawing::stage_changed, this, [this] { viewport()->update(); });
    connect(&drawing_, &Drawing::warnings_changed, this, [this] { viewport()->update(); });
    connect(verticalScrollBar(), &QScrollBar::valueChanged, this, &GroundShelf::tell_in_view);
    rebuild();
}

QPoint GroundShelf::scrolled() const { return {0, verticalScrollBar()->value()}; }

void GroundShelf::rebuild() {
    cards_.clear();
    const int columns = std::max(1, (viewport()->width() - 2 * margin + gap) / (card_width + gap));
    int index = 0;
    for (const Ground& ground : document_.finish().grounds) {
        const int x = margin + index % columns * (card_width + gap);
        const int y = 4 + index / columns * (card_height + gap);
        ++index;
        Card card{ground.name, QRect(x, y, card_width, card_height), {}};
        QRect area(QPoint(x + 8, y + 8), large);
        for (const GroundPicture& picture : ground_pictures(ground)) {
            card.pictures.push_back({picture.name, area});
            if (card.pictures.size() == 1) {
                area = QRect(QPoint(x + 8, y + 8 + large.height() + 6), little);
            } else {
                area.translate(little.width() + 4, 0);
            }
        }
        cards_.push_back(std::move(card));
    }
    const int rows = (index + columns - 1) / columns;
    const int height = 4 + rows * (card_height + gap);
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(40);
    chosen_.keep_among(names());
    tell_in_view();
    viewport()->update();
}

void GroundShelf::tell_in_view() {
    std::vector<std::string> names;
    const QRect visible = viewport()->rect().translated(scrolled());
    for (const Card& card : cards_) {
        if (!isVisible() || !card.area.intersects(visible)) continue;
        for (const PictureAt& picture : card.pictures) names.push_back(picture.name);
    }
    drawing_.set_grounds_in_view(std::move(names));
    viewport()->update();
}

void GroundShelf::resizeEvent(QResizeEvent*) { rebuild(); }
void GroundShelf::showEvent(QShowEvent*) {
    sizes_.clear();
    tell_in_view();
}

void GroundShelf::hideEvent(QHideEvent*) { drawing_.set_grounds_in_view({}); }

void GroundShelf::choose(const std::string& ground) {
    chosen_.choose(ground);
    for (const Card& card : cards_) {
        if (card.ground != ground) continue;
        QScrollBar* bar = verticalScrollBar();
        if (card.area.top() < bar->value()) bar->setValue(card.area.top() - 4);
        if (card.area.bottom() > bar->value() + viewport()->height())
            bar->setValue(card.area.bottom() - viewport()->height() + 4);
    }
    viewport()->update();
    emit chosen_changed();
}

// Read from the file's head, once for as long as the shelf is in view.
QSize GroundShelf::file_size(const std::string& path) const {
    const auto [found, fresh] = sizes_.try_emplace(path);
    if (!fresh) return found->second;
    document_.disk().then(
        this, [path] { return picture_size(path); },
        [this, path](QSize size) {
            sizes_[path] = size;
            viewport()->update();
            emit sizes_changed();
        });
    return {};
}

// Nothing for those that have no size of their own.
QSize GroundShelf::size_of(const Ground& ground) const {
    if (const auto* sprite = ground.as<SpriteGround>()) return {sprite->width, sprite->height};
    if (ground.as<SceneGround>() != nullptr) return drawing_.looked_frame();
    if (const auto* marks = ground.as<MarksGround>()) {
        const Ground* of = find_ground(document_.finish(), marks->of);
        return of != nullptr && of->as<MarksGround>() == nullptr ? size_of(*of) : QSize();
    }
    const std::string* path = sampling_of(ground) != nullptr ? path_of(ground) : nullptr;
    return path != nullptr ? file_size(picture_path(document_.path(), *path)) : QSize();
}

// Four floats a pixel for each picture that it gives.
double GroundShelf::bytes_of(const Ground& ground) const {
    constexpr double a_pixel = 16;
    const auto pictures = static_cast<double>(ground_pictures(ground).size());
    if (pictures == 0) return a_pixel * table_width;
    const QSize size = size_of(ground);
    return size.isEmpty() ? 0 : a_pixel * size.width() * size.height() * pictures;
}

double GroundShelf::bytes() const {
    double sum = 0;
    for (const Ground& ground : document_.finish().grounds) sum += bytes_of(ground);
    return sum;
}

QString GroundShelf::facts(const Ground& ground) const {
    QStringList words{facts_(ground)};
    const QSize size = size_of(ground);
    if (!size.isEmpty()) words.append(QStringLiteral("%1 × %2").arg(size.width()).arg(size.height()));
    return words.join(QStringLiteral(" · "));
}

void GroundShelf::paint_picture(QPainter& painter, const PictureAt& picture) const {
    const auto found = drawing_.thumbnails().find(picture.name);
    const bool drawn = found != drawing_.thumbnails().end();
    paint_thumbnail(painter, picture.area, drawn ? found->second.image : QImage(),
                    {.clear = drawn && found->second.type == Type::vec4,
                     .outlined = true,
                     .shown = drawing_.shown() == picture.name});
}

void GroundShelf::paint_card(QPainter& painter, const Card& card) const {
    const Ground* ground = find_ground(document_.finish(), card.ground);
    if (ground == nullptr) return;
    const bool chosen = chosen_.holds(card.ground);
    painter.setPen(chosen ? theme::gold : theme::hairline);
    painter.setBrush(theme::raised);
    painter.drawRoundedRect(card.area.adjusted(0, 0, -1, -1), 4, 4);
    for (const PictureAt& picture : card.pictures) paint_picture(painter, picture);
    if (const Stops* stops = stops_of(*ground))
        paint_stops(painter, QRect(card.area.topLeft() + QPoint(8, 8), large), *stop_values(*ground), *stops);
    const QRect line(card.area.left() + 8, card.area.bottom() - 42, card.area.width() - 16, 18);
    const Warning* warning = warning_of(card.ground);
    const std::size_t readers = readers_of(document_.finish(), card.ground).size();
    theme::paint_text(painter, line, qs(shown_name(card.ground)), theme::words(theme::plain, true), theme::text);
    theme::paint_text(painter, line, readers == 0 ? tr("not read") : tr("read by %1").arg(readers),
                      theme::words(theme::small), theme::quiet, Qt::AlignRight);
    const QString held = warning == nullptr ? size_words(bytes_of(*ground)) : QString();
    const int held_width = held.isEmpty() ? 0 : QFontMetrics(theme::words(theme::small)).horizontalAdvance(held) + 8;
    theme::paint_text(painter, line.translated(0, 18), held, theme::words(theme::small), theme::quiet, Qt::AlignRight);
    theme::paint_text(painter, line.translated(0, 18).adjusted(0, 0, -held_width, 0),
                      warning != nullptr ? qs(warning->message) : facts(*ground), theme::words(theme::small),
                      warning != nullptr ? theme::vermilion_text : theme::quiet);
    if (warning != nullptr) theme::paint_notched_bar(painter, line.left(), line.left() + 24, line.bottom() - 1);
}

void GroundShelf::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    if (cards_.empty()) {
        theme::paint_text(
            painter, QRect(margin, 12, viewport()->width() - 2 * margin, 20),
            document_.keyed(
                tr("Nothing to read yet: add a picture ({add_picture}), a scene ({add_scene}), or drop a file here")),
            theme::words(), theme::quiet);
        return;
    }
    if (hasFocus()) theme::paint_focus_line(painter, viewport()->rect());
    painter.translate(-scrolled());
    const QRect visible = viewport()->rect().translated(scrolled());
    for (const Card& card : cards_) {
        if (card.area.intersects(visible)) paint_card(painter, card);
    }
}

const GroundShelf::Card* GroundShelf::card_at(QPoint point) const {
    const QPoint at = point + scrolled();
    const auto found = std::find_if(cards_.begin(), cards_.end(), [&](const Card& c) { return c.area.contains(at); });
    return found != cards_.end() ? &*found : nullptr;
}

const GroundShelf::PictureAt* GroundShelf::picture_at(QPoint point) const {
    const Card* card = card_at(point);
    if (card == nullptr) return nullptr;
    const QPoint at = point + scrolled();
    const auto found = std::find_if(card->pictures.begin(), card->pictures.end(),
                                    [&](const PictureAt& p) { return p.area.contains(at); });
    return found != card->pictures.end() ? &*found : nullptr;
}

void GroundShelf::show_picture(const std::string& name) {
    drawing_.show_step(drawing_.shown() == name ? std::string() : name);
}

void GroundShelf::mousePressEvent(QMouseEvent* event) {
    const Card* card = card_at(event->pos());
    if (card == nullptr) return;
    const PictureAt* picture = picture_at(event->pos());
    if (event->modifiers().testFlag(Qt::ControlModifier) && event->button() == Qt::LeftButton)
        return toggle_chosen(card->ground);
    const bool among = chosen_.holds(card->ground);
    if (event->button() == Qt::LeftButton || !among) choose(card->ground);
    if (picture != nullptr && event->button() == Qt::LeftButton) show_picture(picture->name);
}

void GroundShelf::mouseDoubleClickEvent(QMouseEvent* event) {
    const Card* card = card_at(event->pos());
    if (card != nullptr && picture_at(event->pos()) == nullptr) emit wants_page(qs(card->ground));
}

void GroundShelf::contextMenuEvent(QContextMenuEvent* event) {
    const Card* card = card_at(event->pos());
    if (card != nullptr && !chosen_.holds(card->ground)) choose(card->ground);
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void GroundShelf::show_chosen() {
    const Ground* ground = find_ground(document_.finish(), chosen_.one());
    if (ground == nullptr || ground_pictures(*ground).empty()) return;
    show_picture(chosen_.one());
}

const Warning* GroundShelf::warning_of(const std::string& ground) const {
    const auto& warnings = drawing_.warnings();
    const auto found =
        std::find_if(warnings.begin(), warnings.end(), [&](const Warning& w) { return w.where == ground; });
    return found != warnings.end() ? &*found : nullptr;
}

void GroundShelf::take_mend() {
    const Warning* warning = warning_of(chosen_.one());
    if (warning == nullptr || warning->mends.empty())
        return document_.say(tr("There is nothing to mend in %1").arg(qs(shown_name(chosen_.one()))));
    const Mend mend = warning->mends.front();
    document_.edit(mend.apply(document_.finish()), tr("Mended: %1").arg(core_words(mend.words)));
}

std::vector<std::string> GroundShelf::names() const {
    std::vector<std::string> all;
    for (const Card& card : cards_) all.push_back(card.ground);
    return all;
}

void GroundShelf::toggle_chosen(const std::string& ground) {
    chosen_.toggle(ground, names());
    viewport()->update();
    emit chosen_changed();
}

void GroundShelf::choose_all() {
    chosen_.choose_all(names());
    document_.say(tr("Chose %1").arg(tr("%n ground(s)", nullptr, static_cast<int>(chosen_.all().size()))));
    viewport()->update();
}

void GroundShelf::copy_chosen() {
    if (chosen_.all().empty()) return;
    QGuiApplication::clipboard()->setText(qs(parts_as_text(document_.finish(), document_.path(), chosen_.all())));
    document_.say(tr("Copied %1 as text")
                      .arg(!chosen_.several() ? qs(shown_name(chosen_.one()))
                                              : tr("%n ground(s)", nullptr, static_cast<int>(chosen_.all().size()))));
}

void GroundShelf::delete_chosen() {
    if (chosen_.all().empty()) return document_.say(tr("Choose a ground first"));
    const std::vector<std::string> readers = readers_of(document_.finish(), chosen_.one());
    QString what = !chosen_.several()
                       ? tr("Deleted %1").arg(qs(shown_name(chosen_.one())))
                       : tr("Deleted %1").arg(tr("%n ground(s)", nullptr, static_cast<int>(chosen_.all().size())));
    if (!chosen_.several() && !readers.empty())
        what += tr(": %1 read it, first %2")
                    .arg(tr("%n step(s)", nullptr, static_cast<int>(readers.size())), qs(shown_name(readers.front())));
    Result<Finish> without = document_.finish();
    for (const std::string& name : chosen_.all()) {
        without = delete_ground(std::move(*without), name);
        if (!without) break;
    }
    document_.edit(std::move(without), what);
}

void GroundShelf::keyPressEvent(QKeyEvent* event) {
    const auto at =
        std::find_if(cards_.begin(), cards_.end(), [&](const Card& c) { return c.ground == chosen_.one(); });
    const auto go = [&](std::ptrdiff_t by) {
        if (at == cards_.end()) return;
        const std::ptrdiff_t to =
            std::clamp<std::ptrdiff_t>(at - cards_.begin() + by, 0, static_cast<std::ptrdiff_t>(cards_.size()) - 1);
        choose(cards_[static_cast<std::size_t>(to)].ground);
    };
    switch (event->key()) {
        case Qt::Key_Left:
        case Qt::Key_Up:
            return go(-1);
        case Qt::Key_Right:
        case Qt::Key_Down:
            return go(1);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (!chosen_.one().empty()) emit wants_page(qs(chosen_.one()));
            return;
        case Qt::Key_Delete:
            return delete_chosen();
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

bool GroundShelf::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QAbstractScrollArea::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const PictureAt* picture = picture_at(viewport()->mapFrom(this, help->pos()));
    const Card* card = card_at(viewport()->mapFrom(this, help->pos()));
    const Warning* warning = card != nullptr ? warning_of(card->ground) : nullptr;
    const auto named = picture != nullptr ? find_ground_picture(document_.finish(), picture->name) : std::nullopt;
    if (warning != nullptr) {
        QString words = qs(warning->message);
        if (!warning->mends.empty()) words += tr(". M: %1").arg(core_words(warning->mends.front().words));
        QToolTip::showText(help->globalPos(), words);
    } else if (named) {
        QToolTip::showText(help->globalPos(),
                           tr("%1: %2. A click shows it").arg(qs(picture->name), core_words(named->picture.words)));
    } else {
        QToolTip::hideText();
    }
    return true;
}

QRect GroundShelf::card_area(const std::string& ground) const {
    for (const Card& card : cards_) {
        if (card.ground == ground) return card.area.translated(-scrolled());
    }
    return {};
}

QRect GroundShelf::picture_area(const std::string& name) const {
    for (const Card& card : cards_) {
        for (const PictureAt& picture : card.pictures) {
            if (picture.name == name) return picture.area.translated(-scrolled());
        }
    }
    return {};
}

int GroundShelf::cell_count() const { return static_cast<int>(cards_.size()); }

AccessibleCell GroundShelf::cell(int index) const {
    const Card& card = cards_[static_cast<std::size_t>(index)];
    const Ground* ground = find_ground(document_.finish(), card.ground);
    AccessibleCell told{qs(shown_name(card.ground)), ground != nullptr ? facts(*ground) : QString()};
    if (const Warning* warning = warning_of(card.ground)) told.value = qs(warning->message);
    const QRect area = card.area.translated(-scrolled());
    if (area.intersects(viewport()->rect())) told.area = area;
    told.chosen = chosen_.holds(card.ground);
    told.actions = {tr("choose"), tr("show"), tr("change")};
    return told;
}

void GroundShelf::act_on_cell(int index, const QString& action) {
    const std::string ground = cards_[static_cast<std::size_t>(index)].ground;
    choose(ground);
    if (action == tr("show")) show_chosen();
    if (action == tr("change")) emit wants_page(qs(ground));
}

}  // namespace lacquer
