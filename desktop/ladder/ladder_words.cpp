// Words of a formula, taken hold of where they stand: numbers, names, choices.
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/dial_making.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/try_on.h"
#include "core/lang/oracle.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/formulas/completion_choice.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/formula_line.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

namespace {

bool is_number(const LiveWord& word) { return word.kind == LiveKind::number || word.kind == LiveKind::choice; }

// What was typed for a number: a number, or a sum like 0.3 * 2.
std::optional<double> computed(const QString& typed) {
    const std::string text = typed.trimmed().toStdString();
    if (const auto plain = parse_number(text)) return plain;
    const Result<Typed> formula = compile_formula(text, Scope(), Type::number);
    if (!formula) return std::nullopt;
    const float value = evaluate(*formula, OracleInputs()).parts[0];
    return std::isfinite(value) ? parse_number(plain_number(static_cast<double>(value), 6)) : std::nullopt;
}

}  // namespace

std::vector<LiveWord> LadderView::words_of_selected() const {
    const Step* step = find_step(document_.finish(), document_.selected());
    return step == nullptr ? std::vector<LiveWord>() : live_words(document_.checked(), step->formula);
}

std::optional<LadderView::WordAt> LadderView::word_at(QPoint point) const {
    const LadderRow* row = row_at(point);
    if (row == nullptr || row->kind != LadderRowKind::step || shows_values_) return std::nullopt;
    if (row->name == selected_shown_ && editing_ == Editing::formula) return std::nullopt;
    const FormulaLine& line = line_of(*row);
    const auto byte = line.byte_at(point);
    if (!byte) return std::nullopt;
    const Step& step = document_.finish().coats[row->coat].steps[row->step];
    std::optional<WordAt> found;
    for (LiveWord& word : live_words(document_.checked(), step.formula)) {
        // Of a colour, only the word before its numbers is the colour's.
        const std::uint32_t end = word.kind == LiveKind::colour ? word.span.begin + 4 : word.span.end;
        if (*byte < word.span.begin || *byte >= end) continue;
        if (found && word.kind == LiveKind::function) continue;
        const QRect area = line.area_of({word.span.begin, end});
        found = WordAt{row->name, std::move(word), area};
    }
    return found;
}

std::optional<LadderView::WordAt> LadderView::word_at_hand() const {
    const LadderRow* row = selected_row();
    if (word_cursor_ >= 0 && row != nullptr) {
        std::vector<LiveWord> words = words_of_selected();
        if (word_cursor_ < static_cast<int>(words.size())) {
            LiveWord& word = words[static_cast<std::size_t>(word_cursor_)];
            const QRect area = line_of(*row).area_of(word.span);
            return WordAt{row->name, std::move(word), area};
        }
    }
    return hovered_word_ && hovered_word_->step == document_.selected() ? hovered_word_ : std::nullopt;
}

bool LadderView::has_value_at_hand() const {
    const auto at = word_at_hand();
    return at && (is_number(at->word) || at->word.kind == LiveKind::colour);
}

std::string LadderView::dial_at_hand() const {
    const auto at = word_at_hand();
    return at && at->word.kind == LiveKind::dial ? at->word.text : std::string();
}

void LadderView::walk_word(int direction) {
    const std::vector<LiveWord> words = words_of_selected();
    const int count = static_cast<int>(words.size());
    if (count == 0) return document_.say(tr("There is no word to take hold of here"));
    int at = word_cursor_ < 0 ? (direction > 0 ? -1 : count) : word_cursor_;
    for (int tried = 0; tried < count; ++tried) {
        at = (at + direction + count) % count;
        if (!choosing_value_ || can_be_dial(words[static_cast<std::size_t>(at)])) break;
    }
    word_cursor_ = at;
    viewport()->update();
}

bool LadderView::choose_value() {
    const std::vector<LiveWord> words = words_of_selected();
    const auto first = std::find_if(words.begin(), words.end(), can_be_dial);
    if (first == words.end()) return false;
    setFocus();
    choosing_value_ = true;
    word_cursor_ = static_cast<int>(first - words.begin());
    document_.say(tr("Which number is to be a dial? Arrows go on, Enter takes it; D once more adds an empty dial"));
    viewport()->update();
    return true;
}

void LadderView::end_choosing_value() {
    if (!std::exchange(choosing_value_, false)) return;
    word_cursor_ = -1;
    viewport()->update();
}

void LadderView::replace_word(const std::string& step, Span span, const std::string& text, const QString& what,
                              const std::string& merge_key) {
    Result<Finish> changed = replace_words(document_.finish(), step, span, text);
    if (!changed) return document_.say(fault_words(changed.fault()));
    document_.edit(std::move(*changed), what, merge_key);
}

