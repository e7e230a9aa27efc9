#include "desktop/sweep/sweeping.h"

#include <QMetaObject>
#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "core/inspect/report.h"

namespace lacquer {

namespace {

constexpr QSize saved_room{320, 180};
constexpr int narrowest_cell = 24;
constexpr QSize strip_room{176, 99};
constexpr QSize compared_room{1280, 720};
/// Until then somebody may still be dragging.
constexpr int rest_before_measuring_ms = 300;

template <class Things>
auto at_or_none(const Things& things, int index) -> typename Things::value_type {
    const bool is_there = index >= 0 && index < static_cast<int>(things.size());
    return is_there ? things[static_cast<std::size_t>(index)] : typename Things::value_type();
}

}  // namespace

Sweeping::Sweeping(Models& models, QObject* parent)
    : QObject(parent),
      document_(models.document),
      playing_(models.playing),
      drawing_(models.drawing),
      thread_(std::make_unique<SheetThread>(results(), models.drawing.stores())) {
    ask_timer_.setSingleShot(true);
    ask_timer_.setInterval(0);
    connect(&ask_timer_, &QTimer::timeout, this, &Sweeping::ask);
    measure_timer_.setSingleShot(true);
    measure_timer_.setInterval(rest_before_measuring_ms);
    connect(&measure_timer_, &QTimer::timeout, this, &Sweeping::ask_measures);
    connect(&document_, &Document::finish_changed, this, &Sweeping::follow_finish);
    connect(&document_, &Document::left, this, [this] {
        // Another finish has other dials to begin with.
        spec_ = automatic_ = {};
        is_new_ = true;
        lots_ = {};
        measured_.clear();
        end_comparing();
    });
    connect(&document_, &Document::files_changed, this, [this] {
        thread_->forget_ticks();
        ask_soon();
    });
    connect(&playing_, &Playing::time_changed, this, &Sweeping::ask_soon);
    connect(&playing_, &Playing::playing_changed, this, &Sweeping::ask_soon);
    follow_finish();
}

Sweeping::~Sweeping() = default;

SheetResults Sweeping::results() {
    const auto here = [this](auto take) {
        return [this, take](auto... done) {
            QMetaObject::invokeMethod(
                this, [take, done...]() mutable { take(std::move(done)...); }, Qt::QueuedConnection);
        };
    };
    SheetResults results;
    results.picture = here([this](SheetOf sheet, std::uint64_t number, int nth, QImage image, bool fine) {
        const auto index = static_cast<std::size_t>(nth);
        if (sheet == SheetOf::cells && number == number_ && index < pictures_.size()) {
            // Where there is a fault, the last good picture stays.
            if (!image.isNull()) pictures_[index] = std::move(image);
            fine_[index] = fine;
            emit picture_changed(nth);
        } else if (sheet == SheetOf::strip && number == strip_number_ && index < strip_.size()) {
            strip_[index] = std::move(image);
            emit strip_changed();
        } else if (sheet == SheetOf::compared && number == compared_number_ && index < compared_pictures_.size()) {
            compared_pictures_[index] = std::move(image);
            emit compared_changed();
        }
    });
    results.measured = here([this](std::uint64_t number, Measured one) {
        if (number != measure_number_) return;
        const auto old =
            std::find_if(measured_.begin(), measured_.end(), [&](const Measured& each) { return each.id == one.id; });
        if (old != measured_.end()) {
            *old = std::move(one);
        } else {
            measured_.push_back(std::move(one));
        }
        emit measured_changed();
    });
    results.all_measured = here([this](std::uint64_t number, std::vector<Measured> all) {
        if (number != measure_number_) return;
        measured_ = std::move(all);
        measuring_ = false;
        emit measured_changed();
    });
    return results;
}

void Sweeping::set_shown(bool shown) {
    if (shown == shown_) return;
    shown_ = shown;
    if (shown) {
        follow_finish();
        return go_to_liveliest();
    }
    measure_timer_.stop();
    thread_->ask_measures(std::nullopt);
    thread_->ask(SheetOf::cells, {});
    thread_->ask(SheetOf::strip, {});
    measuring_ = false;
}

void Sweeping::follow_finish() {
    const SheetSpec held = held_to(spec_ == automatic_ ? SheetSpec() : spec_, document_.finish());
    const bool another = held != spec_;
    if (spec_ == automatic_) automatic_ = held;
    spec_ = held;
    std::erase_if(lots_.dials,
                  [this](const std::string& dial) { return find_dial(document_.finish(), dial) == nullptr; });
    if (lots_.dials.empty()) {
        for (const Dial& dial : document_.finish().dials) {
            if (dial.formula.empty()) lots_.dials.push_back(dial.name);
        }
    }
    make_cells();
    if (another) measured_.clear();
    strip_.resize(document_.finish().variants.size() + 1);
    emit spec_changed();
    ask_soon();
}

// At rest there would be nothing to see.
void Sweeping::go_to_liveliest() {
    if (!std::exchange(is_new_, false) || playing_.time() > 0 || playing_.playing()) return;
    // Where all has gone, there is as little to see.
    constexpr double midway = 0.6;
    const double moment = liveliest_moment(document_.checked(), playing_.played(), midway);
    if (moment <= 0) return;
    playing_.set_time(moment);
    document_.say(tr("Went to %1 s, where most of it is to be seen").arg(moment, 0, 'f', 2));
}

void Sweeping::set_mode(SheetMode mode) {
    if (mode == mode_) return;
    mode_ = mode;
    end_comparing();
    make_cells();
    emit spec_changed();
    ask_soon();
}

void Sweeping::set_spec(SheetSpec spec) {
    spec = held_to(std::move(spec), document_.finish());
    if (spec == spec_) return;
    const bool other_dial = spec.along.dial != spec_.along.dial || spec.along.kind != spec_.along.kind;
    spec_ = std::move(spec);
    if (other_dial) {
        measured_.clear();
        emit measured_changed();
    }
    make_cells();
    emit spec_changed();
    ask_soon();
}

void Sweeping::set_all_shapes(bool all) {
    all_shapes_ = all;
    emit spec_changed();
    ask_soon();
}

void Sweeping::set_lots(Lots lots) {
    lots_ = std::move(lots);
    make_cells();
    emit spec_changed();
    ask_soon();
}

void Sweeping::make_cells() {
    const std::size_t before = cells_.size();
    const Finish& finish = document_.finish();
    if (mode_ == SheetMode::sweep) {
        cells_ = cells_of(spec_, finish);
    } else if (mode_ == SheetMode::set_aside) {
        cells_.clear();
        // To compare them with.
        if (!finish.set_aside.empty()) cells_.push_back({tr("now"), {}, {}, {}, {}, {}});
        for (const SetAside& look : finish.set_aside) {
            SheetCell cell;
            cell.words = qs(look.words);
            cell.time = look.time;
            cell.held = look.held;
            cells_.push_back(std::move(cell));
        }
    } else {
        cells_.clear();
        for (int nth = 0; nth < lots_at_a_time; ++nth) {
            SheetCell cell;
            cell.held = lot(lots_, finish, nth);
            cell.words = tr("lot %1").arg(nth + 1);
            cells_.push_back(std::move(cell));
        }
    }
    if (cells_.size() != before) pictures_.assign(cells_.size(), {});
    pictures_.resize(cells_.size());
    fine_.assign(cells_.size(), false);
}

int Sweeping::table_columns() const {
    return mode_ == SheetMode::sweep && is_table(spec_) ? places_on(spec_.along, document_.finish()) : 0;
}

QSize Sweeping::cell_size() const {
    if (cell_width_ <= 0) return drawing_.looked_frame().scaled(saved_room, Qt::KeepAspectRatio);
    const QSize frame = drawing_.looked_frame();
    return {cell_width_, std::max(1, cell_width_ * frame.height() / std::max(1, frame.width()))};
}

void Sweeping::set_cell_width(int device_pixels) {
    const int wide = std::max(narrowest_cell, device_pixels);
    if (std::exchange(cell_width_, wide) != wide) ask_soon();
}

int Sweeping::look_index(int cell) const {
    const int count = static_cast<int>(document_.finish().set_aside.size());
    return mode_ == SheetMode::set_aside && cell >= 1 && cell <= count ? cell - 1 : -1;
}

const SetAside* Sweeping::look_of(int cell) const {
    const int index = look_index(cell);
    return index < 0 ? nullptr : &document_.finish().set_aside[static_cast<std::size_t>(index)];
}

QImage Sweeping::picture(int cell) const {
    const QImage drawn = at_or_none(pictures_, cell);
    if (!drawn.isNull()) return drawn;
    // As long as it isn't drawn, the picture that was kept with it.
    const SetAside* look = look_of(cell);
    if (look == nullptr) return {};
    return QImage::fromData(QByteArray::fromBase64(QByteArray::fromStdString(look->picture)), "PNG");
}

bool Sweeping::is_fine(int cell) const {
    return cell >= 0 && cell < static_cast<int>(fine_.size()) && fine_[static_cast<std::size_t>(cell)];
}

QImage Sweeping::strip_picture(int nth) const { return at_or_none(strip_, nth); }

void Sweeping::set_cells_in_view(int from, int to) {
    if (std::exchange(cells_in_view_, {from, to}) != InView{from, to}) ask_soon();
}

void Sweeping::set_strip_in_view(int from, int to) {
    if (std::exchange(strip_in_view_, {from, to}) != InView{from, to}) ask_soon();
}

void Sweeping::ask_soon() {
    if (!shown_ || playing_.playing()) return;
    if (!ask_timer_.isActive()) ask_timer_.start();
}

RenderRequest Sweeping::request_for(const QSize& size) const {
    RenderRequest request;
    request.checked = document_.shared_checked();
    request.finish_path = document_.path();
    request.time = playing_.time();
    request.tape = playing_.live_tape();
    request.held = playing_.held();
    request.steps = {mode_ == SheetMode::sweep ? spec_.step : std::string()};
    request.frame_width = drawing_.looked_frame().width();
    request.frame_height = drawing_.looked_frame().height();
    request.width = std::max(1, size.width());
    request.height = std::max(1, size.height());
    request.small_grounds = size.width() < request.frame_width;
    // What would be at other values is looked at from the present tick, not from the tape's beginning.
    request.in_a_drag = true;
    return request;
}

SheetPicture Sweeping::picture_for(const SheetCell& cell, const QSize& size) const {
    SheetPicture picture{0, request_for(size), {}};
    for (const auto& [dial, value] : cell.held) picture.request.held[dial] = value;
    if (cell.time) {
        picture.request.time = *cell.time;
        picture.request.in_a_drag = false;
    }
    if (cell.variant)
        picture.finish = [finish = document_.finish(), name = *cell.variant] { return switch_variant(finish, name); };
    return picture;
}

SheetPicture Sweeping::picture_of(int cell, const QSize& size) const {
    SheetPicture picture = picture_for(at_or_none(cells_, cell), size);
    picture.place = cell;
    if (const SetAside* look = look_of(cell)) {
        // Not what is held now, but what was then.
        picture.request.held = look->held;
        picture.finish = [finish = document_.finish(), overlay = look->overlay] { return with_whole(finish, overlay); };
    }
    return picture;
}

void Sweeping::ask() {
    if (!shown_) return;
    SheetJob job;
    job.number = ++number_;
    job.coarse_first = true;
    for (int i = 0; i < static_cast<int>(cells_.size()); ++i) {
        if (cells_in_view_.holds(i)) job.pictures.push_back(picture_of(i, cell_size()));
    }
    fine_.assign(cells_.size(), false);
    thread_->ask(SheetOf::cells, std::move(job));
    if (comparing_) compare(compared_[0], compared_[1]);
    ask_strip();
    thread_->ask_measures(std::nullopt);
    measuring_ = swept_dial() != nullptr;
    measure_timer_.start();
}

void Sweeping::ask_strip() {
    SheetJob job;
    job.number = ++strip_number_;
    const QSize size = drawing_.looked_frame().scaled(strip_room, Qt::KeepAspectRatio);
    for (int nth = 0; nth < static_cast<int>(strip_.size()); ++nth) {
        if (!strip_in_view_.holds(nth)) continue;
        SheetCell cell;
        cell.variant = nth == 0 ? std::string() : document_.finish().variants[static_cast<std::size_t>(nth) - 1].name;
        SheetPicture picture = picture_for(cell, size);
        picture.place = nth;
        picture.request.steps = {std::string()};
        job.pictures.push_back(std::move(picture));
    }
    thread_->ask(SheetOf::strip, std::move(job));
}

const Dial* Sweeping::swept_dial() const {
    if (mode_ != SheetMode::sweep || spec_.along.kind != AxisKind::dial) return nullptr;
    return find_dial(document_.finish(), spec_.along.dial);
}

void Sweeping::ask_measures() {
    if (swept_dial() == nullptr || document_.interacting()) {
        measuring_ = false;
        emit measured_changed();
        return;
    }
    MeasureJob job;
    job.number = ++measure_number_;
    job.request = request_for(cell_size());
    job.sweep = {spec_.along.dial, spec_.along.from, spec_.along.to, spec_.step};
    job.options.all_shapes = all_shapes_;
    measuring_ = true;
    emit measured_changed();
    thread_->ask_measures(std::move(job));
}

std::optional<double> Sweeping::share_changed_at(double value) const {
    for (const Measured& one : measured_) {
        if (one.id != "pace" || one.curves.empty()) continue;
        const auto& points = one.curves.front().points;
        for (std::size_t i = 1; i < points.size(); ++i) {
            const auto& [before, low] = points[i - 1];
            const auto& [after, high] = points[i];
            if (value > after && i + 1 < points.size()) continue;
            const double part = after > before ? std::clamp((value - before) / (after - before), 0.0, 1.0) : 1;
            return low + (high - low) * part;
        }
    }
    return std::nullopt;
}

void Sweeping::compare(int first, int second) {
    comparing_ = true;
    if (compared_ != std::array{first, second}) compared_pictures_ = {picture(first), picture(second)};
    compared_ = {first, second};
    SheetJob job;
    job.number = ++compared_number_;
    const QSize size = drawing_.looked_frame().scaled(compared_room, Qt::KeepAspectRatio);
    for (int nth = 0; nth < 2; ++nth) {
        job.pictures.push_back(picture_of(compared_[static_cast<std::size_t>(nth)], size));
        job.pictures.back().place = nth;
    }
    thread_->ask(SheetOf::compared, std::move(job));
    emit compared_changed();
}

void Sweeping::end_comparing() {
    if (!std::exchange(comparing_, false)) return;
    thread_->ask(SheetOf::compared, {});
    compared_pictures_ = {};
    emit compared_changed();
}

SheetToSave Sweeping::sheet_to_save(int columns) const {
    SheetToSave sheet;
    sheet.cell = drawing_.looked_frame().scaled(saved_room, Qt::KeepAspectRatio);
    for (int cell = 0; cell < static_cast<int>(cells_.size()); ++cell) {
        sheet.pictures.push_back(picture_of(cell, sheet.cell));
        sheet.words.push_back(cells_[static_cast<std::size_t>(cell)].words);
    }
    sheet.columns = table_columns() > 0 ? table_columns() : columns;
    sheet.stores = drawing_.stores();
    return sheet;
}

}  // namespace lacquer
