// Inspections of a finish. Each looks for one kind of trouble, in a file of its own.
#pragma once

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>

#include "core/inspect/warning.h"
#include "core/render/renderer.h"

namespace lacquer {

/// A finish at a moment, which inspections may draw small to see what comes of it. What has been drawn is kept.
class Inspected {
public:
    /// The request tells of the finish, its pictures and the moment; its steps and size do not matter.
    Inspected(const RenderRequest& request, Renderer& renderer, const Cancel& cancel);

    const CheckedFinish& checked() const { return *request_.checked; }
    const std::shared_ptr<const CheckedFinish>& shared_checked() const { return request_.checked; }
    const Finish& finish() const { return *request_.checked->finish; }
    const Tape& tape() const { return request_.tape != nullptr ? *request_.tape : finish().tape; }
    bool called_off() const { return cancel_.requested(); }

    /// The values of a formula that stands in place of `step`; null if it has a fault or the work was called off.
    const DrawnStep* drawn(const std::string& step, const std::string& formula);
    /// What a step is after so many seconds at so many ticks a second, from the tape's beginning, in a small frame.
    const DrawnStep* after(const std::string& step, double seconds, double rate);
    /// The finished picture, or a picture of the grounds, with this dial held; an empty name holds none.
    const DrawnStep* finished(const std::string& dial, double value);
    const DrawnStep* ground(const std::string& name);
    /// Width and height of a picture or sprite among the grounds, as it lies in its file; nothing of any other.
    std::optional<std::pair<int, int>> size_of(const Ground& ground) {
        return renderer_.size_of(ground, request_.finish_path);
    }

private:
    const DrawnStep* draw(const std::string& key, const RenderRequest& request);
    RenderRequest request_;
    Renderer& renderer_;
    const Cancel& cancel_;
    std::map<std::string, std::optional<DrawnStep>, std::less<>> kept_;
};

struct Inspection {
    std::string_view id;
    std::string_view words;  ///< what it looks for
    void (*run)(Inspected&, Warnings&) = nullptr;
};

/// All inspections, in the order in which their warnings are told.
std::span<const Inspection> inspections();

/// The warnings of all inspections.
Warnings inspect(const RenderRequest& request, Renderer& renderer, const Cancel& cancel);

// One file each.
Inspection not_finite_inspection();
Inspection one_way_push_inspection();
Inspection corrected_reading_inspection();
Inspection outside_range_inspection();
Inspection unclean_ends_inspection();
Inspection jump_inspection();
Inspection two_runs_inspection();
Inspection hidden_colours_inspection();
Inspection picture_size_inspection();
Inspection tick_rate_inspection();
Inspection growing_inspection();
Inspection still_vectors_inspection();
Inspection stand_in_inspection();
Inspection unnamed_inspection();

/// The repairs for a step's fault of the language: the nearest name, a part of what is too wide, another order.
std::vector<Mend> mends_of_fault(const CheckedFinish& checked, const std::string& step, const Fault& fault);

}  // namespace lacquer