std::string LadderView::set_number(const std::string& step, const LiveWord& word, double value, bool dragging) {
    const Step* found = find_step(document_.finish(), step);
    if (found == nullptr) return {};
    const std::string number = number_by_rules(*found, word, number_text(value, word.whole ? 1 : word.increment));
    const std::string text = apart_from_sign(found->formula, word.span, number);
    const std::string key = dragging ? "number " + step + " " + std::to_string(word.span.begin) : std::string();
    replace_word(step, word.span, text, tr("Set a number of %1 to %2").arg(qs(shown_name(step)), qs(text)), key);
    return text;
}

void LadderView::change_number(double increments) {
    const auto at = word_at_hand();
    if (!at || !is_number(at->word)) {
        return document_.say(tr("Go to a number first, with the left and right arrow keys"));
    }
    double next = at->word.value + increments * at->word.increment * (at->word.range ? 1 : 10);
    if (at->word.kind == LiveKind::choice) {
        const double last = static_cast<double>(at->word.choices.size()) - 1;
        next = std::clamp(at->word.value + (increments > 0 ? 1.0 : -1.0), 0.0, last);
    } else if (at->word.whole) {
        next = at->word.value + std::copysign(std::max(1.0, std::round(std::fabs(increments))), increments);
    }
    set_number(at->step, at->word, next, true);
}

void LadderView::edit_word() {
    const auto at = word_at_hand();
    if (!at) return edit_formula();
    switch (at->word.kind) {
        case LiveKind::number:
            return edit_number(*at);
        case LiveKind::choice:
            return choose_of(*at);
        case LiveKind::colour:
            emit wants_colour(qs(at->step), QRect(viewport()->mapTo(window(), at->area.topLeft()), at->area.size()),
                              at->word.span.begin, at->word.span.end);
            return;
        case LiveKind::function:
        case LiveKind::step:
        case LiveKind::dial:
        case LiveKind::response:
        case LiveKind::ground:
        case LiveKind::known:
            return choose_name(*at);
    }
}

void LadderView::edit_number(const WordAt& at) {
    end_formula(true);
    edited_word_ = at;
    const int width = std::max(64, at.area.width() + 24);
    begin_line(Editing::word, QRect(at.area.left() - 4, at.area.top() - 3, width, 21).translated(scrolled()),
               qs(at.word.text));
    line_editor_->setFont(theme::figures());
}

void LadderView::end_word(bool keep) {
    if (editing_ != Editing::word) return;
    editing_ = Editing::nothing;
    const QString typed = line_editor_->text();
    const bool had_focus = line_editor_->hasFocus();
    line_editor_->hide();
    if (had_focus) setFocus();
    const auto at = std::exchange(edited_word_, std::nullopt);
    if (keep && at && typed != qs(at->word.text)) {
        const auto value = computed(typed);
        if (value) {
            const Step* step = find_step(document_.finish(), at->step);
            std::string text = at->word.whole ? number_text(*value, 1) : shortest_number(*value);
            if (step != nullptr) {
                text = number_by_rules(*step, at->word, std::move(text));
                text = apart_from_sign(step->formula, at->word.span, std::move(text));
            }
            replace_word(at->step, at->word.span, text,
                         tr("Set a number of %1 to %2").arg(qs(shown_name(at->step)), qs(text)));
        } else {
            document_.say(tr("'%1' isn't a number: write one, or something like 0.3 * 2").arg(typed));
        }
    }
    rebuild();
}

void LadderView::choose_of(const WordAt& at) {
    Chooser::Offer offer;
    offer.title = qs(shown_name(at.word.argument));
    for (const std::string& choice : at.word.choices) offer.choices.push_back({qs(choice)});
    offer.taken = [this, at](int index) {
        replace_word(
            at.step, at.word.span, std::to_string(index),
            tr("%1 is %2").arg(qs(shown_name(at.word.argument)), qs(at.word.choices[static_cast<std::size_t>(index)])));
    };
    offer.width = 240;
    chooser_.open(viewport()->mapTo(window(), at.area.bottomLeft() + QPoint(0, 3)), std::move(offer));
}

void LadderView::offer_names(const std::string& step, const QString& title, QPoint at, std::vector<Completion> names,
                             const std::function<std::string(const Completion&)>& formula,
                             const std::function<void(const Completion&)>& take) {
    Chooser::Offer offer;
    offer.title = title;
    std::vector<std::string> formulas;
    for (const Completion& name : names) {
        offer.choices.push_back(choice_of(name));
        formulas.push_back(formula(name));
    }
    offer.picture = [this](int index) {
        const auto found = drawing_.candidates().find(candidate_name(static_cast<std::size_t>(index)));
        return found == drawing_.candidates().end() ? QImage() : found->second.image;
    };
    offer.taken = [names = std::move(names), take](int index) { take(names[static_cast<std::size_t>(index)]); };
    chooser_.open(at, std::move(offer));
    drawing_.ask_candidates(step, TryOnUse::replace, formulas);
}

