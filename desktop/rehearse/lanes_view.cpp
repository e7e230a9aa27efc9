#include "desktop/rehearse/lanes_view.h"

#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/document/document.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/lanes_metrics.h"

#include "desktop/drawing/models.h"

namespace lacquer {

using namespace lanes;

namespace {

bool names_it(const std::vector<std::string>& users, const std::string& name) {
    return std::find(users.begin(), users.end(), name) != users.end();
}

}  // namespace

LanesView::LanesView(Models& models, QWidget* parent)
    : QAbstractScrollArea(parent),
      document_(models.document),
      playing_(models.playing),
      typed_(new LineEditor(viewport())) {
    setObjectName(QStringLiteral("lanes"));
    setAccessibleName(tr("Lanes of time"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
    typed_->setObjectName(QStringLiteral("lane_typed"));
    typed_->setFont(theme::figures(theme::plain));
    typed_->hide();
    connect(typed_, &QLineEdit::editingFinished, this, &LanesView::take_typed);
    connect(typed_, &LineEditor::dismissed, this, [this] {
        typed_->hide();
        setFocus();
    });
    connect(&document_, &Document::finish_changed, this, &LanesView::rebuild);
    connect(&document_, &Document::called_off, this, [this] { drag_ = Drag::nothing; });
    // What is live comes often; the lanes follow a little later.
    live_timer_.setSingleShot(true);
    live_timer_.setInterval(60);
    connect(&live_timer_, &QTimer::timeout, this, &LanesView::retrace);
    connect(&playing_, &Playing::played_changed, this, [this] {
        if (isVisible() && !live_timer_.isActive()) live_timer_.start();
    });
    connect(&playing_, &Playing::playing_changed, this, [this] {
        if (isVisible() && playing_.has_live()) return retrace();
        viewport()->update();
    });
    connect(&playing_, &Playing::time_changed, this, [this] {
        if (!isVisible()) return;
        follow_time();
        viewport()->update();
    });
    rebuild();
}

// Changing dials first, those that answer before those that only swing; what a response moves without a dial has a lane
// of its own.
void LanesView::rebuild() {
    const Finish& finish = document_.finish();
    const bool another = viewed_ != finish.name + document_.path();
    if (another || length_ != finish.length) {
        viewed_ = finish.name + document_.path();
        length_ = finish.length;
        view_.show_all(finish.length);
    }
    if (another) {
        opened_.clear();
        closed_.clear();
        chosen_.clear();
    }
    std::erase_if(chosen_, [&](const TapeEvent& event) {
        return event.index >= (event.is_cue ? finish.tape.cues.size() : finish.tape.changes.size());
    });
    lanes_.clear();
    lanes_.push_back({Kind::cues, "", 0, cues_height});
    for (const Signal& signal : finish.signals) lanes_.push_back({Kind::signal, signal.name, 0, 0});
    std::vector<std::string> dials;
    std::vector<std::string> read_by_dials;
    for (const Dial& dial : finish.dials) {
        if (dial.formula.empty()) continue;
        dials.push_back(dial.name);
        lanes_.push_back({Kind::dial, dial.name, 0, 0});
    }
    for (const Response& response : finish.responses) {
        const std::vector<std::string> users = users_of(finish, response.name);
        const bool by_a_dial =
            std::any_of(dials.begin(), dials.end(), [&](const std::string& dial) { return names_it(users, dial); });
        if (!by_a_dial) lanes_.push_back({Kind::response, response.name, 0, 0});
    }
    for (const Ground& ground : finish.grounds) {
        if (ground.as<DropletsGround>() != nullptr) lanes_.push_back({Kind::drops, ground.name + ".count", 0, 0});
    }
    retrace();
    const auto moves = [this](const Lane& lane) {
        const auto trace = traces_.find(lane.name);
        return trace != traces_.end() && trace->second.moves();
    };
    std::stable_sort(lanes_.begin(), lanes_.end(), [&](const Lane& a, const Lane& b) {
        const auto rank = [&](const Lane& lane) {
            if (lane.kind == Kind::cues) return 0;
            if (lane.kind == Kind::signal) return 1;
            if (!moves(lane)) return 4;
            // What swings by itself says less than what answers.
            const Dial* dial = find_dial(finish, lane.name);
            const std::string by = dial == nullptr ? lane.name : dial->formula.substr(0, dial->formula.find('.'));
            const Response* response = find_response(finish, by);
            return response != nullptr && response->kind == "wave" ? 3 : 2;
        };
        return rank(a) < rank(b);
    });
    int top = rule_height;
    int opened = 0;
    for (Lane& lane : lanes_) {
        lane.top = top;
        if (lane.kind != Kind::cues) {
            const bool by_itself = moves(lane) && opened < opened_by_themselves && !closed_.contains(lane.name);
            const bool open = opened_.contains(lane.name) || by_itself;
            lane.height = open ? open_height : closed_height;
            opened += open ? 1 : 0;
        }
        top += lane.height;
    }
    verticalScrollBar()->setRange(0, std::max(0, top - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(closed_height);
    traces_are_stale_ = true;
    viewport()->update();
}

void LanesView::retrace() {
    std::vector<std::string> names;
    for (const Lane& lane : lanes_) {
        if (lane.kind != Kind::cues) names.push_back(lane.name);
    }
    view_.left = names_width;
    view_.width = std::max(1, viewport()->width() - names_width - right_margin);
    // What is live changes again and again: those lines come coarser, and at once.
    const int samples = std::clamp(view_.width / (is_quick() ? 5 : 2), 2, 600);
    traces_are_stale_ = true;
    traces_ = lane_traces(*playing_.tape_play(), names, view_.from, view_.to, samples);
    viewport()->update();
}

// In play the present stays in view.
void LanesView::follow_time() {
    if (!playing_.playing() || drag_ != Drag::nothing || view_.shows_all(document_.finish().length)) return;
    const double time = playing_.time();
    if (time >= view_.from && time <= view_.to) return;
    view_.pan(time - view_.from, document_.finish().length);
    retrace();
}

bool LanesView::is_quick() const { return playing_.playing() && playing_.has_live(); }

int LanesView::x_of(double seconds) const { return static_cast<int>(std::lround(view_.x_of(seconds))); }

QRect LanesView::area_of(const Lane& lane) const {
    return {0, lane.top - verticalScrollBar()->value(), viewport()->width(), lane.height};
}

QRect LanesView::lane_area(const std::string& name) const {
    for (const Lane& lane : lanes_) {
        if (lane.name == name) return area_of(lane);
    }
    return {};
}

const LanesView::Lane* LanesView::lane_at(QPoint point) const {
    if (point.y() < rule_height) return nullptr;
    for (const Lane& lane : lanes_) {
        if (area_of(lane).contains(point)) return &lane;
    }
    return nullptr;
}

double LanesView::level_y(const Lane& lane, const LaneTrace& trace, double value) const {
    const QRect area = area_of(lane);
    const int pad = lane.height > closed_height ? 8 : 5;
    double least = static_cast<double>(trace.least);
    double most = static_cast<double>(trace.most);
    if (lane.kind == Kind::signal) {
        // A signal has its whole range, so that a change can be dragged to anywhere in it.
        const Signal* signal = find_signal(document_.finish(), lane.name);
        const bool range =
            signal != nullptr && (signal->kind == SignalKind::number || signal->kind == SignalKind::integer);
        least = range ? signal->least : 0;
        most = range ? signal->most : 1;
    }
    if (!(most > least)) return area.center().y();
    return area.bottom() - pad - (value - least) / (most - least) * (area.height() - 2 * pad);
}

std::optional<Value> LanesView::value_of(const Lane& lane) const {
    if (lane.kind == Kind::drops)
        return make_number(static_cast<float>(playing_.play().drop_count(counted_drops(lane.name), playing_.time())));
    const auto value = playing_.values().find(lane.name);
    return value != playing_.values().end() ? std::optional<Value>(value->second) : std::nullopt;
}

QString LanesView::words_of(const Lane& lane) const {
    const Finish& finish = document_.finish();
    if (lane.kind == Kind::signal) {
        const Signal* signal = find_signal(finish, lane.name);
        return signal == nullptr ? QString() : tr("signal, %1").arg(qs(std::string(signal_kind_name(signal->kind))));
    }
    if (lane.kind == Kind::drops) return tr("how many live");
    const Response* response = find_response(finish, lane.name);
    if (lane.kind == Kind::dial) {
        const Dial* dial = find_dial(finish, lane.name);
        if (dial == nullptr) return {};
        response = find_response(finish, dial->formula.substr(0, dial->formula.find('.')));
        if (response == nullptr) return qs(dial->formula);
    }
    if (response == nullptr) return {};
    return response->cue.empty() ? qs(response->kind) : qs(response->kind + " ← " + shown_name(response->cue));
}

void LanesView::resizeEvent(QResizeEvent*) { rebuild(); }
void LanesView::scrollContentsBy(int, int) {
    traces_are_stale_ = true;
    viewport()->update();
}

void LanesView::show_all_time() {
    view_.show_all(document_.finish().length);
    retrace();
}

void LanesView::zoom_time(int direction) {
    view_.zoom(direction > 0 ? 0.5 : 2, view_.x_of(playing_.time()), document_.finish().length);
    retrace();
}

void LanesView::take_tape(EditedTape edited, const QString& what, bool dragging) {
    chosen_ = std::move(edited.events);
    Finish changed = document_.finish();
    changed.tape = std::move(edited.tape);
    document_.edit(std::move(changed), what, dragging ? "tape" : "");
}

void LanesView::delete_chosen() {
    if (chosen_.empty()) return document_.say(tr("Choose a cue or a change first"));
    const std::size_t count = chosen_.size();
    take_tape({without_events(document_.finish().tape, chosen_), {}},
              tr("Deleted %1").arg(tr("%n event(s)", nullptr, static_cast<int>(count))), false);
}

void LanesView::copy_chosen() {
    if (chosen_.empty()) return document_.say(tr("Choose a cue or a change first"));
    // Beside what is copied, so that it can be seen and taken hold of.
    take_tape(copied_events(document_.finish().tape, chosen_, view_.seconds(24)), tr("Copied"), false);
}

void LanesView::nudge(double seconds) {
    if (chosen_.empty()) return;
    take_tape(moved_events(document_.finish().tape, chosen_, seconds), tr("Moved"), true);
}

void LanesView::clear_choice() {
    chosen_.clear();
    viewport()->update();
}

QString LanesView::chosen_words() const {
    const Tape& tape = document_.finish().tape;
    if (chosen_.size() > 1) return tr("%1 chosen · Del").arg(chosen_.size());
    if (chosen_.empty()) return {};
    const std::size_t i = chosen_[0].index;
    if (chosen_[0].is_cue) {
        const Cue& cue = tape.cues[i];
        return tr("%1 %2 at %3 s · Enter types, Del")
            .arg(qs(shown_name(cue.name)))
            .arg(cue.strength, 0, 'f', 2)
            .arg(cue.at, 0, 'f', 3);
    }
    const Change& change = tape.changes[i];
    return tr("%1 %2 at %3 s · Enter types, Del")
        .arg(qs(shown_name(change.name)), qs(plain_number(change.value[0], 3)))
        .arg(change.at, 0, 'f', 3);
}

// "1.25 s, 0.8": when, and how strong or which value.
void LanesView::type_chosen() {
    if (chosen_.size() != 1) return document_.say(tr("Choose one cue or change first"));
    const Tape& tape = document_.finish().tape;
    const TapeEvent event = chosen_[0];
    const double at = event.is_cue ? tape.cues[event.index].at : tape.changes[event.index].at;
    const double value = event.is_cue ? tape.cues[event.index].strength : tape.changes[event.index].value[0];
    typed_->setText(moment_text(at, value));
    typed_->setGeometry(std::clamp(x_of(at), names_width, std::max(names_width, viewport()->width() - 150)),
                        rule_height + 4, 140, 24);
    typed_->show();
    typed_->setFocus();
    typed_->selectAll();
}

void LanesView::take_typed() {
    if (typed_->isHidden()) return;
    const QString text = typed_->text();
    const bool had_focus = typed_->hasFocus();
    typed_->hide();
    if (had_focus) setFocus();
    const auto moment = moment_from(text);
    if (!moment) return document_.say(tr("Type seconds and a value: 1.25 s, 0.8"));
    if (chosen_.size() != 1) return;
    const Tape& tape = document_.finish().tape;
    const std::size_t i = chosen_[0].index;
    if (chosen_[0].is_cue) {
        Cue cue = tape.cues[i];
        cue.at = moment->first;
        cue.strength = std::clamp(moment->second, 0.01, 1.0);
        return take_tape(with_cue(tape, i, cue), tr("Set a cue"), false);
    }
    Change change = tape.changes[i];
    change.at = moment->first;
    change.value[0] = moment->second;
    take_tape(with_change(tape, i, change), tr("Set a change"), false);
}

int LanesView::cell_count() const { return static_cast<int>(lanes_.size()); }

AccessibleCell LanesView::cell(int index) const {
    const Lane& lane = lanes_[static_cast<std::size_t>(index)];
    AccessibleCell told{lane.kind == Kind::cues ? tr("Cues") : qs(shown_name(lane.name)), words_of(lane)};
    if (const auto value = value_of(lane))
        told.value = tr("%1, %2").arg(qs(plain_number(setting_from(*value)[0], 2)), told.value);
    if (lane.kind == Kind::cues)
        told.value = tr("%n cue(s)", nullptr, static_cast<int>(document_.finish().tape.cues.size()));
    if (area_of(lane).intersects(viewport()->rect())) told.area = area_of(lane);
    told.chosen = !lane.name.empty() && lane.name == named_;
    told.actions = {tr("open or close")};
    return told;
}

void LanesView::act_on_cell(int index, const QString&) {
    const Lane lane = lanes_[static_cast<std::size_t>(index)];
    if (lane.kind == Kind::cues) return;
    const bool open = lane.height > closed_height;
    named_ = lane.name;
    (open ? opened_ : closed_).erase(lane.name);
    (open ? closed_ : opened_).insert(lane.name);
    rebuild();
}

}  // namespace lacquer
