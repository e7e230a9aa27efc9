// The furthest value over a disc, or a square, round each pixel, as the text of the operation finds it: two runs of 1,
// 2, 4 ... 64 pixels make up each row of it.
#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>
#include <vector>

#include "core/base/plain_vector.h"
#include "core/cpu/disc_line.h"
#include "core/cpu/native.h"

namespace lacquer {

namespace {

constexpr double furthest_radius = 63;  // pixels of the frame
constexpr int longest_level = 6;        // runs of 2 to the power of this
constexpr int band_rows = 32;           // that are drawn by one thread in one go

// Where the two runs of a row begin, from some pixel.
struct Runs {
    int level = 0;
    LineOffset left;
    LineOffset right;
};

// One row of the disc: where it lies, and half its length beyond the middle in pixels of the frame.
struct Row {
    LineOffset down;
    double away = 0;
};

// Lines of runs of each length, level 0 being the picture's own, for some rows of it. Not whole if it was called off.
class Levels {
public:
    Levels(const PictureView& from, int first, int count, int levels, double across, Further further,
           const Cancel& cancel)
        : from_(from), first_(first), row_(row_of(from)), made_(static_cast<std::size_t>(levels)) {
        for (int level = 1; level <= levels; ++level) {
            PlainVector<float>& lines = made_[static_cast<std::size_t>(level - 1)];
            lines.resize(static_cast<std::size_t>(count) * row_);
            const LineOffset offset = line_offset(across * (1 << (level - 1)));
            for (int y = first; y < first + count && !cancel.requested(); ++y)
                join(at(level - 1, y), offset, further, lines.data() + static_cast<std::size_t>(y - first) * row_);
        }
    }

    static std::size_t row_of(const PictureView& from) {
        return static_cast<std::size_t>(from.width) * static_cast<std::size_t>(from.channels);
    }

    const float* at(int level, int y) const {
        if (level == 0) return from_.data + static_cast<std::size_t>(y) * row_;
        return made_[static_cast<std::size_t>(level - 1)].data() + static_cast<std::size_t>(y - first_) * row_;
    }

private:
    // The further of each pixel and that at a distance to the right, held at the border.
    void join(const float* line, LineOffset offset, Further further, float* to) const {
        const auto channels = static_cast<std::size_t>(from_.channels);
        const int inside = std::max(from_.width - 1 - offset.whole, 0);
        const auto pixel = [&](int x) { return line + static_cast<std::size_t>(x) * channels; };
        const auto further_of = [&](int x, const LineTap& other, int count) {
            const std::array<DiscRow, 1> two = {DiscRow{{{pixel(x), nullptr, 0}, {}, 0}, {other, {}, 0}}};
            const std::size_t begin = static_cast<std::size_t>(x) * channels;
            furthest_line(two, further, 0, static_cast<std::size_t>(count) * channels, to + begin);
        };
        if (inside > 0) further_of(0, {pixel(offset.whole), pixel(offset.whole + 1), offset.share}, inside);
        for (int x = inside; x < from_.width; ++x) further_of(x, {pixel(from_.width - 1), nullptr, 0}, 1);
    }

    const PictureView& from_;
    const int first_;
    const std::size_t row_;  // numbers
    std::vector<PlainVector<float>> made_;
};

class Discs {
public:
    Discs(const NativeInputs& inputs, Further further)
        : from_(inputs.from),
          further_(further),
          scale_across_(from_.width / static_cast<double>(inputs.frame_width)),
          scale_down_(from_.height / static_cast<double>(inputs.frame_height)),
          frame_width_(static_cast<double>(inputs.frame_width)) {
        const double far = std::min(std::abs(static_cast<double>(inputs.argument)), furthest_radius);
        const bool square = inputs.argument < 0;
        add_row(0, far);
        for (double i = 1; i < far + 1; ++i) {
            // The last row may lie in part of a pixel only.
            const double down = std::min(i, far);
            const double away = square ? far : std::sqrt(far * far - down * down);
            add_row(down, away);
            add_row(-down, away);
        }
        margin_ = std::min(static_cast<int>(std::ceil((far + 1) * scale_across_)) + 2, (from_.width + 1) / 2);
        for (int x = 0; x < from_.width; ++x) {
            if (is_inside(x)) continue;
            for (const Row& row : rows_) border_.push_back(runs_at(x, row.away));
        }
        for (const Row& row : rows_) inner_.push_back(runs_of(2 * row.away + 1, -row.away, row.away));
        for (const std::vector<Runs>* all : {&inner_, &border_})
            for (const Runs& runs : *all) levels_ = std::max(levels_, runs.level);
    }

