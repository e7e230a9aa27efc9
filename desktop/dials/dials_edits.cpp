// What the actions of the dials do.
#include <QClipboard>
#include <QGuiApplication>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/steps_text.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/dial_text.h"
#include "desktop/kit/line_editor.h"
#include "desktop/playing/playing.h"

namespace lacquer {

void DialsView::edit_value() {
    const Cell* cell = cell_of(chosen_.one());
    if (cell == nullptr) return;
    const Dial& dial = document_.finish().dials[cell->dial];
    value_editor_->setText(dial_value_text(dial, present_value(dial)));
    value_editor_->setGeometry(
        cell->value.adjusted(dial.kind == DialKind::colour ? -40 : 20, 2, 2, -2).translated(-scrolled()));
    value_editor_->show();
    value_editor_->selectAll();
    value_editor_->setFocus();
}

void DialsView::end_value(bool keep) {
    if (!value_editor_->isVisible()) return;
    const QString typed = value_editor_->text();
    const bool had_focus = value_editor_->hasFocus();
    value_editor_->hide();
    if (had_focus) setFocus();
    const Dial* dial = find_dial(document_.finish(), chosen_.one());
    if (!keep || dial == nullptr) return;
    if (typed == dial_value_text(*dial, present_value(*dial))) return;
    const auto value = dial_value_from(*dial, typed);
    if (!value) {
        document_.say(
            dial->kind == DialKind::colour
                ? tr("'%1' isn't a colour - write it like #D9472B x 1.3").arg(typed)
                : tr("'%1' isn't a value - write it like %2").arg(typed, dial_value_text(*dial, dial->default_value)));
        return;
    }
    playing_.set_dial(chosen_.one(), *value);
    document_.seal_edit();
}

void DialsView::take_mend() {
    const Dial* dial = find_dial(document_.finish(), chosen_.one());
    const Warning* warning = dial == nullptr ? nullptr : warning_of(*dial);
    if (warning == nullptr || warning->mends.empty()) return document_.say(tr("There is nothing to mend here"));
    const Mend mend = warning->mends.front();
    document_.edit(mend.apply(document_.finish()), tr("Mended: %1").arg(core_words(mend.words)));
}

QString DialsView::chosen_words() const {
    return chosen_.several() ? tr("%n dial(s)", nullptr, static_cast<int>(chosen_.all().size()))
                             : qs(shown_name(chosen_.one()));
}

void DialsView::move_chosen(int direction) {
    std::vector<std::string> names = chosen_.all();
    if (direction > 0) std::reverse(names.begin(), names.end());
    Result<Finish> moved = document_.finish();
    for (const std::string& name : names) {
        moved = move_dial(std::move(*moved), name, direction);
        if (!moved) break;
    }
    document_.edit(std::move(moved), tr("Moved %1").arg(chosen_words()));
}

void DialsView::go_to_use() {
    std::vector<std::string> users = users_of(document_.finish(), chosen_.one());
    std::erase_if(users, [&](const std::string& name) { return find_step(document_.finish(), name) == nullptr; });
    if (users.empty()) return document_.say(tr("No step uses %1 itself").arg(qs(shown_name(chosen_.one()))));
    const auto present = std::find(users.begin(), users.end(), document_.selected());
    const bool last = present == users.end() || present + 1 == users.end();
    document_.select(last ? users.front() : *(present + 1));
    document_.say(tr("%1 is used in %2")
                      .arg(qs(shown_name(chosen_.one())), tr("%n step(s)", nullptr, static_cast<int>(users.size()))));
}

void DialsView::copy_chosen() {
    const Dial* dial = find_dial(document_.finish(), chosen_.one());
    if (dial == nullptr) return;
    if (chosen_.several()) {
        QGuiApplication::clipboard()->setText(qs(parts_as_text(document_.finish(), document_.path(), chosen_.all())));
        return document_.say(tr("Copied %1 as text").arg(chosen_words()));
    }
    const QString text = dial_value_text(*dial, present_value(*dial));
    QGuiApplication::clipboard()->setText(text);
    document_.say(tr("Copied %1").arg(text));
}

bool DialsView::paste_value() {
    const Dial* dial = find_dial(document_.finish(), chosen_.one());
    const QString text = QGuiApplication::clipboard()->text().trimmed();
    // Whole dials are pasted as all else is.
    if (dial == nullptr || text.startsWith(QLatin1Char('{'))) return false;
    const auto value = dial_value_from(*dial, text);
    if (!value) {
        document_.say(tr("'%1' isn't a value for %2").arg(text.left(40), qs(shown_name(chosen_.one()))));
        return true;
    }
    playing_.set_dial(chosen_.one(), *value);
    document_.seal_edit();
    document_.say(tr("%1 is %2").arg(qs(shown_name(chosen_.one())), dial_value_text(*dial, *value)));
    return true;
}

void DialsView::delete_chosen() {
    if (chosen_.one().empty()) return;
    const std::vector<std::string> names = chosen_.all();
    const std::vector<std::string> users = users_of(document_.finish(), names.front());
    QString what = names.size() > 1 ? tr("Deleted %1").arg(chosen_words())
                                    : tr("Deleted the dial %1").arg(qs(shown_name(chosen_.one())));
    if (names.size() == 1 && !users.empty()) what += tr(", which %1 used").arg(qs(shown_name(users.front())));
    Result<Finish> without = document_.finish();
    for (const std::string& name : names) {
        without = delete_dial(std::move(*without), name);
        if (!without) break;
    }
    document_.edit(std::move(without), what);
}

void DialsView::reset_chosen() {
    const Dial* dial = find_dial(document_.finish(), chosen_.one());
    if (dial == nullptr) return;
    if (!dial->formula.empty()) return playing_.let_go(chosen_.one());
    playing_.set_dial(chosen_.one(), dial->default_value);
    document_.seal_edit();
    document_.say(tr("%1 is at its default").arg(qs(shown_name(chosen_.one()))));
}

void DialsView::value_as_default() {
    Finish changed = document_.finish();
    for (Dial& dial : changed.dials) {
        if (dial.name == chosen_.one()) dial.default_value = dial.value;
    }
    document_.edit(std::move(changed), tr("Made the value of %1 its default").arg(qs(shown_name(chosen_.one()))));
}

}  // namespace lacquer
