// The sweep screen within the window, and the actions of sheets, looks and variants.
#include <QBuffer>
#include <QFileInfo>
#include <cmath>

#include "core/base/file.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"
#include "core/finish/variants.h"
#include "desktop/dials/dials_view.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/line_editor.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/playing/playing.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/main_window.h"
#include "desktop/sweep/differences.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/sweep/variant_strip.h"

namespace lacquer {

namespace {

constexpr QSize kept_picture{128, 72};
constexpr int saved_columns = 4;
constexpr double closer = 0.5;  // how much nearer each drawing is

QByteArray png_of(const QImage& image) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return bytes;
}

}  // namespace

MainWindow::Handlers MainWindow::sweep_handlers() {
    return {
        {"sweep_dial", [this] { sweep_dial(); }},
        {"sheet_sweep", [this] { sweep_->sweeping().set_mode(SheetMode::sweep); }},
        {"sheet_looks", [this] { sweep_->sweeping().set_mode(SheetMode::set_aside); }},
        {"sheet_lots", [this] { sweep_->sweeping().set_mode(SheetMode::lots); }},
        {"compare_cells", [this] { sweep_->sheet().compare_present(); }},
        {"turn_compared", [this] { sweep_->sheet().turn_compared(); }},
        {"save_sheet", [this] { save_sheet(false); }},
        {"save_cells", [this] { save_sheet(true); }},
        {"draw_lots", [this] { draw_lots(false); }},
        {"draw_closer", [this] { draw_lots(true); }},
        {"set_aside", [this] { set_look_aside(); }},
        {"name_look", [this] { name_look(); }},
        {"delete_look", [this] { delete_look(); }},
        {"add_variant",
         [this] {
             document_.edit(
                 add_variant(document_.finish(), "variant", overlay_of(document_.finish(), document_.finish().variant)),
                 tr("Added a variant"));
         }},
        {"cell_variant", [this] { cell_as_variant(); }},
        {"next_variant", [this] { step_variant(1); }},
        {"previous_variant", [this] { step_variant(-1); }},
        {"into_base", [this] { into_base(); }},
        {"follow_base", [this] { follow_base_again(); }},
        {"copy_variant",
         [this] {
             document_.edit(copy_variant(document_.finish(), document_.finish().variant), tr("Copied the variant"));
         }},
        {"rename_variant", [this] { rename_variant_asking(); }},
        {"variant_earlier",
         [this] {
             document_.edit(move_variant(document_.finish(), document_.finish().variant, -1), tr("Moved the variant"));
         }},
        {"variant_later",
         [this] {
             document_.edit(move_variant(document_.finish(), document_.finish().variant, 1), tr("Moved the variant"));
         }},
        {"variant_finish", [this] { save_variant_as_finish(); }},
        {"bring_variants", [this] { bring_variants(); }},
        {"delete_variant",
         [this] {
             const std::string name = document_.finish().variant;
             document_.edit(delete_variant(document_.finish(), name),
                            tr("Deleted the variant %1").arg(qs(shown_name(name))));
         }},
    };
}

void MainWindow::connect_sweep() {
    connect(&sweep_->strip(), &VariantStrip::wants_variant, this, [this] { actions_["add_variant"]->trigger(); });
    connect(&sweep_->sheet(), &SheetView::wants_bench, this, [this] { show_screen(Where::bench); });
    connect(&sweep_->sweeping(), &Sweeping::spec_changed, this, &MainWindow::refresh_checks);
    connect(&sweep_->sweeping(), &Sweeping::compared_changed, this, &MainWindow::refresh_checks);
}

void MainWindow::sweep_dial() {
    sweep_->sweep(dials_->chosen());
    show_screen(Where::sweep);
}

// What the stage shows goes with it, so that it is recognised.
void MainWindow::set_look_aside() {
    SetAside look;
    look.time = playing_.time();
    const std::size_t nth = document_.finish().set_aside.size() + 1;
    look.words = tr("look %1, at %2 s").arg(nth).arg(look.time, 0, 'f', 2).toStdString();
    const QImage shown = drawing_.stage().image;
    if (!shown.isNull())
        look.picture =
            png_of(shown.scaled(kept_picture, Qt::KeepAspectRatio, Qt::SmoothTransformation)).toBase64().toStdString();
    look.overlay = whole_overlay(document_.finish());
    look.held = playing_.held();
    Finish changed = document_.finish();
    const QString words = qs(look.words);
    changed.set_aside.push_back(std::move(look));
    document_.edit(std::move(changed), tr("Set aside: %1").arg(words));
}

