// Any bytes as a file of jobs, and as a share of one.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/batch/batch_job.h"
#include "core/catalogue/catalogue.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const Result<std::vector<BatchJob>> jobs = jobs_from_text(text, "fuzz");
    if (!jobs && (jobs.fault().message.empty() || jobs.fault().mend.empty())) std::abort();
    if (jobs) {
        for (const BatchJob& job : *jobs) {
            if (job.step_by < 1 || job.sizes.empty() || job.output.empty()) std::abort();
        }
        Faults notices;
        const auto tasks = batch_tasks(*jobs, LACQUER_SOURCE "/demo/finishes", built_in_catalogue(), notices);
        if (!tasks && (tasks.fault().message.empty() || tasks.fault().id == "base.unexpected")) std::abort();
        std::size_t all = 0;
        for (int nth = 1; tasks && nth <= 2; ++nth) {
            for (const BatchTask& task : share_of(*tasks, {nth, 2})) all += task.frames.size();
        }
        for (const BatchTask& task : tasks ? *tasks : std::vector<BatchTask>()) all -= task.frames.size();
        if (all != 0) std::abort();
    }
    const Result<BatchShare> share = share_from(text.substr(0, 32));
    if (share && (share->nth < 1 || share->nth > share->count)) std::abort();
    return 0;
}
