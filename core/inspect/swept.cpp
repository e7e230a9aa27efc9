#include "core/inspect/swept.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/try_on.h"
#include "core/inspect/picture_changes.h"

namespace lacquer {

namespace {

constexpr int small_longer_side = 256;
constexpr int first_points = 33;
constexpr std::size_t most_points = 160;
// No two neighbours are further apart than this, as far as the points go.
constexpr double close_enough = 1.0 / 64;
constexpr double slack_of_one_way = 0.02;
// Steep ways are followed down to this share of the range, jumps no further.
constexpr double finest_part = 1.0 / (1 << 18);

// The mean over the pixels that differ between start and end of how far each has come.
double share_of_way(const Picture& now, const Picture& start, const Picture& end) {
    double sum = 0;
    std::size_t count = 0;
    for (int y = 0; y < now.height; ++y) {
        for (int x = 0; x < now.width; ++x) {
            const float whole = pixel_difference(start.at(x, y), start.channels, end.at(x, y), end.channels);
            if (!(whole > seen_difference)) continue;
            const float gone = pixel_difference(now.at(x, y), now.channels, start.at(x, y), start.channels);
            const float share = std::isfinite(whole) ? gone / whole : (gone > 0 ? 1.0F : 0.0F);
            sum += static_cast<double>(std::clamp(share, 0.0F, 1.0F));
            ++count;
        }
    }
    return count == 0 ? 0 : sum / static_cast<double>(count);
}

}  // namespace

Sweep whole_range(const Dial& dial) {
    if (dial.kind == DialKind::toggle) return {dial.name, 0, 1, {}};
    return {dial.name, dial.least, dial.most, {}};
}

double Way::value_at(double share) const {
    for (std::size_t i = 1; i < points.size(); ++i) {
        const WayPoint& before = points[i - 1];
        const WayPoint& after = points[i];
        if (after.share < share) continue;
        const double part = after.share > before.share ? (share - before.share) / (after.share - before.share) : 1;
        return before.value + (after.value - before.value) * std::clamp(part, 0.0, 1.0);
    }
    return points.empty() ? 0 : points.back().value;
}

Swept::Swept(const RenderRequest& request, Renderer& renderer, const Cancel& cancel, Sweep sweep)
    : request_(request), renderer_(renderer), cancel_(cancel), sweep_(std::move(sweep)) {
    // What would be at other values is looked at from the present tick, not from the tape's beginning.
    request_.in_a_drag = true;
    request_.points.clear();
    request_.line_grid = false;
    if (request_.frame_width <= 0) request_.frame_width = finish().frame_width;
    if (request_.frame_height <= 0) request_.frame_height = finish().frame_height;
}

bool Swept::is_smooth() const { return dial().kind == DialKind::number || dial().kind == DialKind::colour; }

std::string Swept::words_of(double value) const {
    const double span = std::fabs(to() - from());
    const int decimals = !is_smooth() ? 0 : span >= 100 ? 1 : span >= 10 ? 2 : 3;
    return plain_number(value, decimals) + (dial().unit.empty() ? "" : " " + dial().unit);
}

double Swept::value_at(double share) const {
    const double value = from() + (to() - from()) * share;
    return is_smooth() ? value : std::round(value);
}

// A colour is swept through the greys.
DialValue Swept::setting(double value) const {
    if (dial().kind == DialKind::colour) return {value, value, value};
    return {value, 0, 0};
}

RenderRequest Swept::whole(double value) const {
    RenderRequest request = request_;
    request.held[sweep_.dial] = setting(value);
    request.steps = {sweep_.step};
    request.width = request.frame_width;
    request.height = request.frame_height;
    request.small_grounds = false;
    return request;
}

RenderRequest Swept::small(double value) const {
    RenderRequest request = whole(value);
    const double share =
        std::min(1.0, small_longer_side / static_cast<double>(std::max(request.frame_width, request.frame_height)));
    request.width = std::max(2, static_cast<int>(request.frame_width * share) / 2 * 2);
    request.height = std::max(2, static_cast<int>(request.frame_height * share) / 2 * 2);
    request.small_grounds = true;
    return request;
}

const DrawnStep* Swept::draw(const std::string& key, const RenderRequest& request) {
    const auto found = kept_.find(key);
    if (found != kept_.end()) return found->second ? &*found->second : nullptr;
    Result<Frame> frame = renderer_.render(request, cancel_);
    std::optional<DrawnStep>& kept = kept_[key];
    if (frame && !frame->steps.empty()) kept = std::move(frame->steps.front());
    return kept ? &*kept : nullptr;
}

const DrawnStep* Swept::at(double value) { return draw("small " + shortest_number(value), small(value)); }

const DrawnStep* Swept::step_at(const std::string& step, double value) {
    RenderRequest request = small(value);
    request.steps = {step};
    return draw("step " + step + " " + shortest_number(value), request);
}

const DrawnStep* Swept::formula_at(const std::string& step, const std::string& formula, double value) {
    RenderRequest request = small(value);
    request.checked =
        std::make_shared<const CheckedFinish>(candidates_on(checked(), step, TryOnUse::replace, {formula}));
    request.steps = {candidate_name(0)};
    return draw("formula " + step + " " + formula + " " + shortest_number(value), request);
}

const DrawnStep* Swept::untouched() {
    const Ground* first = first_picture(finish());
    return first == nullptr ? nullptr : step_at(first->name, value_at(0));
}

const DrawnStep* Swept::whole_at(double value) { return draw("whole " + shortest_number(value), whole(value)); }

std::optional<DrawnStep> Swept::whole_once(double value) {
    Result<Frame> frame = renderer_.render(whole(value), cancel_);
    if (!frame || frame->steps.empty()) return std::nullopt;
    return std::move(frame->steps.front());
}

RenderRequest Swept::untouched_request() const {
    RenderRequest request = whole(value_at(0));
    request.steps = {first_picture(finish())->name};
    return request;
}

const DrawnStep* Swept::whole_untouched() {
    if (first_picture(finish()) == nullptr) return nullptr;
    return draw("untouched", untouched_request());
}

const DrawnStep* Swept::whole_untouched_lines() {
    if (first_picture(finish()) == nullptr) return nullptr;
    RenderRequest request = untouched_request();
    request.line_grid = true;
    return draw("untouched lines", request);
}

const DrawnStep* Swept::whole_of_lines(double value) {
    RenderRequest request = whole(value);
    request.line_grid = true;
    return draw("lines " + shortest_number(value), request);
}

const DrawnStep* Swept::whole_at_rest() {
    RenderRequest request = whole(value_at(0));
    request.held = request_.held;
    request.held.erase(sweep_.dial);
    request.tape = std::make_shared<const Tape>();
    request.time = 0;
    return draw("rest", request);
}

std::optional<double> Swept::milliseconds_at(double value) {
    const auto found = milliseconds_.find(value);
    if (found != milliseconds_.end()) return found->second;
    const RenderRequest request = whole(value);
    if (!renderer_.render(request, cancel_)) return std::nullopt;
    const Result<Frame> again = renderer_.render(request, cancel_);
    if (!again) return std::nullopt;
    milliseconds_[value] = again->milliseconds;
    return again->milliseconds;
}

std::optional<double> Swept::rest_value() {
    if (dial().formula.empty()) return std::nullopt;
    const DriveValues values = drive_values(checked(), 0, Tape());
    const auto found = values.find(dial().name);
    return found == values.end() ? std::nullopt : std::optional<double>(setting_from(found->second)[0]);
}

const Way& Swept::way() {
    if (way_) return *way_;
    way_.emplace();
    const DrawnStep* start = at(value_at(0));
    const DrawnStep* end = at(value_at(1));
    if (start == nullptr || end == nullptr) return *way_;
    const auto apart = difference(start->picture, end->picture);
    way_->ends_differ = apart && apart->seen > 0;
    if (!way_->ends_differ) return *way_;
    refine(start->picture, end->picture);
    double most = 0;
    way_->is_one_way = true;
    for (const WayPoint& point : way_->points) {
        if (point.share < most - slack_of_one_way) way_->is_one_way = false;
        most = std::max(most, point.share);
    }
    return *way_;
}

void Swept::refine(const Picture& start, const Picture& end) {
    std::vector<WayPoint>& points = way_->points;
    for (int i = 0; i < first_points; ++i) {
        const double value = value_at(i / (first_points - 1.0));
        if (!points.empty() && points.back().value == value) continue;
        if (const DrawnStep* drawn = at(value)) points.push_back({value, share_of_way(drawn->picture, start, end)});
    }
    for (bool again = is_smooth(); again && points.size() < most_points && !called_off();) {
        std::vector<WayPoint> finer;
        again = false;
        for (std::size_t i = 0; i < points.size(); ++i) {
            if (i > 0 && finer.size() + points.size() - i < most_points &&
                std::fabs(points[i].share - points[i - 1].share) > close_enough) {
                const double middle = (points[i].value + points[i - 1].value) / 2;
                const bool is_wide =
                    std::fabs(points[i].value - points[i - 1].value) > std::fabs(to() - from()) * finest_part;
                // These are many, and nobody else looks at them.
                Result<Frame> frame = is_wide ? renderer_.render(small(middle), cancel_) : Result<Frame>(Frame());
                if (frame && !frame->steps.empty()) {
                    finer.push_back({middle, share_of_way(frame->steps.front().picture, start, end)});
                    again = true;
                }
            }
            finer.push_back(points[i]);
        }
        points = std::move(finer);
    }
}

}  // namespace lacquer