    // Some rows, with the lines that are read for them. False if it was called off.
    bool draw(int first, int count, Picture& to, const Cancel& cancel) const {
        const auto [least, most] = std::minmax_element(
            rows_.begin(), rows_.end(), [](const Row& a, const Row& b) { return a.down.whole < b.down.whole; });
        const int top = row_at(first + least->down.whole);
        const int bottom = row_at(first + count + most->down.whole);
        const Levels levels(from_, top, bottom - top + 1, levels_, scale_across_, further_, cancel);
        std::vector<DiscRow> rows(rows_.size());
        const auto channels = static_cast<std::size_t>(from_.channels);
        for (int y = first; y < first + count; ++y) {
            if (cancel.requested()) return false;
            std::size_t column = 0;  // of the border
            for (int x = 0; x < from_.width; ++x) {
                if (is_inside(x)) {
                    x = from_.width - margin_ - 1;
                    continue;
                }
                fill(rows, levels, y, border_.data() + column++ * rows_.size(),
                     [this](int at) { return std::clamp(at, 0, from_.width - 1); });
                furthest_line(rows, further_, 0, channels, to.at(x, y));
            }
            if (from_.width <= 2 * margin_) continue;
            fill(rows, levels, y, inner_.data(), [this](int at) { return margin_ + at; });
            furthest_line(rows, further_, 0, static_cast<std::size_t>(from_.width - 2 * margin_) * channels,
                          to.at(margin_, y));
        }
        return true;
    }

private:
    void add_row(double down, double away) { rows_.push_back({line_offset(down * scale_down_), away}); }

    bool is_inside(int x) const { return x >= margin_ && x < from_.width - margin_; }
    int row_at(int y) const { return std::clamp(y, 0, from_.height - 1); }

    // A row of so many pixels of the frame, from `first` to `last` of some place.
    Runs runs_of(double wide, double first, double last) const {
        Runs runs;
        while (runs.level < longest_level && wide >= (2 << runs.level)) ++runs.level;
        runs.left = line_offset(first * scale_across_);
        runs.right = line_offset((last - ((1 << runs.level) - 1)) * scale_across_);
        return runs;
    }

    // Near a border, where it ends in the frame's last pixels; from the line's beginning.
    Runs runs_at(int x, double away) const {
        const double middle = (x + 0.5) / scale_across_;
        const double first = std::max(middle - away, 0.5);
        const double last = std::min(middle + away, frame_width_ - 0.5);
        Runs runs = runs_of(last - first + 1, first, last);
        const auto from_line = [&](double place) { return line_offset(place * scale_across_ - 0.5); };
        runs.left = from_line(first);
        runs.right = from_line(last - ((1 << runs.level) - 1));
        return runs;
    }

    // What the rows of a pixel's disc read, where `column` gives the column of each offset.
    template <class Column>
    void fill(std::vector<DiscRow>& rows, const Levels& levels, int y, const Runs* runs, const Column& column) const {
        const auto tap = [&](const float* line, const LineOffset& offset) {
            const auto pixel = [&](int at) {
                return line + static_cast<std::size_t>(column(at)) * static_cast<std::size_t>(from_.channels);
            };
            return LineTap{pixel(offset.whole), offset.share == 0 ? nullptr : pixel(offset.whole + 1), offset.share};
        };
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            const LineOffset& down = rows_[i].down;
            const float* upper = levels.at(runs[i].level, row_at(y + down.whole));
            const float* lower = levels.at(runs[i].level, row_at(y + down.whole + 1));
            rows[i].left = {tap(upper, runs[i].left), tap(lower, runs[i].left), down.share};
            rows[i].right = {tap(upper, runs[i].right), tap(lower, runs[i].right), down.share};
        }
    }

    const PictureView& from_;
    const Further further_;
    const double scale_across_;  // drawn pixels in one of the frame
    const double scale_down_;
    const double frame_width_;
    std::vector<Row> rows_;
    std::vector<Runs> inner_;   // for each row, from a pixel
    std::vector<Runs> border_;  // for each column near a border and each row
    int margin_ = 0;            // columns
    int levels_ = 0;
};

bool furthest(const NativeInputs& inputs, Further further, Picture& to, WorkerPool& pool, const Cancel& cancel) {
    if (!(std::abs(inputs.argument) > 0)) {
        std::fill(to.data.begin(), to.data.end(), 0.0F);
        return true;
    }
    const Discs discs(inputs, further);
    std::atomic<bool> whole = true;
    pool.run((to.height + band_rows - 1) / band_rows, [&](int band) {
        const int first = band * band_rows;
        if (whole && !discs.draw(first, std::min(band_rows, to.height - first), to, cancel)) whole = false;
    });
    return whole;
}

bool greatest(const NativeInputs& inputs, const KernelSet& /*kernels*/, Picture& to, WorkerPool& pool,
              const Cancel& cancel) {
    return furthest(inputs, Further::greatest, to, pool, cancel);
}

bool least(const NativeInputs& inputs, const KernelSet& /*kernels*/, Picture& to, WorkerPool& pool,
           const Cancel& cancel) {
    return furthest(inputs, Further::least, to, pool, cancel);
}

// The lines of runs that a thread has at a time, for the widest disc of four channels.
constexpr int line_bytes =
    longest_level * (band_rows + 2 * static_cast<int>(furthest_radius) + 1) * 4 * static_cast<int>(sizeof(float));

}  // namespace

NativeWay greatest_over_disc_way() { return {"greatest_over_disc", 0, 0, 0, line_bytes, greatest}; }
NativeWay least_over_disc_way() { return {"least_over_disc", 0, 0, 0, line_bytes, least}; }

}  // namespace lacquer
