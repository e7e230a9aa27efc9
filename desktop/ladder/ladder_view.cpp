#include "desktop/ladder/ladder_view.h"

#include <QScrollBar>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/try_on.h"
#include "core/inspect/inspection.h"
#include "core/lang/checker.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/formulas/text_completion.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/formula_line.h"

namespace lacquer {

LadderView::LadderView(Models& models, Chooser& chooser, QWidget* parent)
    : QAbstractScrollArea(parent),
      document_(models.document),
      drawing_(models.drawing),
      chooser_(chooser),
      formula_editor_(new FormulaEditor(viewport())),
      line_editor_(new LineEditor(viewport())),
      completion_(new TextCompletion(
          models, *formula_editor_,
          [this] { return editing_ == Editing::formula ? document_.selected() : std::string(); }, parent)) {
    setObjectName(QStringLiteral("ladder"));
    look_for_kept_coats();
    setAccessibleName(tr("Steps"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
    line_editor_->setObjectName(QStringLiteral("line_editor"));
    formula_editor_->hide();
    line_editor_->hide();
    connect(&document_, &Document::finish_changed, this, &LadderView::finish_changed);
    connect(&document_, &Document::going_to_leave, this, [this] {
        end_formula(true);
        end_line(true);
    });
    connect(&document_, &Document::left, this, [this] { end_line(false); });
    connect(&document_, &Document::selection_changed, this, [this] {
        if (editing_ == Editing::formula && document_.selected() != selected_shown_) end_formula(true);
        if (document_.selected() != selected_shown_) word_cursor_ = -1;
        chosen_coat_.reset();
        choosing_value_ = false;
        rebuild();
        reveal(document_.selected());
    });
    connect(&document_, &Document::called_off, this, [this] { dragging_ = Dragging::nothing; });
    const auto repaint = [this] { viewport()->update(); };
    connect(&drawing_, &Drawing::thumbnails_changed, this, repaint);
    connect(&drawing_, &Drawing::probe_changed, this, repaint);
    connect(&drawing_, &Drawing::stage_changed, this, repaint);
    connect(&drawing_, &Drawing::warnings_changed, this, &LadderView::rebuild);
    connect(formula_editor_, &QPlainTextEdit::textChanged, this, &LadderView::formula_typed);
    connect(formula_editor_, &FormulaEditor::accepted, this, [this] { end_formula(true); });
    connect(formula_editor_, &FormulaEditor::dismissed, this, [this] { end_formula(false); });
    connect(line_editor_, &QLineEdit::editingFinished, this, [this] { end_line(true); });
    connect(line_editor_, &LineEditor::dismissed, this, [this] { end_line(false); });
    rebuild();
}

LadderView::~LadderView() = default;

ChoiceList& LadderView::completions() { return completion_->list(); }

QPoint LadderView::scrolled() const { return {0, verticalScrollBar()->value()}; }

void LadderView::rebuild() {
    selected_shown_ = document_.selected();
    const Finish& finish = document_.finish();
    const Step* step = find_step(finish, selected_shown_);
    LadderMetrics metrics;
    metrics.width = viewport()->width();
    const QRect room(0, 0, open_formula_width(metrics.width), 17);
    constexpr int most_lines = 12;
    forget_what_changed();
    if (step != nullptr && editing_ == Editing::formula) {
        metrics.formula_height = formula_editor_->wanted_height();
    } else {
        metrics.formula_height =
            step == nullptr ? 0 : std::min(laid_out(step->formula, room, true).height(), 17 * most_lines);
    }
    const CheckedStep* checked = find_step(document_.checked(), selected_shown_);
    fault_mends_.clear();
    if (checked != nullptr && checked->fault)
        fault_mends_ = mends_of_fault(document_.checked(), selected_shown_, *checked->fault);
    lines_ = row_lines(document_, drawing_, selected_shown_, users(selected_shown_), fault_mends_);
    metrics.lines = std::max(1, static_cast<int>(lines_.size()));
    const QStringList words = filter_.simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    if (!words.isEmpty()) {
        metrics.shows = [words](const Coat& coat, const Step& shown) {
            const QString all = qs(shown_name(shown.name) + " " + shown.formula + " " + shown.note + " " + coat.name);
            return std::all_of(words.begin(), words.end(),
                               [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
        };
    }
    rows_ = ladder_rows(finish, selected_shown_, metrics);
    hovered_word_.reset();
    const int height = rows_.empty() ? 0 : rows_.back().area.bottom() + 1;
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(step_row_height);
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    place_editors();
    tell_rows_in_view();
    viewport()->update();
}

// What was made of formulas is kept as long as they, and the names in them, mean the same.
void LadderView::forget_what_changed() {
    const Finish& finish = document_.finish();
    // Another catalogue may say its operations in other words.
    std::string names = std::to_string(reinterpret_cast<std::uintptr_t>(document_.checked().catalogue.get())) + " ";
    std::string formulas;
    for_each_step(finish, [&](const Coat&, const Step& named) {
        names += named.name + " ";
        formulas += named.formula + "\n";
    });
    for (const Dial& dial : finish.dials) names += "d" + dial.name + " ";
    for (const Ground& ground : finish.grounds) names += "g" + ground.name + " ";
    for (const Response& response : finish.responses) names += "r" + response.name + " ";
    for (const Signal& signal : finish.signals) names += "s" + signal.name + " ";
    constexpr std::size_t most_kept = 500;
    if (names != names_laid_out_ || laid_out_.size() > most_kept) laid_out_.clear();
    if (names != names_laid_out_ || formulas != formulas_read_) {
        users_.clear();
        sources_.clear();
        words_.clear();
    }
    names_laid_out_ = std::move(names);
    formulas_read_ = std::move(formulas);
}

void LadderView::tell_rows_in_view() {
    std::vector<std::string> names;
    for (const LadderRow& row : rows_) {
        const QRect area = row.area.translated(-scrolled());
        if (area.bottom() < 0 || area.top() > viewport()->height()) continue;
        if (row.kind == LadderRowKind::step) names.push_back(row.name);
        const Coat& coat = document_.finish().coats[row.coat];
        if (row.kind == LadderRowKind::coat && coat.folded && !coat.steps.empty())
            names.push_back(coat.steps.back().name);
    }
    drawing_.set_rows_in_view(std::move(names));
}

void LadderView::set_filter(const QString& words) {
    filter_ = words;
    verticalScrollBar()->setValue(0);
    rebuild();
    if (words.isEmpty()) reveal(document_.selected());
}

void LadderView::set_shows_values(bool values) {
    shows_values_ = values;
    viewport()->update();
}

const FormulaLine& LadderView::laid_out(const std::string& formula, const QRect& area, bool open) const {
    const std::string key =
        (open ? "open " : "row ") + std::to_string(area.width()) + "x" + std::to_string(area.height()) + " " + formula;
    std::unique_ptr<FormulaLine>& line = laid_out_[key];
    if (line == nullptr) {
        const Catalogue* catalogue = document_.checked().catalogue.get();
        line = std::make_unique<FormulaLine>(formula, document_.finish(), catalogue, area, open);
    }
    line->move_to(area.topLeft());
    return *line;
}

const FormulaLine& LadderView::line_of(const LadderRow& row) const {
    const Step& step = document_.finish().coats[row.coat].steps[row.step];
    return laid_out(step.formula, row.formula_area.translated(-scrolled()), row.name == selected_shown_);
}

const std::vector<std::string>& LadderView::users(const std::string& step) const {
    const auto [found, fresh] = users_.try_emplace(step);
    if (fresh) found->second = users_of(document_.finish(), step);
    return found->second;
}

const std::vector<std::string>& LadderView::sources(const std::string& step) const {
    const auto [found, fresh] = sources_.try_emplace(step);
    if (!fresh) return found->second;
    const CheckedStep* checked = find_step(document_.checked(), step);
    if (checked == nullptr || !checked->typed) return found->second;
    std::vector<std::string> named;
    for (const std::string& name : names_used(*checked->typed)) {
        if (find_step(document_.finish(), name) != nullptr) {
            named.push_back(name);
        } else if (name != step && find_step(document_.checked(), name) != nullptr) {
            // A part of the formula that is stored without a name: what it reads, the step reads.
            const std::vector<std::string>& inner = sources(name);
            named.insert(named.end(), inner.begin(), inner.end());
        }
    }
    return sources_[step] = std::move(named);
}

// What a coat's steps name above the coat, each once.
std::vector<std::string> LadderView::coat_sources(const Coat& coat) const {
    const auto own = [&](const std::string& name) {
        return std::any_of(coat.steps.begin(), coat.steps.end(), [&](const Step& step) { return step.name == name; });
    };
    std::vector<std::string> named;
    for (const Step& step : coat.steps) {
        for (const std::string& source : sources(step.name)) {
            if (!own(source) && std::find(named.begin(), named.end(), source) == named.end()) named.push_back(source);
        }
    }
    return named;
}

QImage LadderView::thumbnail_of(const std::string& step) const {
    const auto found = drawing_.thumbnails().find(step);
    return found != drawing_.thumbnails().end() ? found->second.image : QImage();
}

const std::vector<LiveWord>& LadderView::words(const std::string& formula) const {
    const auto [found, fresh] = words_.try_emplace(formula);
    if (fresh) found->second = live_words(document_.checked(), formula);
    return found->second;
}

void LadderView::finish_changed() {
    if (editing_ == Editing::formula) {
        const Step* step = find_step(document_.finish(), selected_shown_);
        if (step == nullptr || document_.selected() != selected_shown_) {
            editing_ = Editing::nothing;
            formula_editor_->hide();
            completion_->hide();
        } else if (formula_editor_->toPlainText() != qs(step->formula)) {
            const QSignalBlocker quiet(formula_editor_);
            formula_editor_->setPlainText(qs(step->formula));
        }
    }
    rebuild();
}

void LadderView::place_editors() {
    const LadderRow* row = selected_row();
    if (editing_ == Editing::formula && row != nullptr) {
        formula_editor_->setGeometry(row->formula_area.translated(-scrolled()));
        const CheckedStep* checked = find_step(document_.checked(), selected_shown_);
        const Step* step = find_step(document_.finish(), selected_shown_);
        if (checked != nullptr && checked->fault) {
            const Span span = checked->fault->place.span;
            formula_editor_->mark_fault(text_index(step->formula, span.begin), text_index(step->formula, span.end));
        } else {
            formula_editor_->clear_fault();
        }
    }
}

void LadderView::reveal(const std::string& step) {
    const LadderRow* row = find_row(rows_, step);
    if (row == nullptr) return;
    const int top = verticalScrollBar()->value();
    const int page = viewport()->height();
    if (row->area.top() - 28 < top) {
        verticalScrollBar()->setValue(row->area.top() - 28);
    } else if (row->area.bottom() > top + page) {
        verticalScrollBar()->setValue(row->area.bottom() - page + 1);
    }
}

QRect LadderView::word_area(const std::string& step, const std::string& word) const {
    const LadderRow* row = find_row(rows_, step);
    if (row == nullptr) return {};
    const FormulaLine& line = line_of(*row);
    for (const LiveWord& live : live_words(document_.checked(), find_step(document_.finish(), step)->formula)) {
        if (live.text == word) return line.area_of(live.span);
    }
    return {};
}

QRect LadderView::mend_area(int index) const {
    const LadderRow* row = selected_row();
    if (row == nullptr) return {};
    QRect line(row->formula_area.left(), row->formula_area.bottom() + 3,
               row->area.width() - row->formula_area.left() - 12, row_line_height);
    line.translate(-scrolled());
    for (const RowLine& words : lines_) {
        const std::vector<QRect> areas = mend_areas(words, line);
        if (index < static_cast<int>(areas.size())) return areas[static_cast<std::size_t>(index)];
        index -= static_cast<int>(areas.size());
        line.translate(0, row_line_height);
    }
    return {};
}

QRect LadderView::visible_area(const std::string& step) const {
    const LadderRow* row = find_row(rows_, step);
    return row == nullptr ? QRect() : row->area.translated(-scrolled());
}

QRect LadderView::heading_area(std::size_t coat) const {
    for (const LadderRow& row : rows_) {
        if (row.kind == LadderRowKind::coat && row.coat == coat) return row.area.translated(-scrolled());
    }
    return {};
}

const LadderRow* LadderView::row_at(QPoint point) const {
    const QPoint at = point + scrolled();
    const auto found =
        std::find_if(rows_.begin(), rows_.end(), [&](const LadderRow& row) { return row.area.contains(at); });
    return found == rows_.end() ? nullptr : &*found;
}

bool LadderView::is_selected(const std::string& step) const {
    const std::vector<std::string>& selection = document_.selection();
    return std::find(selection.begin(), selection.end(), step) != selection.end();
}

std::size_t LadderView::current_coat() const {
    const Finish& finish = document_.finish();
    if (finish.coats.empty()) return 0;
    if (chosen_coat_) return std::min(*chosen_coat_, finish.coats.size() - 1);
    if (find_step(finish, document_.selected()) == nullptr) return finish.coats.size() - 1;
    return place_of(finish, document_.selected()).coat;
}

void LadderView::choose_coat(std::size_t coat) {
    chosen_coat_ = coat;
    viewport()->update();
}

void LadderView::resizeEvent(QResizeEvent*) { rebuild(); }

void LadderView::scrollContentsBy(int, int) {
    place_editors();
    tell_rows_in_view();
    viewport()->update();
}

}  // namespace lacquer
