// Which drops live: their births and their ends.
#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/droplets/drop_field.h"
#include "core/droplets/emitter_parts.h"

namespace lacquer {

namespace {

using Id = DropNumberId;

// Streams of births, so that drops of one are unlike those of another.
constexpr std::uint32_t rate_stream = 0x51;
constexpr std::uint32_t burst_stream = 0x1000;

// A formula's track, or a number that stays.
Track track_of(const Droplets& droplets, Id id, const FormulaSource& formulas) {
    const DropNumber& number = droplets.number(id);
    const DropNumberSpec& spec = spec_of(id);
    const std::string key(spec.key);
    if (number.formula.empty() || !formulas.value) return Track(number.from);
    const auto value = [&](double time) {
        const double read = formulas.value(key, time);
        return std::isfinite(read) ? std::clamp(read, spec.least, spec.most) : number.from;
    };
    Track track(value(0));
    if (spec.reads == DropReads::steady || (formulas.stands_still && formulas.stands_still(key))) return track;
    for (const double at : formulas.moments) track.change(at, value(at));
    return track;
}

Track on_track(const Droplets& droplets, const FormulaSource& formulas) {
    if (droplets.born_while.empty() || !formulas.value) return Track(1);
    const std::string key = "born_while";
    Track track(formulas.value(key, 0) != 0 ? 1 : 0);
    if (formulas.stands_still && formulas.stands_still(key)) return track;
    for (const double at : formulas.moments) track.change(at, formulas.value(key, at) != 0 ? 1 : 0);
    return track;
}

Track product(const Track& rate, const Track& on, double delay) {
    std::vector<double> moments = moments_of(rate, on);
    moments.push_back(delay);
    std::sort(moments.begin(), moments.end());
    Track born(delay > 0 ? 0 : rate.value(0) * on.value(0));
    for (const double at : moments) {
        if (at >= delay) born.change(at, rate.value(at) * on.value(at));
    }
    return born;
}

double most_of(const Droplets& droplets, Id id, const Track& track) {
    const DropNumber& number = droplets.number(id);
    if (number.formula.empty()) return std::max(number.from, number.to);
    double most = 0;
    for (const double at : track.moments()) most = std::max(most, track.value(at));
    return most;
}

bool may_move(const Droplets& droplets) {
    for (const Id id : {Id::speed, Id::fall, Id::wind_x, Id::wind_y, Id::gust}) {
        const DropNumber& number = droplets.number(id);
        if (!number.formula.empty() || number.from != 0 || number.to != 0) return true;
    }
    return false;
}

}  // namespace

Emitter::Emitter(Droplets droplets, const DropPlay& play, DropCurves curves)
    : droplets_(std::move(droplets)),
      curves_(std::move(curves)),
      path_(play.path),
      wind_x_(track_of(droplets_, Id::wind_x, play.formulas), track_of(droplets_, Id::drag, play.formulas).value(0)),
      wind_y_(track_of(droplets_, Id::wind_y, play.formulas), track_of(droplets_, Id::drag, play.formulas).value(0)),
      moves_(may_move(droplets_)) {
    for (const DropNumberSpec& spec : drop_numbers())
        tracks_[static_cast<std::size_t>(spec.id)] = track_of(droplets_, spec.id, play.formulas);
    born_ = product(tracks_[static_cast<std::size_t>(Id::rate)], on_track(droplets_, play.formulas),
                    steady_number(Id::delay));
    for (const double at : born_.moments()) sums_.push_back(born_.integral(at));
    longest_life_ = most_of(droplets_, Id::life, tracks_[static_cast<std::size_t>(Id::life)]);
    for (const Cue& cue : play.tape.cues) {
        if (!(cue.strength > 0)) continue;
        if (!droplets_.cue.empty() && cue.name == droplets_.cue) bursts_.push_back(cue);
        if (!droplets_.ends_at.empty() && cue.name == droplets_.ends_at) ends_.push_back(cue.at);
    }
    limit_work();
}

// So that a moment never takes long, many drops look at a place less closely. It goes by the settings alone, or the
// same drop would end at different times.
void Emitter::limit_work() {
    double fastest = 0;
    for (const double at : born_.moments()) fastest = std::max(fastest, born_.value(at));
    const double burst = most_of(droplets_, Id::burst, tracks_[static_cast<std::size_t>(Id::burst)]);
    const double field = droplets_.field == DropField::none ? 0 : steady_number(Id::count);
    expected_ =
        std::min(fastest * longest_life_ + burst * static_cast<double>(bursts_.size()) + field, 1.0 * most_drops);
    constexpr double looks_in_all = 1 << 18;
    most_looks_ = std::clamp(looks_in_all / std::max(expected_, 1.0), 8.0, 1024.0);
    const auto most_points =
        static_cast<std::size_t>(std::clamp(looks_in_all * 16 / std::max(expected_, 1.0), 64.0, 1e6));
    const std::size_t stride = path_.size() / most_points + 1;
    for (std::size_t i = 0; i < path_.size(); i += stride) coarse_path_.push_back(path_[i]);
}

Emitter::~Emitter() = default;

double Emitter::steady_number(Id id) const { return tracks_[static_cast<std::size_t>(id)].value(0); }

double Emitter::number(Id id, const Birth& birth) const {
    const auto i = static_cast<std::size_t>(id);
    const DropNumber& number = droplets_.numbers[i];
    if (!number.formula.empty()) return tracks_[i].value(birth.at);
    if (number.from == number.to) return number.from;
    return number.from + (number.to - number.from) *
                             birth.random(static_cast<std::uint32_t>(droplets_.seed), static_cast<std::uint32_t>(i));
}

// When the drop of this index is born; infinite if never. Before 0 s things are as they are then.
double Emitter::time_of(std::int64_t index) const {
    const auto wanted = static_cast<double>(index);
    const std::vector<double>& moments = born_.moments();
    if (index < 0) return born_.value(0) > 0 ? wanted / born_.value(0) : -std::numeric_limits<double>::infinity();
    // The last moment up to which no more have been born: from there on some are, unless it is the last of all.
    const auto next = std::upper_bound(sums_.begin(), sums_.end(), wanted);
    const auto i = static_cast<std::size_t>(next - sums_.begin()) - 1;
    const double rate = born_.value(moments[i]);
    return rate > 0 ? moments[i] + (wanted - sums_[i]) / rate : std::numeric_limits<double>::infinity();
}

bool Emitter::add_rate_births(double time, Births& births) const {
    const double until = born_.integral(time);
    const double since = born_.integral(time - longest_life_);
    constexpr double most_index = 9e15;
    auto last = static_cast<std::int64_t>(std::floor(std::min(until, most_index)));
    while (time_of(last + 1) <= time + drop_slack) ++last;
    while (last >= 0 && time_of(last) > time + drop_slack) --last;
    const double first_wanted = droplets_.settled ? since : std::max(since, 0.0);
    auto first = static_cast<std::int64_t>(std::ceil(std::clamp(first_wanted, -most_index, most_index))) - 1;
    if (!droplets_.settled) first = std::max<std::int64_t>(first, 0);
    const bool capped = last - first >= most_drops;
    first = std::max(first, last - most_drops + 1);
    births.reserve(births.size() + static_cast<std::size_t>(std::max<std::int64_t>(0, last - first + 1)));
    for (std::int64_t i = first; i <= last; ++i) {
        Birth birth;
        birth.at = time_of(i);
        birth.stream = rate_stream;
        birth.index = i;
        if (std::isfinite(birth.at)) births.push_back(birth);
    }
    return capped;
}

bool Emitter::add_bursts(double time, Births& births) const {
    const double over = steady_number(Id::burst_time);
    const double since = time - longest_life_ - over - drop_slack;
    const std::size_t before = births.size();
    const auto first = std::partition_point(bursts_.begin(), bursts_.end(), [&](const Cue& c) { return c.at < since; });
    const auto after =
        std::partition_point(bursts_.begin(), bursts_.end(), [&](const Cue& c) { return c.at <= time + drop_slack; });
    for (auto cue = after; cue != first;) {
        --cue;
        const auto nth = static_cast<std::uint32_t>(cue - bursts_.begin());
        Birth birth;
        birth.stream = burst_stream + (droplets_.new_each_cue ? nth : 0);
        birth.cue = &*cue;
        birth.at = cue->at;
        const double wanted = number(Id::burst, birth) * (droplets_.by_strength ? cue->strength : 1);
        const auto count = static_cast<std::int64_t>(std::lround(std::clamp(wanted, 0.0, 1.0 * most_drops)));
        for (std::int64_t i = count - 1; i >= 0; --i) {
            birth.index = i;
            birth.at = cue->at + over * static_cast<double>(i) / static_cast<double>(count);
            if (birth.at > time + drop_slack) continue;
            if (births.size() - before >= most_drops) return true;
            births.push_back(birth);
        }
    }
    return false;
}

bool Emitter::add_field(double time, const Frame& frame, Births& births) const {
    if (droplets_.field == DropField::none || time < -drop_slack) return false;
    const std::shared_ptr<const Field> all = field(frame);
    for (std::size_t i = 0; i < all->places.size(); ++i) {
        Birth birth;
        birth.stream = field_stream;
        birth.index = static_cast<std::int64_t>(i);
        birth.place = all->places[i];
        birth.field_end = all->reached[i];
        births.push_back(birth);
    }
    return false;
}

// Those that may live at a time, the oldest first. True if there would be more.
bool Emitter::births_at(double time, const Frame& frame, Births& births) const {
    bool capped = add_field(time, frame, births);
    if (born_.integral(std::numeric_limits<double>::max()) > 0 || droplets_.settled)
        capped = add_rate_births(time, births) || capped;
    capped = add_bursts(time, births) || capped;
    const auto is_older = [](const Birth& a, const Birth& b) {
        return a.at != b.at ? a.at < b.at : a.stream != b.stream ? a.stream < b.stream : a.index < b.index;
    };
    if (!std::is_sorted(births.begin(), births.end(), is_older)) std::sort(births.begin(), births.end(), is_older);
    std::erase_if(births, [&](Birth& birth) { return !lives(birth, time, frame); });
    const auto most = static_cast<std::size_t>(std::clamp(steady_number(Id::most), 0.0, 1.0 * most_drops));
    if (births.size() <= most) return capped;
    births.erase(births.begin(), births.end() - static_cast<std::ptrdiff_t>(most));
    return true;
}

bool Emitter::lives(Birth& birth, double time, const Frame& frame) const {
    birth.life = birth.stream == field_stream ? std::numeric_limits<double>::infinity() : number(Id::life, birth);
    if (birth.at > time + drop_slack || !(time < birth.at + birth.life - drop_slack)) return false;
    birth.ends = end_of(birth, time, frame);
    birth.ending = number(Id::ending, birth);
    return time < birth.ends + birth.ending - drop_slack || birth.ends > time;
}

double Emitter::end_of(const Birth& birth, double until, const Frame& frame) const {
    const auto next = std::upper_bound(ends_.begin(), ends_.end(), birth.at);
    const double by_cue = next != ends_.end() ? *next : std::numeric_limits<double>::infinity();
    const double by_place = birth.stream == field_stream && !moves_ ? birth.field_end : reached_at(birth, until, frame);
    return std::min(by_cue, by_place);
}

// Seconds from one look at a drop that moves to the next.
double Emitter::look_step(const Birth& birth) const {
    constexpr double looks_a_second = 30;
    return std::max(1 / looks_a_second, std::min(birth.life, longest_looked_at) / most_looks_);
}

// When the place came near first, no later than `until`. The place stands still between the moments at which it is
// told, and what lies on the straight way to its next one counts as passed then. Drops that move are looked at thirty
// times a second, too.
double Emitter::reached_at(const Birth& birth, double until, const Frame& frame) const {
    if (coarse_path_.empty()) return std::numeric_limits<double>::infinity();
    const double reach = number(Id::reach, birth);
    const auto place_at = [&](double time) {
        if (!moves_) {
            const Vector2 place = birth_place(birth, frame);
            return Vector2{place.x / frame.side, place.y / frame.side};
        }
        Drop drop;
        move(birth, std::max(0.0, time - birth.at), frame, drop);
        return Vector2{drop.x / frame.side, drop.y / frame.side};
    };
    auto now = std::upper_bound(coarse_path_.begin(), coarse_path_.end(), birth.at,
                                [](double time, const PlaceMoment& moment) { return time < moment.at; });
    Vector2 from = frame.in_sides((now == coarse_path_.begin() ? *now : *(now - 1)).x,
                                  (now == coarse_path_.begin() ? *now : *(now - 1)).y);
    const auto is_near = [&](double time, Vector2 to) {
        return squared_distance(place_at(time), from, to) <= reach * reach;
    };
    if (is_near(birth.at, from)) return birth.at;
    const double step = look_step(birth);
    double looked = birth.at;
    while (true) {
        const double moment = now != coarse_path_.end() ? now->at : std::numeric_limits<double>::infinity();
        if (moves_ && looked + step < std::min(moment, until)) {
            looked += step;
            if (is_near(looked, from)) return looked;
            continue;
        }
        if (moment > until) return std::numeric_limits<double>::infinity();
        const Vector2 to = frame.in_sides(now->x, now->y);
        if (is_near(moment, to)) return moment;
        from = to;
        ++now;
    }
}

std::shared_ptr<const Emitter::Field> Emitter::field(const Frame& frame) const {
    const double aspect = frame.width / frame.height;
    const std::lock_guard lock(mutex_);
    if (field_ != nullptr && field_->aspect == aspect) return field_;
    auto made = std::make_shared<Field>();
    made->aspect = aspect;
    const auto count = static_cast<int>(steady_number(Id::count));
    made->places = drop_field(droplets_.field, count, steady_number(Id::apart), aspect,
                              static_cast<std::uint32_t>(droplets_.seed));
    made->reached.assign(made->places.size(), std::numeric_limits<double>::infinity());
    if (!path_.empty() && !moves_) {
        std::vector<Vector2> places;
        std::vector<double> reaches;
        for (std::size_t i = 0; i < made->places.size(); ++i) {
            Birth birth;
            birth.stream = field_stream;
            birth.index = static_cast<std::int64_t>(i);
            places.push_back(frame.in_sides(made->places[i].x, made->places[i].y));
            reaches.push_back(number(Id::reach, birth));
        }
        std::vector<Vector2> path;
        for (const PlaceMoment& moment : path_) path.push_back(frame.in_sides(moment.x, moment.y));
        const std::vector<std::size_t> first = first_reached(places, reaches, path);
        for (std::size_t i = 0; i < first.size(); ++i) {
            if (first[i] < path_.size()) made->reached[i] = std::max(0.0, path_[first[i]].at);
        }
    }
    field_ = made;
    return field_;
}

LiveDrops Emitter::alive(double time, int width, int height, WorkerPool* pool) const {
    const Frame frame(width, height);
    Births births;
    LiveDrops live;
    live.capped = births_at(time, frame, births);
    live.drops.resize(births.size());
    constexpr std::size_t chunk = 256;
    const auto work = [&](int nth) {
        const std::size_t begin = static_cast<std::size_t>(nth) * chunk;
        for (std::size_t i = begin; i < std::min(births.size(), begin + chunk); ++i)
            live.drops[i] = drop_of(births[i], time, frame);
    };
    const auto chunks = static_cast<int>((births.size() + chunk - 1) / chunk);
    if (pool != nullptr && chunks > 1) {
        pool->run(chunks, work);
    } else {
        for (int nth = 0; nth < chunks; ++nth) work(nth);
    }
    return live;
}

std::optional<Drop> Emitter::at(const Drop& drop, double time, int width, int height) const {
    const Frame frame(width, height);
    Birth birth;
    birth.at = drop.birth;
    birth.stream = drop.stream;
    birth.index = drop.index;
    if (drop.burst >= 0) {
        if (drop.burst >= static_cast<std::int64_t>(bursts_.size())) return std::nullopt;
        birth.cue = &*(bursts_.begin() + drop.burst);
    }
    if (drop.stream == field_stream) {
        const std::shared_ptr<const Field> all = field(frame);
        const auto i = static_cast<std::size_t>(drop.index);
        if (i >= all->places.size()) return std::nullopt;
        birth.place = all->places[i];
        birth.field_end = all->reached[i];
    }
    if (!lives(birth, time, frame)) return std::nullopt;
    return drop_of(birth, time, frame);
}

// Where all live as long, and nothing ends them before, it is a difference of indices.
std::optional<std::int64_t> Emitter::plain_count(double time) const {
    const DropNumber& life = droplets_.number(Id::life);
    const bool is_plain = life.formula.empty() && life.from == life.to && path_.empty() && ends_.empty() &&
                          bursts_.empty() && droplets_.field == DropField::none && !droplets_.settled;
    if (!is_plain) return std::nullopt;
    const auto born_by = [this](double by) {
        auto count = static_cast<std::int64_t>(std::floor(std::clamp(born_.integral(by), 0.0, 9e15)));
        while (time_of(count) <= by + drop_slack) ++count;
        while (count > 0 && time_of(count - 1) > by + drop_slack) --count;
        return by < -drop_slack ? 0 : count;
    };
    const auto most = static_cast<std::int64_t>(std::clamp(steady_number(Id::most), 0.0, 1.0 * most_drops));
    return std::min(born_by(time) - born_by(time - life.from), most);
}

std::int64_t Emitter::count(double time, int width, int height) const {
    if (const auto plain = plain_count(time)) return *plain;
    Births births;
    births_at(time, Frame(width, height), births);
    return static_cast<std::int64_t>(births.size());
}

double Emitter::steady(double time) const {
    const DropNumber& life = droplets_.number(Id::life);
    const double mean =
        life.formula.empty() ? (life.from + life.to) / 2 : tracks_[static_cast<std::size_t>(Id::life)].value(time);
    const double field = droplets_.field == DropField::none ? 0 : std::floor(steady_number(Id::count));
    return std::min(born_.value(time) * mean + field, steady_number(Id::most));
}

}  // namespace lacquer