void MainWindow::ask_line(const QString& title, const QString& now, const std::function<void(const QString&)>& take) {
    Chooser::Offer offer;
    offer.title = title;
    offer.typed = take;
    chooser_->open(QPoint((width() - offer.width) / 2, 48), std::move(offer));
    chooser_->field().setText(now);
    chooser_->field().selectAll();
}

int MainWindow::look_at_hand() const { return sweep_->sweeping().look_index(sweep_->sheet().present()); }

void MainWindow::name_look() {
    const auto nth = static_cast<std::size_t>(look_at_hand());
    ask_line(tr("A line of words for this look"), qs(document_.finish().set_aside[nth].words),
             [this, nth](const QString& words) {
                 Finish changed = document_.finish();
                 if (nth >= changed.set_aside.size()) return;
                 changed.set_aside[nth].words = words.trimmed().toStdString();
                 document_.edit(std::move(changed), tr("Called the look %1").arg(words.trimmed()));
             });
}

void MainWindow::delete_look() {
    const auto nth = look_at_hand();
    Finish changed = document_.finish();
    const QString words = qs(changed.set_aside[static_cast<std::size_t>(nth)].words);
    changed.set_aside.own().erase(changed.set_aside.own().begin() + nth);
    document_.edit(std::move(changed), tr("Deleted the look %1").arg(words));
}

void MainWindow::cell_as_variant() {
    const Sweeping& sweeping = sweep_->sweeping();
    const auto nth = static_cast<std::size_t>(sweep_->sheet().present());
    const SheetCell& cell = sweeping.cells()[nth];
    const Finish base = switch_variant(document_.finish(), "");
    Finish shown = cell.variant ? switch_variant(document_.finish(), *cell.variant) : document_.finish();
    if (const int look = sweeping.look_index(sweep_->sheet().present()); look >= 0)
        shown = with_whole(std::move(shown), document_.finish().set_aside[static_cast<std::size_t>(look)].overlay);
    shown = with_values(std::move(shown), cell.held);
    // A dial that is driven stays where the cell has it only if nothing drives it there.
    for (Dial& dial : shown.dials) {
        if (cell.held.contains(dial.name)) dial.formula.clear();
    }
    document_.edit(add_variant(document_.finish(), cell.words.toStdString(), overlay_between(base, shown)),
                   tr("Made %1 a variant").arg(cell.words));
}

void MainWindow::step_variant(int by) {
    const Finish& finish = document_.finish();
    int now = 0;
    for (std::size_t i = 0; i < finish.variants.size(); ++i) {
        if (finish.variants[i].name == finish.variant) now = static_cast<int>(i) + 1;
    }
    const int to = now + by;
    if (finish.variants.empty())
        return document_.say(tr("There are no variants yet: make one (%1)").arg(key_of("add_variant")));
    if (to < 0 || to > static_cast<int>(finish.variants.size()))
        return document_.say(by < 0 ? tr("The base is on") : tr("The last variant is on"));
    const std::string name = to == 0 ? std::string() : finish.variants[static_cast<std::size_t>(to) - 1].name;
    document_.edit(switch_variant(finish, name),
                   tr("Variant: %1").arg(name.empty() ? tr("base") : qs(shown_name(name))));
}

std::string MainWindow::thing_at_hand() const {
    if (screen_shown() == Where::sweep) {
        if (sweep_->differences().hasFocus()) return sweep_->differences().present();
        const Dial* swept = sweep_->sweeping().swept_dial();
        return swept != nullptr ? swept->name : std::string();
    }
    if (dials_->hasFocus()) return dials_->chosen();
    if (shelf_->hasFocus()) return shelf_->chosen();
    return document_.selected();
}

void MainWindow::into_base() {
    const std::string name = thing_at_hand();
    document_.edit(lacquer::into_base(document_.finish(), name),
                   tr("Wrote %1 into the base").arg(qs(shown_name(name))));
}

