#include "core/inspect/report.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

namespace {

bool holds(const std::vector<std::string>& all, std::string_view one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

}  // namespace

bool DialReport::is_promised(std::string_view id) const { return holds(promises, id); }

bool InspectReport::falls_short() const {
    if (!unknown_promises.empty() || !faults.empty()) return true;
    return std::any_of(dials.begin(), dials.end(), [](const DialReport& dial) {
        return std::any_of(dial.measured.begin(), dial.measured.end(), [&](const Measured& one) {
            return one.verdict != Verdict::passes && dial.is_promised(one.id);
        });
    });
}

double liveliest_moment(const CheckedFinish& checked, const Tape& tape, double share) {
    constexpr int moments = 120;
    const Play play(std::make_shared<const CheckedFinish>(checked), tape);
    const DriveValues rest = drive_values(checked, 0, Tape());
    std::vector<double> far;
    for (int i = 0; i <= moments; ++i) {
        const DriveValues values = play.values(checked.finish->length * i / moments);
        double sum = 0;
        for (const Dial& dial : checked.finish->dials) {
            if (dial.formula.empty() || !(dial.most > dial.least)) continue;
            const auto now = values.find(dial.name);
            const auto before = rest.find(dial.name);
            if (now == values.end() || before == rest.end()) continue;
            sum += std::fabs(setting_from(now->second)[0] - setting_from(before->second)[0]) / (dial.most - dial.least);
        }
        far.push_back(sum);
    }
    const double farthest = *std::max_element(far.begin(), far.end());
    if (!(farthest > 0)) return 0;
    const auto first = std::find_if(far.begin(), far.end(), [&](double one) { return one >= share * farthest - 1e-9; });
    return checked.finish->length * static_cast<double>(first - far.begin()) / moments;
}

InspectReport report_of(const RenderRequest& request, Renderer& renderer, const Cancel& cancel,
                        const ReportOptions& options) {
    InspectReport report;
    report.time = request.time;
    report.faults = request.checked->faults;
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault && step.fault->id != "finish.broken-source") report.faults.push_back(*step.fault);
    }
    RenderRequest finished = request;
    finished.steps = {""};
    if (const Result<Frame> frame = renderer.render(finished, cancel)) report.notices = frame->notices;
    report.warnings = inspect(request, renderer, cancel);
    for (const Dial& dial : request.checked->finish->dials) {
        if (cancel.requested()) break;
        const bool wanted = options.dials.empty() ? options.all_dials || !dial.formula.empty() || !dial.promises.empty()
                                                  : holds(options.dials, dial.name);
        if (!wanted) continue;
        for (const std::string& promise : dial.promises) {
            if (find_measure(promise) == nullptr) report.unknown_promises.push_back(dial.name + "." + promise);
        }
        MeasureOptions measuring{options.all_shapes, options.ids, {}};
        if (!options.ids.empty()) measuring.ids.insert(measuring.ids.end(), dial.promises.begin(), dial.promises.end());
        report.dials.push_back(
            {dial.name, dial.promises, measure(request, renderer, cancel, whole_range(dial), measuring)});
    }
    return report;
}

}  // namespace lacquer
