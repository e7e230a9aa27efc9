// What came of a batch: as JSON for programs, and as one page for people.
#pragma once

#include <string>
#include <vector>

#include "core/batch/batch_run.h"
#include "core/finish/json.h"

namespace lacquer {

/// A task with what the records say of it.
struct ReportedTask {
    std::string name;
    std::string key;
    std::size_t frames = 0;
    std::size_t done = 0;
    /// Of frames that were compared with what stood there before.
    std::size_t compared = 0;
    std::size_t differing = 0;
    int largest_difference = 0;  ///< in steps of 8 bits
    std::string largest_at;      ///< the file of that frame
    std::optional<InspectRecord> inspected;
    std::vector<std::string> pictures;  ///< files of a few frames, the most different one among them
};

struct BatchReport {
    std::vector<ReportedTask> tasks;

    bool is_done() const;
    bool differs() const;
    bool falls_short() const;
};

/// What the records in the work folder say of all of these tasks.
BatchReport report_of_batch(const std::vector<BatchTask>& tasks, const std::string& work);

Json json_of(const BatchReport& report);

/// One HTML file with small pictures in it; no request leaves it. Pictures that cannot be read are left out.
std::string page_of(const BatchReport& report, const std::string& title);

}  // namespace lacquer
