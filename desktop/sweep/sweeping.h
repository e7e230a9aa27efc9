// What the sweep screen is about: its sheet and what was measured, the strip of variants, and which two cells are
// compared. Draws while the screen is shown.
#pragma once

#include <QImage>
#include <QObject>
#include <QSize>
#include <QTimer>
#include <array>
#include <memory>
#include <vector>

#include "core/finish/lots.h"
#include "desktop/drawing/models.h"
#include "desktop/drawing/sheet_thread.h"
#include "desktop/sweep/save_sheet.h"
#include "desktop/sweep/sheet.h"

namespace lacquer {

/// What the cells are: steps of a sweep, looks that were set aside, or looks drawn by lot.
enum class SheetMode { sweep, set_aside, lots };

class Sweeping : public QObject {
    Q_OBJECT

public:
    explicit Sweeping(Models& models, QObject* parent = nullptr);
    ~Sweeping() override;

    Document& document() { return document_; }
    /// Draws from now on, or rests.
    void set_shown(bool shown);
    /// Everything that was asked for is there.
    bool settled() const { return thread_->idle() && !measure_timer_.isActive() && !ask_timer_.isActive(); }

    SheetMode mode() const { return mode_; }
    void set_mode(SheetMode mode);
    const SheetSpec& spec() const { return spec_; }
    void set_spec(SheetSpec spec);
    bool all_shapes() const { return all_shapes_; }
    void set_all_shapes(bool all);
    const Lots& lots() const { return lots_; }
    void set_lots(Lots lots);

    const std::vector<SheetCell>& cells() const { return cells_; }
    /// How many stand beside one another where the sheet is a table; 0 where they wrap.
    int table_columns() const;
    QImage picture(int cell) const;
    /// True once a picture is as large as it is wanted.
    bool is_fine(int cell) const;
    /// How large the pictures of cells are, in device pixels: as wide as they are seen.
    QSize cell_size() const;
    void set_cell_width(int device_pixels);
    void draw_first(int cell) { thread_->ask_first(cell); }
    /// Which cells, and which cards of the strip, can be seen: only they are drawn. Not including `to`.
    void set_cells_in_view(int from, int to);
    void set_strip_in_view(int from, int to);

    const std::vector<Measured>& measured() const { return measured_; }
    bool measuring() const { return measuring_; }
    const Dial* swept_dial() const;
    /// How much of the picture has changed at a value, 0..1, by the last measure of the pace; nothing if it has none.
    std::optional<double> share_changed_at(double value) const;
    /// Makes a measure a promise of the swept dial, or takes it back.
    void toggle_promise(const std::string& id);
    void take_mend(const std::string& id, std::size_t mend);

    /// Which of the looks that were set aside a cell is; -1 for none.
    int look_index(int cell) const;
    /// Makes a cell what the stage shows: its values, moment and variant; a look or lot becomes a change.
    void take(int cell);
    /// Two cells side by side or over one another; none ends that.
    void compare(int first, int second);
    void end_comparing();
    bool comparing() const { return comparing_; }
    const std::array<int, 2>& compared() const { return compared_; }
    QImage compared_picture(int nth) const { return compared_pictures_.at(static_cast<std::size_t>(nth)); }

    /// The picture of the finish itself (0) or a variant (1, 2, ...).
    QImage strip_picture(int nth) const;

    /// All cells, those that can't be seen, too.
    SheetToSave sheet_to_save(int columns) const;

Q_SIGNALS:
    void spec_changed();  ///< the sentence, the mode, or what the cells are
    void picture_changed(int cell);
    void measured_changed();
    void strip_changed();
    void compared_changed();

private:
    struct InView {
        int from = 0;
        int to = 32;
        bool holds(int index) const { return index >= from && index < to; }
        friend bool operator==(const InView&, const InView&) = default;
    };
    void ask_soon();
    void ask();
    void ask_strip();
    void ask_measures();
    void make_cells();
    void follow_finish();
    void go_to_liveliest();
    RenderRequest request_for(const QSize& size) const;
    SheetPicture picture_for(const SheetCell& cell, const QSize& size) const;
    SheetPicture picture_of(int cell, const QSize& size) const;
    SheetResults results();
    const SetAside* look_of(int cell) const;

    Document& document_;
    Playing& playing_;
    Drawing& drawing_;
    std::unique_ptr<SheetThread> thread_;
    bool shown_ = false;
    SheetMode mode_ = SheetMode::sweep;
    SheetSpec spec_;
    SheetSpec automatic_;  ///< that was chosen for the finish, and not by hand
    bool is_new_ = true;   ///< another finish, not looked at yet
    bool all_shapes_ = false;
    Lots lots_;
    std::vector<SheetCell> cells_;
    std::vector<QImage> pictures_;
    std::vector<bool> fine_;
    std::uint64_t number_ = 0;
    std::vector<Measured> measured_;
    bool measuring_ = false;
    std::uint64_t measure_number_ = 0;
    std::vector<QImage> strip_;
    std::uint64_t strip_number_ = 0;
    bool comparing_ = false;
    std::array<int, 2> compared_{};
    std::array<QImage, 2> compared_pictures_;
    std::uint64_t compared_number_ = 0;
    int cell_width_ = 0;
    InView cells_in_view_;
    InView strip_in_view_;
    QTimer ask_timer_;
    QTimer measure_timer_;
};

}  // namespace lacquer