void MainWindow::follow_base_again() {
    const std::string name = thing_at_hand();
    document_.edit(follow_base(document_.finish(), name), tr("%1 follows the base").arg(qs(shown_name(name))));
}

void MainWindow::rename_variant_asking() {
    const std::string name = document_.finish().variant;
    ask_line(tr("A name for the variant"), qs(shown_name(name)), [this, name](const QString& typed) {
        document_.edit(rename_variant(document_.finish(), name, typed.toStdString()),
                       tr("Renamed the variant to %1").arg(typed.trimmed()));
    });
}

void MainWindow::save_variant_as_finish() {
    const Result<Finish> own = variant_as_finish(document_.finish(), document_.finish().variant);
    if (!own) return document_.complain(own.fault());
    const QString path =
        document_.with_ending(document_.prompts().finish_to_save(qs(own->name)), QStringLiteral(".lacquer"));
    if (path.isEmpty()) return;
    using Given = Result<Done>;
    const auto work = [finish = moved_paths(*own, document_.path(), path.toStdString()), file = path.toStdString()] {
        return write_whole_file(file, finish_to_text(finish));
    };
    const auto done = [this, path](const Given& given) {
        if (!given) return document_.complain(given.fault());
        document_.say(tr("Saved the variant as %1").arg(QFileInfo(path).fileName()));
    };
    if (!document_.background().run<Given>(tr("saving %1").arg(QFileInfo(path).fileName()), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

void MainWindow::bring_variants() {
    const QString path = document_.prompts().finish_to_open(QFileInfo(qs(document_.path())).path());
    if (path.isEmpty()) return;
    using Given = Result<OpenedFinish>;
    const auto work = [file = path.toStdString()] { return load_finish(file); };
    const auto done = [this, path](const Given& given) {
        if (!given) return document_.complain(given.fault());
        const int count = static_cast<int>(given->finish.variants.size());
        if (count == 0) return document_.say(tr("%1 has no variants").arg(QFileInfo(path).fileName()));
        const Finish other = moved_paths(given->finish, path.toStdString(), document_.path());
        document_.edit(with_variants_of(document_.finish(), other), tr("Brought in %n variant(s)", nullptr, count));
    };
    if (!document_.background().run<Given>(tr("reading %1").arg(QFileInfo(path).fileName()), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

void MainWindow::save_sheet(bool as_cells) {
    const QString path =
        document_.with_ending(document_.prompts().picture_to_save(QStringLiteral("sheet.png")), QStringLiteral(".png"));
    if (path.isEmpty()) return;
    const int count = static_cast<int>(sweep_->sweeping().cells().size());
    using Given = Result<Done>;
    const auto work = [sheet = sweep_->sweeping().sheet_to_save(saved_columns), path, as_cells](
                          const Cancel& cancel, const Background::Progress& progress) {
        return lacquer::save_sheet(sheet, path, as_cells, cancel, progress);
    };
    const auto done = [this, path, count, as_cells](const Given& given) {
        if (!given) return document_.complain(given.fault());
        document_.say(as_cells ? tr("Saved %n cell(s)", nullptr, count)
                               : tr("Saved the sheet as %1").arg(QFileInfo(path).fileName()));
    };
    if (!document_.background().run<Given>(tr("saving the sheet"), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

void MainWindow::draw_lots(bool around) {
    Sweeping& sweeping = sweep_->sweeping();
    Lots lots = sweeping.lots();
    if (around) {
        const auto nth = static_cast<std::size_t>(sweep_->sheet().present());
        const HeldDials held = sweeping.cells()[nth].held;
        lots.reach = lots.around.empty() ? closer * 0.5 : lots.reach * closer;
        for (const std::string& name : lots.dials) {
            const auto found = held.find(name);
            const Dial* dial = find_dial(document_.finish(), name);
            if (dial != nullptr) lots.around[name] = found != held.end() ? found->second : dial->value;
        }
    } else {
        lots.around.clear();
        lots.reach = 0.5;
    }
    ++lots.seed;
    sweeping.set_mode(SheetMode::lots);
    sweeping.set_lots(std::move(lots));
    document_.say(around ? tr("Eight looks around that one") : tr("Eight other looks"));
}

}  // namespace lacquer
