// What opens over the window to choose from: commands, history, ways of looking, colours.
#include <QAction>
#include <cstring>

#include "core/base/text.h"
#include "core/finish/live_words.h"
#include "core/finish/step_edits.h"
#include "core/picture/transfer.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/colour_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/main_window.h"
#include "desktop/stage/stage_view.h"

namespace lacquer {

void MainWindow::show_history() {
    Chooser::Offer offer;
    offer.title = tr("Go back to");
    const History& history = document_.history();
    std::vector<std::size_t> entries;
    // Newest first; what was undone stands above the present.
    for (std::size_t i = history.size(); i-- > 0;) {
        const std::string words = history.words(i);
        Choice choice{words.empty() ? tr("The beginning") : qs(words)};
        if (i == history.at()) choice.key = tr("now");
        choice.fits = i <= history.at();
        offer.choices.push_back(std::move(choice));
        entries.push_back(i);
    }
    offer.taken = [this, entries](int index) { document_.go_to(entries[static_cast<std::size_t>(index)]); };
    chooser_->open(QPoint(width() / 2 - 190, 48), std::move(offer));
}

void MainWindow::show_commands() {
    Chooser::Offer offer;
    offer.title = tr("What do you want to do?");
    offer.width = 520;
    std::vector<const ActionRow*> rows;
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0' || std::strcmp(row.id, "commands") == 0) continue;
        const QString why = why_not(row);
        Choice choice{tr(row.words), why.isEmpty() ? tr(row.tip) : why};
        choice.key = key_of(row.id);
        choice.fits = why.isEmpty();
        offer.choices.push_back(std::move(choice));
        rows.push_back(&row);
    }
    offer.taken = [this, rows](int index) { run(*rows[static_cast<std::size_t>(index)]); };
    chooser_->open(QPoint(width() / 2 - 260, 48), std::move(offer));
}

void MainWindow::choose_curtain_other() {
    Chooser::Offer offer;
    offer.title = tr("On the curtain's left side");
    std::vector<std::string> names{""};
    offer.choices.push_back({tr("The picture as it came in")});
    for_each_step(document_.finish(), [&](const Coat& coat, const Step& step) {
        names.push_back(step.name);
        Choice choice{qs(shown_name(step.name)), qs(coat.name)};
        choice.has_picture = true;
        offer.choices.push_back(std::move(choice));
    });
    offer.picture = [this, names](int index) {
        const auto found = drawing_.thumbnails().find(names[static_cast<std::size_t>(index)]);
        return found == drawing_.thumbnails().end() ? QImage() : found->second.image;
    };
    offer.taken = [this, names](int index) { stage_->set_curtain_other(names[static_cast<std::size_t>(index)]); };
    chooser_->open(stage_->mapTo(this, QPoint(24, 24)), std::move(offer));
}

void MainWindow::choose_frame_shape() {
    const int high = document_.finish().frame_height;
    struct ShownShape {
        QString words;
        QSize size;
    };
    const auto wide = [high](double aspect) { return QSize(static_cast<int>(high * aspect + 0.5), high); };
    const QList<ShownShape> shapes = {{tr("the finish's own"), QSize()}, {tr("16:9"), wide(16.0 / 9)},
                                      {tr("21:9"), wide(21.0 / 9)},      {tr("4:3"), wide(4.0 / 3)},
                                      {tr("square"), wide(1)},           {tr("9:16"), wide(9.0 / 16)}};
    Chooser::Offer offer;
    offer.title = tr("A shape, or a size such as 800 x 600");
    for (const ShownShape& shape : shapes) {
        const QString size = shape.size.isEmpty()
                                 ? QString()
                                 : QStringLiteral("%1 × %2").arg(shape.size.width()).arg(shape.size.height());
        offer.choices.push_back({shape.words, size});
    }
    const auto look_at = [this](QSize size) {
        change_look([size](Look& look) { look.frame = size; },
                    size.isEmpty() ? tr("The finish's own frame")
                                   : tr("Looking at %1 × %2").arg(size.width()).arg(size.height()));
    };
    offer.taken = [shapes, look_at](int index) { look_at(shapes[index].size); };
    offer.typed = [this, look_at](const QString& text) {
        const QStringList sides =
            QString(text).replace(QLatin1Char('x'), QLatin1Char(' ')).simplified().split(QLatin1Char(' '));
        const int width = sides.value(0).toInt();
        const int height = sides.value(1).toInt();
        if (sides.size() != 2 || !is_drawable_size(width, height))
            return document_.say(tr("'%1' isn't a size: write it like 800 x 600").arg(text));
        look_at(QSize(width, height));
    };
    chooser_->open(stage_->mapTo(this, QPoint(24, 24)), std::move(offer));
}

