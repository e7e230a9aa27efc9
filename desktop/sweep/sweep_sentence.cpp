#include "desktop/sweep/sweep_sentence.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"
#include "desktop/sweep/sweeping.h"

namespace lacquer {

namespace {

constexpr int sentence_line = 20;
constexpr int sentence_border = 14;
constexpr double pixels_a_step = 4;

QString number_text(double value, double step) {
    return qs(plain_number(value, step >= 1 ? 0 : step >= 0.1 ? 1 : step >= 0.01 ? 2 : 3));
}

}  // namespace

SweepSentence::SweepSentence(Models& models, Sweeping& sweeping, Chooser& chooser, QWidget* parent)
    : QWidget(parent), models_(models), sweeping_(sweeping), chooser_(chooser), editor_(new LineEditor(this)) {
    setObjectName(QStringLiteral("sweep_sentence"));
    setAccessibleName(tr("What is swept"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setToolTip(tr("Numbers: drag, turn the wheel, + and -, Enter types. Names: click, or Enter, to choose"));
    editor_->hide();
    connect(editor_, &QLineEdit::returnPressed, this, [this] { end_typing(true); });
    connect(editor_, &QLineEdit::editingFinished, this, [this] { end_typing(true); });
    connect(editor_, &LineEditor::dismissed, this, [this] { end_typing(false); });
    connect(&sweeping_, &Sweeping::spec_changed, this, &SweepSentence::rebuild);
    connect(&models_.playing, &Playing::time_changed, this, [this] {
        if (isVisible()) rebuild();
    });
    rebuild();
}

void SweepSentence::add_axis(const SheetAxis& axis, const QString& prefix) {
    const Finish& finish = models_.document.finish();
    const Dial* dial = axis.kind == AxisKind::dial ? find_dial(finish, axis.dial) : nullptr;
    const bool is_along = prefix.isEmpty();
    const QString name = dial != nullptr                   ? qs(shown_name(dial->name))
                         : axis.kind == AxisKind::time     ? tr("time")
                         : axis.kind == AxisKind::variants ? tr("variants")
                                                           : tr("nothing");
    words_.push_back({is_along ? QStringLiteral("along") : QStringLiteral("against"), name, false,
                      dial != nullptr && !dial->formula.empty()});
    if (axis.kind != AxisKind::dial && axis.kind != AxisKind::time) return;
    const QString unit = axis.kind == AxisKind::time ? QStringLiteral(" s")
                         : dial->unit.empty()        ? QString()
                                                     : QLatin1Char(' ') + qs(dial->unit);
    words_.push_back({{}, tr("from")});
    words_.push_back({prefix + QStringLiteral("from"), number_text(axis.from, step_of(prefix + "from")) + unit, true});
    words_.push_back({{}, tr("to")});
    words_.push_back({prefix + QStringLiteral("to"), number_text(axis.to, step_of(prefix + "to")) + unit, true});
    words_.push_back({{}, tr("in")});
    words_.push_back({prefix + QStringLiteral("count"), QString::number(axis.count), true});
}

QString SweepSentence::moment_words() const { return tr("%1 s").arg(models_.playing.time(), 0, 'f', 2); }

void SweepSentence::rebuild() {
    const QString present = present_ >= 0 && present_ < static_cast<int>(words_.size())
                                ? words_[static_cast<std::size_t>(present_)].id
                                : QString();
    words_.clear();
    const SheetSpec& spec = sweeping_.spec();
    if (sweeping_.mode() == SheetMode::sweep) {
        words_.push_back({{}, tr("Sweep")});
        add_axis(spec.along, {});
        words_.push_back({{}, tr("against"), false, false, true});
        add_axis(spec.against, QStringLiteral("against_"));
        words_.push_back({{}, tr("looking at"), false, false, true});
        words_.push_back(
            {QStringLiteral("step"), spec.step.empty() ? tr("the finished picture") : qs(shown_name(spec.step))});
        words_.push_back({{}, tr("at")});
        words_.push_back({QStringLiteral("moment"), moment_words(), true});
        words_.push_back({{}, tr("measured in"), false, false, true});
        words_.push_back(
            {QStringLiteral("shapes"), sweeping_.all_shapes() ? tr("all frame shapes") : tr("this frame")});
    } else if (sweeping_.mode() == SheetMode::set_aside) {
        const QString words = tr("Looks that were set aside: a click takes one up, Ctrl and a click compare two.");
        for (const QString& word : words.split(QLatin1Char(' '))) words_.push_back({{}, word});
    } else {
        const Lots& lots = sweeping_.lots();
        words_.push_back({{}, tr("Draw lots of")});
        words_.push_back({QStringLiteral("dials"), tr("%n dial(s)", nullptr, static_cast<int>(lots.dials.size()))});
        words_.push_back(
            {{}, lots.around.empty() ? tr("within their ranges") : tr("around the one that was taken, within")});
        if (!lots.around.empty()) words_.push_back({QStringLiteral("reach"), number_text(lots.reach, 0.01), true});
        words_.push_back({{}, tr("from seed"), false, false, true});
        words_.push_back({QStringLiteral("seed"), QString::number(lots.seed), true});
        words_.push_back({{}, tr("at")});
        words_.push_back({QStringLiteral("moment"), moment_words(), true});
    }
    present_ = -1;
    for (int i = 0; i < static_cast<int>(words_.size()); ++i) {
        const QString& id = words_[static_cast<std::size_t>(i)].id;
        if (!id.isEmpty() && (present_ < 0 || id == present)) present_ = i;
    }
    lay_out();
    updateGeometry();
    update();
}

void SweepSentence::lay_out() {
    const int right = std::max(120, width()) - sentence_border;
    int x = sentence_border;
    int y = 12;
    for (Word& word : words_) {
        const QFont font =
            word.is_number ? theme::figures(theme::plain) : theme::words(theme::plain, &word == &words_.front());
        const int wide = QFontMetrics(font).horizontalAdvance(word.text);
        if (x > sentence_border && (word.breaks || x + wide > right)) {
            x = sentence_border;
            y += sentence_line;
        }
        word.area = QRect(x, y, std::min(wide, right - sentence_border), sentence_line);
        x += wide + 6;
    }
}

QSize SweepSentence::sizeHint() const {
    const int bottom = words_.empty() ? 0 : words_.back().area.bottom();
    return {340, bottom + 12};
}

void SweepSentence::resizeEvent(QResizeEvent*) {
    lay_out();
    updateGeometry();
}

QRect SweepSentence::word_area(const QString& id) const {
    for (const Word& word : words_) {
        if (word.id == id) return word.area;
    }
    return {};
}

int SweepSentence::live_at(QPoint point) const {
    for (int i = 0; i < static_cast<int>(words_.size()); ++i) {
        const Word& word = words_[static_cast<std::size_t>(i)];
        if (!word.id.isEmpty() && word.area.adjusted(-2, 0, 2, 0).contains(point)) return i;
    }
    return -1;
}

void SweepSentence::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    for (int i = 0; i < static_cast<int>(words_.size()); ++i) {
        const Word& word = words_[static_cast<std::size_t>(i)];
        const bool live = !word.id.isEmpty();
        const QFont font = word.is_number ? theme::figures(theme::plain) : theme::words(theme::plain, i == 0);
        const QColor colour = word.is_driven ? theme::vermilion_text : live || i == 0 ? theme::text : theme::quiet;
        theme::paint_text(painter, word.area.adjusted(0, 0, 2, 0), word.text, font, colour);
        if (live) {
            painter.setPen(QPen(word.is_driven ? theme::vermilion_text : theme::word_edge, 1, Qt::DotLine));
            painter.drawLine(word.area.left(), word.area.bottom() - 1, word.area.right(), word.area.bottom() - 1);
        }
        if (i == present_ && hasFocus()) theme::paint_focus(painter, word.area.adjusted(-3, 0, 3, 1));
    }
}

double SweepSentence::number_of(const QString& id) const {
    const SheetSpec& spec = sweeping_.spec();
    const SheetAxis& axis = id.startsWith(QStringLiteral("against_")) ? spec.against : spec.along;
    if (id.endsWith(QStringLiteral("from"))) return axis.from;
    if (id.endsWith(QStringLiteral("to"))) return axis.to;
    if (id.endsWith(QStringLiteral("count"))) return axis.count;
    if (id == QStringLiteral("seed")) return sweeping_.lots().seed;
    if (id == QStringLiteral("moment")) return models_.playing.time();
    return sweeping_.lots().reach;
}

double SweepSentence::step_of(const QString& id) const {
    if (id.endsWith(QStringLiteral("count")) || id == QStringLiteral("seed")) return 1;
    if (id == QStringLiteral("reach")) return 0.01;
    if (id == QStringLiteral("moment")) return 0.05;
    const SheetSpec& spec = sweeping_.spec();
    const SheetAxis& axis = id.startsWith(QStringLiteral("against_")) ? spec.against : spec.along;
    if (axis.kind == AxisKind::time) return 0.05;
    const Dial* dial = find_dial(models_.document.finish(), axis.dial);
    if (dial == nullptr) return 0.01;
    return dial->kind == DialKind::integer || dial->kind == DialKind::toggle ? 1 : dial->increment;
}

void SweepSentence::set_number(const QString& id, double value) {
    if (id == QStringLiteral("moment")) return models_.playing.set_time(std::max(0.0, value));
    if (id == QStringLiteral("seed") || id == QStringLiteral("reach")) {
        Lots lots = sweeping_.lots();
        if (id == QStringLiteral("seed")) lots.seed = static_cast<std::uint32_t>(std::clamp(value, 0.0, 999999.0));
        if (id == QStringLiteral("reach")) lots.reach = std::clamp(value, 0.01, 1.0);
        return sweeping_.set_lots(std::move(lots));
    }
    SheetSpec spec = sweeping_.spec();
    SheetAxis& axis = id.startsWith(QStringLiteral("against_")) ? spec.against : spec.along;
    const double held = std::clamp(value, -1e6, 1e6);
    if (id.endsWith(QStringLiteral("from"))) axis.from = axis.kind == AxisKind::time ? std::max(0.0, held) : held;
    if (id.endsWith(QStringLiteral("to"))) axis.to = axis.kind == AxisKind::time ? std::max(0.0, held) : held;
    if (id.endsWith(QStringLiteral("count")))
        axis.count = static_cast<int>(std::clamp(std::round(value), 1.0, 1.0 * most_cells_a_side));
    sweeping_.set_spec(std::move(spec));
}

void SweepSentence::change_by(const QString& id, double steps) {
    const double step = step_of(id);
    const double whole = step >= 1 ? std::round(steps) : steps;
    set_number(id, std::round((number_of(id) + whole * step) * 1e6) / 1e6);
}

void SweepSentence::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const int word = live_at(event->pos());
    if (word < 0) return;
    present_ = word;
    moved_ = false;
    pressed_ = event->pos();
    if (words_[static_cast<std::size_t>(word)].is_number) {
        dragged_ = word;
        drag_from_ = number_of(words_[static_cast<std::size_t>(word)].id);
    } else {
        activate(word);
    }
    update();
}

void SweepSentence::mouseMoveEvent(QMouseEvent* event) {
    const int over = live_at(event->pos());
    const bool number = over >= 0 && words_[static_cast<std::size_t>(over)].is_number;
    setCursor(dragged_ >= 0 || number ? Qt::SizeHorCursor : over >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (dragged_ < 0) return;
    const QString id = words_[static_cast<std::size_t>(dragged_)].id;
    const double steps = (event->pos().x() - pressed_.x()) / pixels_a_step * pace_of(event->modifiers());
    moved_ = moved_ || std::abs(event->pos().x() - pressed_.x()) > 2;
    if (!moved_) return;
    const double step = step_of(id);
    set_number(id, std::round((drag_from_ + (step >= 1 ? std::round(steps) : steps) * step) / step) * step);
}

void SweepSentence::mouseReleaseEvent(QMouseEvent*) {
    const int word = dragged_;
    dragged_ = -1;
    if (word >= 0 && !moved_) type_number(word);
}

void SweepSentence::wheelEvent(QWheelEvent* event) {
    const int word = live_at(event->position().toPoint());
    if (word < 0 || !words_[static_cast<std::size_t>(word)].is_number) return QWidget::wheelEvent(event);
    if (const int notches = wheel_.notches(*event); notches != 0)
        change_by(words_[static_cast<std::size_t>(word)].id, notches * pace_of(event->modifiers()));
    event->accept();
}

void SweepSentence::go(int by) {
    const int count = static_cast<int>(words_.size());
    for (int i = present_ + by; i >= 0 && i < count; i += by) {
        if (words_[static_cast<std::size_t>(i)].id.isEmpty()) continue;
        present_ = i;
        break;
    }
    update();
}

// Plus and minus are a dial's or a word's elsewhere.
bool SweepSentence::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Plus || key == Qt::Key_Minus) event->accept();
    }
    return QWidget::event(event);
}

