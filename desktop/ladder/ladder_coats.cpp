// What the actions of coats do.
#include <QClipboard>
#include <QGuiApplication>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/steps_text.h"
#include "desktop/document/document.h"
#include "desktop/document/kept_coats.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/core_words.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

void LadderView::toggle_coat() {
    if (document_.finish().coats.empty()) return;
    Finish changed = document_.finish();
    Coat& coat = changed.coats[current_coat()];
    coat.on = !coat.on;
    const QString what = (coat.on ? tr("Switched the coat %1 on") : tr("Switched the coat %1 off")).arg(qs(coat.name));
    document_.edit(std::move(changed), what);
}

void LadderView::fold_coat() {
    if (document_.finish().coats.empty()) return;
    Finish changed = document_.finish();
    Coat& coat = changed.coats[current_coat()];
    coat.folded = !coat.folded;
    const QString what = (coat.folded ? tr("Folded %1") : tr("Unfolded %1")).arg(qs(coat.name));
    document_.edit(std::move(changed), what);
}

void LadderView::add_coat() {
    const std::size_t after = current_coat();
    document_.edit(
        lacquer::add_coat(document_.finish(), after, "Coat " + std::to_string(document_.finish().coats.size() + 1)),
        tr("Added a coat; move steps into it, or drag them onto its heading"));
}

void LadderView::begin_coat_line(Editing what, std::size_t coat) {
    for (const LadderRow& row : rows_) {
        if (row.kind != LadderRowKind::coat || row.coat != coat) continue;
        line_coat_ = coat;
        const Coat& own = document_.finish().coats[coat];
        const bool name = what == Editing::coat_name;
        begin_line(what, QRect(28, row.area.top() + 2, name ? 220 : row.area.width() - 90, 24),
                   qs(name ? own.name : own.note));
        return;
    }
}

void LadderView::rename_coat() { begin_coat_line(Editing::coat_name, current_coat()); }

void LadderView::delete_coat() {
    if (document_.finish().coats.empty()) return;
    const std::size_t at = current_coat();
    const Coat& coat = document_.finish().coats[at];
    const QString what = tr("Deleted the coat %1 with %2")
                             .arg(qs(coat.name), tr("%n step(s)", nullptr, static_cast<int>(coat.steps.size())));
    document_.edit(lacquer::delete_coat(document_.finish(), at), what);
    chosen_coat_.reset();
}

void LadderView::note_coat() { begin_coat_line(Editing::coat_note, current_coat()); }

void LadderView::move_coat(int direction) {
    const std::size_t coat = current_coat();
    if (coat >= document_.finish().coats.size()) return;
    const QString name = qs(document_.finish().coats[coat].name);
    Result<Finish> moved = lacquer::move_coat(document_.finish(), coat, direction);
    if (!moved) return document_.say(fault_words(moved.fault()));
    QString what = tr("Moved the coat %1 %2").arg(name, direction < 0 ? tr("up") : tr("down"));
    const std::vector<OutOfOrder> broken = out_of_order(*moved);
    if (!broken.empty()) {
        what += tr(": %1 names %2, which is below it now")
                    .arg(qs(shown_name(broken.front().step)), qs(shown_name(broken.front().names)));
    }
    document_.edit(std::move(*moved), what);
    if (chosen_coat_) choose_coat(static_cast<std::size_t>(static_cast<std::ptrdiff_t>(coat) + direction));
}

void LadderView::copy_coat() {
    const std::size_t coat = current_coat();
    if (coat >= document_.finish().coats.size()) return;
    QGuiApplication::clipboard()->setText(qs(coat_as_text(document_.finish(), document_.path(), coat)));
    document_.say(tr("Copied the coat %1 as text").arg(qs(document_.finish().coats[coat].name)));
}

void LadderView::keep_coat() {
    const std::size_t coat = current_coat();
    if (coat >= document_.finish().coats.size()) return;
    const std::string name = document_.finish().coats[coat].name;
    const auto keep = [name, text = coat_as_text(document_.finish(), document_.path(), coat)] {
        return lacquer::keep_coat(name, text);
    };
    const Result<Done> kept = document_.disk().wait(tr("keeping %1").arg(qs(name)), keep);
    if (!kept) return document_.complain(kept.fault());
    look_for_kept_coats();
    document_.say(tr("Kept the coat %1; insert it in any finish").arg(qs(name)));
}

void LadderView::look_for_kept_coats() {
    document_.disk().then(
        this, [] { return !kept_coats().empty(); },
        [this](bool any) {
            if (any == any_kept_coats_) return;
            any_kept_coats_ = any;
            emit kept_coats_changed();
        });
}

void LadderView::insert_kept_coat() {
    const std::vector<KeptCoat> kept =
        document_.disk().wait(tr("looking for your own coats"), [] { return kept_coats(); });
    if (kept.empty()) return;
    Chooser::Offer offer;
    offer.title = tr("A coat of your own");
    for (const KeptCoat& coat : kept) offer.choices.push_back({qs(coat.name)});
    offer.taken = [this, kept](int index) {
        const auto read = [coat = kept[static_cast<std::size_t>(index)]] { return read_kept_coat(coat); };
        const Result<std::string> text =
            document_.disk().wait(tr("reading %1").arg(qs(kept[static_cast<std::size_t>(index)].name)), read);
        if (!text) return document_.complain(text.fault());
        paste(qs(*text));
    };
    chooser_.open(viewport()->mapTo(window(), QPoint(28, 40)), std::move(offer));
}

}  // namespace lacquer