void MainWindow::next_backdrop() {
    static const QStringList names = {tr("checker"), tr("black"), tr("white"), tr("a custom colour")};
    const int next = (static_cast<int>(drawing_.look().backdrop) + 1) % 4;
    change_look([next](Look& look) { look.backdrop = static_cast<Backdrop>(next); },
                tr("Behind what is transparent: %1").arg(names[next]));
}

void MainWindow::choose_backdrop_colour() {
    const QColor now = drawing_.look().own_backdrop;
    const auto light = [](int level) { return srgb_decode(level / 255.0); };
    colour_editor_->open(
        QRect(stage_->mapTo(this, QPoint(24, 24)), QSize(1, 1)),
        {light(now.red()), light(now.green()), light(now.blue())},
        [this](const ColourEditor::Colour& colour) {
            Look look = drawing_.look();
            look.backdrop = Backdrop::own;
            look.own_backdrop = theme::swatch(colour);
            drawing_.set_look(std::move(look));
        },
        nullptr);
}

void MainWindow::take_picked(double red, double green, double blue) {
    const Dial* dial = find_dial(document_.finish(), dials_->chosen());
    if (dial == nullptr || dial->kind != DialKind::colour) return;
    playing_.set_dial(dial->name, {red, green, blue});
    document_.seal_edit();
}

void MainWindow::edit_word_colour(const QString& step, const QRect& at, std::size_t begin, std::size_t end) {
    const Step* found = find_step(document_.finish(), step.toStdString());
    if (found == nullptr) return;
    std::optional<LiveWord> colour;
    for (LiveWord& word : live_words(document_.checked(), found->formula)) {
        if (word.kind == LiveKind::colour && word.span.begin == begin && word.span.end == end) colour = std::move(word);
    }
    if (!colour) return;
    // The words grow and shrink as the colour changes; they begin at the same place.
    const auto span = std::make_shared<Span>(colour->span);
    colour_editor_->open(
        at, colour->colour,
        [this, step, span, opacity = colour->opacity](const ColourEditor::Colour& to) {
            const std::string text = colour_formula(to, opacity);
            Result<Finish> changed = replace_words(document_.finish(), step.toStdString(), *span, text);
            if (!changed) return;
            span->end = span->begin + static_cast<std::uint32_t>(text.size());
            document_.edit(std::move(*changed), tr("Changed a colour of %1").arg(qs(shown_name(step.toStdString()))),
                           "colour " + step.toStdString());
        },
        [this](bool) { document_.seal_edit(); });
}

void MainWindow::edit_dial_colour(const QString& dial, const QRect& at) {
    const Dial* found = find_dial(document_.finish(), dial.toStdString());
    if (found == nullptr || found->kind != DialKind::colour) return document_.say(tr("Choose a colour dial first"));
    colour_editor_->open(
        at, found->value, [this, name = found->name](const ColourEditor::Colour& to) { playing_.set_dial(name, to); },
        [this](bool) { document_.seal_edit(); });
}

void MainWindow::edit_stop_colour(const QString& ground, std::size_t stop, const QRect& at) {
    const auto change = [this, ground, stop](const ColourEditor::Colour& to) {
        Finish changed = document_.finish();
        for (Ground& own : changed.grounds) {
            Stops* stops = own.name == ground.toStdString() ? stops_of(own) : nullptr;
            if (stops == nullptr || stop >= stops->list.size()) continue;
            std::copy(to.begin(), to.end(), stops->list[stop].value.begin());
        }
        document_.edit(std::move(changed), tr("Changed a colour of %1").arg(qs(shown_name(ground.toStdString()))),
                       "stop " + ground.toStdString());
    };
    for (const Ground& own : document_.finish().grounds) {
        const Stops* stops = own.name == ground.toStdString() ? stops_of(own) : nullptr;
        if (stops == nullptr || stop >= stops->list.size()) continue;
        const auto& value = stops->list[stop].value;
        colour_editor_->open(at, {value[0], value[1], value[2]}, change, [this](bool) { document_.seal_edit(); });
        return;
    }
}

}  // namespace lacquer