void SweepSentence::keyPressEvent(QKeyEvent* event) {
    const bool is_number = present_ >= 0 && words_[static_cast<std::size_t>(present_)].is_number;
    switch (event->key()) {
        case Qt::Key_Left:
            return go(-1);
        case Qt::Key_Right:
            return go(1);
        case Qt::Key_Up:
        case Qt::Key_Plus:
        case Qt::Key_Down:
        case Qt::Key_Minus:
            if (is_number) {
                const bool up = event->key() == Qt::Key_Up || event->key() == Qt::Key_Plus;
                change_by(words_[static_cast<std::size_t>(present_)].id, (up ? 1 : -1) * pace_of(event->modifiers()));
            }
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (present_ >= 0) activate(present_);
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void SweepSentence::activate(int word) {
    const QString id = words_[static_cast<std::size_t>(word)].id;
    if (words_[static_cast<std::size_t>(word)].is_number) return type_number(word);
    if (id == QStringLiteral("along")) return choose_axis(true);
    if (id == QStringLiteral("against")) return choose_axis(false);
    if (id == QStringLiteral("step")) return choose_step();
    if (id == QStringLiteral("shapes")) return sweeping_.set_all_shapes(!sweeping_.all_shapes());
    if (id == QStringLiteral("dials")) return choose_dials();
}

void SweepSentence::choose_axis(bool along) {
    const Finish& finish = models_.document.finish();
    std::vector<SheetAxis> axes;
    Chooser::Offer offer;
    offer.title = along ? tr("Which dial is swept?") : tr("Against what?");
    if (!along) {
        axes.push_back({});
        offer.choices.push_back({tr("nothing"), tr("a row that wraps")});
    }
    for (const Dial& dial : finish.dials) {
        axes.push_back(axis_of(dial, along ? 12 : 5));
        offer.choices.push_back({qs(shown_name(dial.name)), qs(dial.note)});
    }
    axes.push_back(axis_of_time(finish, along ? 12 : 5));
    offer.choices.push_back({tr("time"), tr("along what the tape plays")});
    const std::shared_ptr<const Play> play = models_.playing.tape_play();
    for (const Response& response : finish.responses) {
        const auto run = axis_of_run(*play, response.name, along ? 12 : 5);
        if (!run) continue;
        axes.push_back(*run);
        offer.choices.push_back({tr("run of %1").arg(qs(shown_name(response.name))),
                                 tr("time, %1 s to %2 s").arg(run->from, 0, 'f', 2).arg(run->to, 0, 'f', 2)});
    }
    if (!along && !finish.variants.empty()) {
        axes.push_back({AxisKind::variants, {}, 0, 1, 1});
        offer.choices.push_back({tr("variants"), tr("a row for each")});
    }
    offer.taken = [this, along, axes](int taken) {
        SheetSpec spec = sweeping_.spec();
        (along ? spec.along : spec.against) = axes[static_cast<std::size_t>(taken)];
        sweeping_.set_spec(std::move(spec));
    };
    chooser_.open(mapTo(window(), word_area(along ? QStringLiteral("along") : QStringLiteral("against")).bottomLeft()),
                  std::move(offer));
}

void SweepSentence::choose_step() {
    Chooser::Offer offer;
    offer.title = tr("Which step?");
    std::vector<std::string> names = {std::string()};
    offer.choices.push_back({tr("the finished picture")});
    for_each_step(models_.document.finish(), [&](const Coat&, const Step& step) {
        names.push_back(step.name);
        offer.choices.push_back({qs(shown_name(step.name)), qs(step.note)});
    });
    offer.taken = [this, names](int taken) {
        SheetSpec spec = sweeping_.spec();
        spec.step = names[static_cast<std::size_t>(taken)];
        sweeping_.set_spec(std::move(spec));
    };
    chooser_.open(mapTo(window(), word_area(QStringLiteral("step")).bottomLeft()), std::move(offer));
}

// A dial that is chosen takes part, or no longer does.
void SweepSentence::choose_dials() {
    Chooser::Offer offer;
    offer.title = tr("Which dials take part?");
    std::vector<std::string> names;
    const Lots& lots = sweeping_.lots();
    for (const Dial& dial : models_.document.finish().dials) {
        const bool takes_part = std::find(lots.dials.begin(), lots.dials.end(), dial.name) != lots.dials.end();
        names.push_back(dial.name);
        offer.choices.push_back({qs(shown_name(dial.name)), takes_part ? tr("takes part") : tr("stays")});
    }
    offer.taken = [this, names](int taken) {
        Lots changed = sweeping_.lots();
        const std::string& name = names[static_cast<std::size_t>(taken)];
        if (std::erase(changed.dials, name) == 0) changed.dials.push_back(name);
        sweeping_.set_lots(std::move(changed));
    };
    chooser_.open(mapTo(window(), word_area(QStringLiteral("dials")).bottomLeft()), std::move(offer));
}

void SweepSentence::type_number(int word) {
    const Word& at = words_[static_cast<std::size_t>(word)];
    typed_ = at.id;
    editor_->setText(qs(plain_number(number_of(typed_), 6)));
    editor_->setGeometry(at.area.left() - 4, at.area.top() - 2, std::max(64, at.area.width() + 24), sentence_line + 4);
    editor_->show();
    editor_->selectAll();
    editor_->setFocus();
}

void SweepSentence::end_typing(bool keep) {
    if (!editor_->isVisible()) return;
    const QString id = typed_;
    const QString text = editor_->text();
    editor_->hide();
    setFocus();
    if (!keep) return;
    const auto number = parse_number(text.toStdString());
    if (!number) return models_.document.say(tr("'%1' isn't a number").arg(text));
    set_number(id, *number);
}

void SweepSentence::focusInEvent(QFocusEvent*) { update(); }
void SweepSentence::focusOutEvent(QFocusEvent*) { update(); }

int SweepSentence::cell_count() const {
    return static_cast<int>(std::count_if(words_.begin(), words_.end(), [](const Word& w) { return !w.id.isEmpty(); }));
}

AccessibleCell SweepSentence::cell(int index) const {
    for (const Word& word : words_) {
        if (word.id.isEmpty() || index-- > 0) continue;
        AccessibleCell told{word.id, word.text, word.area};
        told.role = QAccessible::Button;
        told.actions = {word.is_number ? tr("type") : tr("choose")};
        return told;
    }
    return {};
}

void SweepSentence::act_on_cell(int index, const QString&) {
    for (int i = 0; i < static_cast<int>(words_.size()); ++i) {
        if (words_[static_cast<std::size_t>(i)].id.isEmpty() || index-- > 0) continue;
        return activate(i);
    }
}

}  // namespace lacquer
