#include "desktop/code/code_side.h"

#include <QAction>
#include <QHBoxLayout>
#include <QHash>
#include <QLabel>
#include <QPushButton>
#include <QTextBlock>
#include <QVBoxLayout>
#include <utility>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/ticked_edits.h"
#include "desktop/code/code_colours.h"
#include "desktop/code/code_lines.h"
#include "desktop/code/code_text.h"
#include "desktop/code/find_bar.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/formulas/formula_text.h"
#include "desktop/formulas/function_help.h"
#include "desktop/formulas/text_completion.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"

namespace lacquer {

namespace {

QLabel* foot_line(QWidget* parent, const QString& name) {
    QLabel* made = quiet_label(parent);
    made->setObjectName(name);
    made->setContentsMargins(theme::margin, 2, theme::margin, 2);
    made->setWordWrap(true);
    made->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    return made;
}

}  // namespace

CodeSide::CodeSide(Models& models, const QHash<QString, QAction*>& actions, QWidget* window)
    : QWidget(window),
      document_(models.document),
      drawing_(models.drawing),
      title_(quiet_label(this)),
      told_(foot_line(this, QStringLiteral("code_told"))),
      value_(foot_line(this, QStringLiteral("code_value"))),
      text_(new CodeText(this)),
      colours_(new CodeColours(text_->document())),
      completion_(new TextCompletion(
          models, *text_, [this] { return step_; }, window)),
      find_bar_(new FindBar(*text_, this)) {
    setObjectName(QStringLiteral("code_side"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(this, row);
    row->addWidget(title_, 1);
    row->addWidget(panel_button(head, actions["see_variable"], tr("Variable")));
    row->addWidget(panel_button(head, actions["find_in_code"], tr("Find")));
    row->addWidget(panel_button(head, actions["code_editor"], tr("Steps")));
    column->addWidget(head);
    column->addWidget(find_bar_);
    column->addWidget(text_, 1);
    column->addWidget(value_);
    column->addWidget(told_);
    typing_timer_.setSingleShot(true);
    typing_timer_.setInterval(250);
    connect(&typing_timer_, &QTimer::timeout, this, &CodeSide::check_operation);
    connect(text_, &QPlainTextEdit::textChanged, this, &CodeSide::typed);
    connect(text_, &QPlainTextEdit::cursorPositionChanged, this, &CodeSide::follow_mark);
    connect(text_, &CodeText::dismissed, this, [this] {
        if (!step_back()) emit left();
    });
    connect(find_bar_, &FindBar::said, this, [this](const QString& words) { document_.say(words); });
    connect(told_, &QLabel::linkActivated, this, [this] {
        if (const auto fault = text_->fault()) text_->go_to(fault->first, fault->second - fault->first);
        text_->setFocus();
    });
    connect(&document_, &Document::finish_changed, this, &CodeSide::follow_finish);
    connect(&document_, &Document::selection_changed, this, &CodeSide::follow_selection);
    connect(&drawing_, &Drawing::probe_changed, this, &CodeSide::tell);
    connect(&drawing_, &Drawing::stage_changed, this, &CodeSide::tell);
}

CodeSide::~CodeSide() = default;

void CodeSide::open_step(const std::string& step) {
    const Step* found = find_step(document_.finish(), step);
    if (found == nullptr) return;
    leave();
    step_ = step;
    document_.seal_edit();
    filling_ = true;
    text_->setPlainText(qs(found->formula));
    text_->document()->clearUndoRedoStacks();
    filling_ = false;
    follow_finish();
    follow_mark();
    text_->setFocus();
}

void CodeSide::leave() {
    completion_->hide();
    drawing_.see(std::nullopt);
    if (operation_) leave_operation();
    if (step_.empty()) return;
    const std::string step = std::exchange(step_, {});
    if (find_step(document_.finish(), step) == nullptr) return;
    // What a formula asks of the last tick has a width that nobody need say.
    if (Finish declared = declare_past(document_.checked(), step); declared != document_.finish())
        document_.edit(std::move(declared), tr("Set how many numbers it has"), "formula " + step);
    document_.seal_edit();
}

// Typing.

void CodeSide::typed() {
    if (filling_) return;
    if (operation_) return operation_typed();
    if (!step_.empty()) step_typed();
}

void CodeSide::step_typed() {
    Finish changed = document_.finish();
    if (find_step(changed, step_) == nullptr) return;
    const StepPlace place = place_of(changed, step_);
    set_formula(changed.coats[place.coat].steps[place.step], text_->toPlainText().toStdString());
    document_.edit(std::move(changed), tr("Changed %1").arg(qs(shown_name(step_))), "formula " + step_);
    completion_->offer();
    see_variable();
}

void CodeSide::follow_finish() {
    if (operation_) return colours_->use(std::make_shared<const Finish>());
    if (step_.empty()) return;
    const Step* step = find_step(document_.finish(), step_);
    if (step == nullptr) {
        step_.clear();
        leave();
        emit left();
        return;
    }
    filling_ = true;
    text_->set_code(qs(step->formula));
    colours_->use(document_.checked().finish);
    filling_ = false;
    show_faults();
    tell();
}

// Another step that was selected elsewhere takes its place.
void CodeSide::follow_selection() {
    if (step_.empty() || document_.selected() == step_) return;
    if (find_step(document_.finish(), document_.selected()) != nullptr && isVisible()) open_step(document_.selected());
}

void CodeSide::follow_mark() {
    if (filling_ || !is_open()) return;
    see_variable();
    tell();
}

std::uint32_t CodeSide::mark() const {
    return static_cast<std::uint32_t>(text_->toPlainText().left(text_->textCursor().position()).toUtf8().size());
}

// Faults.

void CodeSide::show_faults() {
    std::optional<std::pair<int, int>> marked;
    const CheckedStep* checked = find_step(document_.checked(), step_);
    if (checked != nullptr && checked->fault) {
        const std::string text = text_->toPlainText().toStdString();
        const Span span = checked->fault->place.span;
        marked = {text_index(text, span.begin), text_index(text, span.end)};
    }
    text_->set_fault(marked);
}

// Values of variables.

void CodeSide::see_variable() {
    if (step_.empty()) return;
    const bool on_stage = sees();
    Result<SeenVariable> variable = seen_variable(text_->toPlainText().toStdString(), mark());
    if (variable) return drawing_.see(Drawing::Seen{step_, std::move(*variable), on_stage});
    // What is on the stage stays there while the mark goes by something else, or the code has a fault.
    if (!on_stage) drawing_.see(std::nullopt);
}

bool CodeSide::sees() const { return drawing_.seen() && drawing_.seen()->on_stage; }

void CodeSide::toggle_seen() {
    if (step_.empty()) return document_.say(tr("An operation has no values by itself: look at a step that calls it"));
    if (sees()) {
        Drawing::Seen off = *drawing_.seen();
        off.on_stage = false;
        drawing_.see(std::move(off));
        see_variable();
        return document_.say(tr("The stage shows the step again"));
    }
    Result<SeenVariable> variable = seen_variable(text_->toPlainText().toStdString(), mark());
    if (!variable) return document_.say(fault_words(variable.fault()));
    const QString name = qs(variable->name);
    drawing_.see(Drawing::Seen{step_, std::move(*variable), true});
    if (!drawing_.shows_variable()) return document_.say(tr("%1 has no picture while the code has a fault").arg(name));
    document_.say(tr("The stage shows %1, after its line; another name, and it shows that").arg(name));
}

void CodeSide::extract() {
    if (step_.empty()) return document_.say(tr("Only the code of a step can be taken apart"));
    const QString text = text_->toPlainText();
    const QTextCursor cursor = text_->textCursor();
    const auto byte = [&](int at) { return static_cast<std::uint32_t>(text.left(at).toUtf8().size()); };
    document_.seal_edit();
    Result<StepEdit> made =
        extract_step(document_.finish(), step_, {byte(cursor.selectionStart()), byte(cursor.selectionEnd())});
    if (!made) return document_.say(fault_words(made.fault()));
    document_.edit(std::move(made->finish), tr("Made %1 a step of its own").arg(qs(shown_name(made->step))));
}

// What is told below the code.

QString CodeSide::signature_words() const {
    QString best;
    for (const std::string& signature : completion_->inside()) {
        const QString words = qs(signature);
        const QStringList parts = words.mid(words.indexOf(u'(') + 1).chopped(1).split(QStringLiteral(", "));
        if (!best.isEmpty() && parts.size() <= static_cast<qsizetype>(completion_->argument())) continue;
        QStringList shown;
        for (qsizetype i = 0; i < parts.size(); ++i) {
            const QString part = parts[i].toHtmlEscaped();
            shown.append(i == static_cast<qsizetype>(completion_->argument()) ? QStringLiteral("<b>%1</b>").arg(part)
                                                                              : part);
        }
        best = words.left(words.indexOf(u'(') + 1).toHtmlEscaped() + shown.join(QStringLiteral(", ")) + u')';
    }
    return best;
}

void CodeSide::tell() {
    if (!is_open()) return;
    const auto name = [](const std::string& text) { return qs(shown_name(text)).toHtmlEscaped(); };
    QString told;
    QString value;
    const std::optional<Fault>* fault = nullptr;
    if (operation_) {
        title_->setText(tr("<b>%1</b>&nbsp; operation").arg(name(operation_->file.name)));
        told = operation_->header;
        fault = &operation_->fault;
    } else {
        title_->setText(tr("<b>%1</b>&nbsp; code").arg(name(step_)));
        const CheckedStep* checked = find_step(document_.checked(), step_);
        if (checked != nullptr) {
            fault = &checked->fault;
            if (!checked->notes.empty()) told = core_words(checked->notes.front().message).toHtmlEscaped();
        }
        if (const QString signature = signature_words(); !signature.isEmpty())
            told = QStringLiteral("<code>%1</code>").arg(signature);
        const DrawnStep* drawn = drawing_.seen() ? drawing_.probe().find(seen_step) : nullptr;
        if (drawn != nullptr && drawn->picture.width > 0 && !drawing_.probe().points.empty()) {
            const int parts = width_of(drawn->type);
            const PixelPoint point = drawing_.probe().points.front();
            value = tr("<span style='color:%1'>&#9632;</span> <b>%2</b> &nbsp;<code>%3</code>&nbsp; after its line, at "
                       "pixel %4, %5")
                        .arg(value_swatch(drawn->picture.at(0, 0), parts).name(), name(drawing_.seen()->variable.name),
                             value_text(drawn->picture.at(0, 0), parts, drawing_.look().decimals))
                        .arg(point.x)
                        .arg(point.y);
        }
    }
    if (fault != nullptr && *fault) {
        const auto marked = text_->fault();
        const CodePlace place = place_in(text_->toPlainText(), marked ? marked->first : 0);
        told = tr("<a href='fault' style='color:%1'>line %2</a>: %3")
                   .arg(theme::vermilion_text.name())
                   .arg(place.line)
                   .arg(core_words((*fault)->message).toHtmlEscaped());
        if (!(*fault)->mend.empty()) told += QStringLiteral(" - ") + core_words((*fault)->mend).toHtmlEscaped();
    }
    value_->setText(value.isEmpty() && !operation_ ? tr("Put the mark on a variable's name to see its value") : value);
    value_->setVisible(!operation_);
    told_->setText(told);
    told_->setVisible(!told.isEmpty());
}

QString CodeSide::value_words() const { return value_->text(); }
QString CodeSide::told_words() const { return told_->isVisibleTo(this) ? told_->text() : QString(); }

// Actions.

void CodeSide::find() { find_bar_->open(); }

void CodeSide::find_next(bool backwards) { find_bar_->next(backwards); }

void CodeSide::turn_remarks() { text_->turn_remarks(); }

void CodeSide::move_in(int steps) { text_->move_in(steps); }

bool CodeSide::step_back() {
    if (find_bar_->isVisible()) {
        find_bar_->close_bar();
        return true;
    }
    if (!sees()) return false;
    toggle_seen();
    return true;
}

QString CodeSide::help() const {
    QTextCursor cursor = text_->textCursor();
    cursor.select(QTextCursor::WordUnderCursor);
    return function_help(cursor.selectedText().toStdString());
}

}  // namespace lacquer