void LadderView::choose_name(const WordAt& at) {
    const Step* step = find_step(document_.finish(), at.step);
    if (step == nullptr) return;
    const std::string formula = step->formula;
    const Span span = at.word.span;
    std::string before = formula;
    before.erase(span.begin, span.end - span.begin);
    Completions all = completions_at(document_.checked(), *document_.checked().catalogue, at.step, before, span.begin);
    const bool called = at.word.kind == LiveKind::function;
    // A name stands for a name, a function for a function: brackets are there already.
    std::erase_if(all.choices,
                  [&](const Completion& c) { return is_called(c.kind) != called || c.name == at.word.text; });
    // What is of the word's own kind first, then steps and pictures, which are nearest to hand.
    const auto rank = [&](const Completion& c) {
        const bool alike = (at.word.kind == LiveKind::step && c.kind == CompletionKind::step) ||
                           (at.word.kind == LiveKind::dial && c.kind == CompletionKind::dial) ||
                           (at.word.kind == LiveKind::ground && c.kind == CompletionKind::picture);
        return std::pair(!c.fits, alike ? -1 : static_cast<int>(c.kind));
    };
    std::stable_sort(all.choices.begin(), all.choices.end(),
                     [&](const Completion& a, const Completion& b) { return rank(a) < rank(b); });
    if (at.word.kind == LiveKind::dial) {
        Completion go{at.word.text, CompletionKind::dial, {}, {}, true};
        go.words = tr("go to this dial").toStdString();
        all.choices.insert(all.choices.begin(), go);
    }
    const auto written = [formula, span](const Completion& c) {
        std::string made = formula;
        return made.replace(span.begin, span.end - span.begin, c.name);
    };
    offer_names(at.step, tr("In place of %1").arg(qs(shown_name(at.word.text))),
                viewport()->mapTo(window(), at.area.bottomLeft() + QPoint(0, 3)), std::move(all.choices), written,
                [this, at, span](const Completion& taken) {
                    if (taken.name == at.word.text) {
                        emit wants_dial(qs(taken.name));
                        return;
                    }
                    replace_word(at.step, span, taken.name,
                                 tr("%1 uses %2 now").arg(qs(shown_name(at.step)), qs(shown_name(taken.name))));
                    const CheckedStep* checked = find_step(document_.checked(), at.step);
                    if (checked != nullptr && checked->fault) document_.say(qs(to_text(*checked->fault)));
                });
}

void LadderView::replace_everywhere() {
    const std::string from = document_.selected();
    if (find_step(document_.finish(), from) == nullptr) return;
    std::vector<Completion> names;
    for (Completion& c : completions_at(document_.checked(), *document_.checked().catalogue, from, "", 0).choices) {
        if (c.kind == CompletionKind::step || c.kind == CompletionKind::picture || c.kind == CompletionKind::dial ||
            c.kind == CompletionKind::response) {
            names.push_back(std::move(c));
        }
    }
    if (names.empty()) return document_.say(tr("Nothing stands above that could take its place"));
    const auto written = [](const Completion& c) { return c.name; };
    offer_names(from, tr("Use in place of %1, everywhere").arg(qs(shown_name(from))),
                viewport()->mapTo(window(), QPoint(ladder_margin, 40)), std::move(names), written,
                [this, from](const Completion& taken) {
                    const std::vector<std::string> users = users_of(document_.finish(), from);
                    Result<Finish> changed = use_instead(document_.finish(), from, taken.name);
                    document_.edit(std::move(changed),
                                   tr("%1 in place of %2, in %3")
                                       .arg(qs(shown_name(taken.name)), qs(shown_name(from)),
                                            tr("%n place(s)", nullptr, static_cast<int>(users.size()))));
                });
}

void LadderView::make_dial(bool everywhere) {
    choosing_value_ = false;
    const auto at = word_at_hand();
    if (!at) return document_.say(tr("Go to a number first, with the left and right arrow keys"));
    const Result<DialOffer> offer = offer_dial(document_.checked(), at->step, at->word.span);
    if (!offer) return document_.say(fault_words(offer.fault()));
    const std::string name = offer->dial.name;
    QString what = tr("Made %1 a dial, %2").arg(qs(at->word.text), qs(shown_name(name)));
    const std::size_t others = offer->places.size() - 1;
    if (everywhere && others > 0) {
        what += tr(", in %1").arg(tr("%n place(s)", nullptr, static_cast<int>(others + 1)));
    } else if (others > 0) {
        what += tr("; the same value stands in %1 ({dial_everywhere} takes all)")
                    .arg(tr("%n other place(s)", nullptr, static_cast<int>(others)));
    }
    if (document_.edit(lacquer::make_dial(document_.finish(), *offer, everywhere), what)) emit wants_dial(qs(name));
}

}  // namespace lacquer
