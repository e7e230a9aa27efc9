// All that inspections and measures say of a finish, and whether it keeps its promises.
#pragma once

#include <string>
#include <vector>

#include "core/inspect/inspection.h"
#include "core/inspect/measure.h"

namespace lacquer {

/// What was measured of one dial.
struct DialReport {
    std::string dial;
    std::vector<std::string> promises;  ///< ids of the measures that it must pass
    std::vector<Measured> measured;

    bool is_promised(std::string_view id) const;
};

struct InspectReport {
    double time = 0;  ///< the moment at which all was looked at, seconds
    Faults faults;    ///< of names, dials and steps
    Faults notices;   ///< of drawing it: pictures that are missing
    Warnings warnings;
    std::vector<DialReport> dials;
    std::vector<std::string> unknown_promises;  ///< ids that no measure has, each after its dial and a point

    /// True if a promised measure was not passed, or can't be, and if there are faults.
    bool falls_short() const;
};

struct ReportOptions {
    bool all_dials = false;  ///< also those that nothing drives and that promise nothing
    bool all_shapes = false;
    std::vector<std::string> dials;  ///< only these; empty for those above
    std::vector<std::string> ids;    ///< only these measures, and those that are promised; empty for all
};

/// The first moment at which driven dials are so far from where they rest, as a share of the farthest that they come,
/// seconds: at 1 most of the effect is seen. 0 where nothing is driven.
double liveliest_moment(const CheckedFinish& checked, const Tape& tape, double share = 1);

/// Looks at the request's moment. Called off, it gives what it has so far.
InspectReport report_of(const RenderRequest& request, Renderer& renderer, const Cancel& cancel,
                        const ReportOptions& options = {});

}  // namespace lacquer
