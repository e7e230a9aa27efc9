// What a file of jobs asks for, written out as series of frames. docs/studio.md has its keys, docs/jobs.schema.json
// their schema.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/batch/content_key.h"
#include "core/batch/frame_series.h"
#include "core/finish/checked.h"
#include "core/finish/tape_file.h"

namespace lacquer {

/// The format of job files that this version reads.
inline constexpr int jobs_format = 1;
/// Most frames that all jobs of a file may ask for together.
inline constexpr std::size_t most_batch_frames = 10'000'000;

/// A job as it is written. Paths are as in the file, relative to its folder.
struct BatchJob {
    std::string name;
    std::string finish;
    std::vector<std::string> variants = {""};  ///< an empty one is none
    bool all_variants = false;                 ///< each, and none
    std::vector<std::string> tapes = {""};     ///< an empty one is the finish's own
    std::vector<std::pair<int, int>> sizes = {{0, 0}};
    double frames_a_second = 0;  ///< 0 for one picture
    double at = 0;               ///< its moment, seconds
    std::optional<std::pair<int, int>> range;
    int step_by = 1;
    std::vector<std::string> steps = {""};
    HeldDials dials;
    std::string output;
    FrameWriting writing;
    bool inspect = false;  ///< the finish must keep its promises
};

/// Reads such a text. Faults: those of reading JSON, `jobs.format`, `jobs.value` for a value that is none of its kind
/// (a job is refused rather than drawn in another way than was meant), `jobs.name` for two of one name.
Result<std::vector<BatchJob>> jobs_from_text(std::string_view text, const std::string& where);

/// One series of a job: a variant, a tape, a size.
struct BatchTask {
    std::string name;  ///< "strike", or "strike-night-gale-1920x1080" where there are several
    RenderRequest request;
    NamedTape tape;
    std::vector<SeriesFrame> frames;
    FrameWriting writing;
    bool inspect = false;
    bool ticks = false;  ///< frames go on from those before
    std::string key;     ///< of all that the pictures depend on
};

/// The jobs as tasks. Finishes and tapes are read once each; relative paths go by `folder`. Faults: those of reading
/// and checking them, `jobs.variant`, `jobs.step`, `jobs.output` where two frames would be written to one file,
/// `jobs.frames` for more than `most_batch_frames`.
Result<std::vector<BatchTask>> batch_tasks(const std::vector<BatchJob>& jobs, const std::string& folder,
                                           const std::shared_ptr<const Catalogue>& catalogue, Faults& notices);

/// Share `nth` of `count` (from 1): a run of neighbouring frames of all tasks together, always the same, none in two.
struct BatchShare {
    int nth = 1;
    int count = 1;
};
/// "3/20". Faults: `jobs.share`.
Result<BatchShare> share_from(std::string_view text);
/// The tasks with the frames of a share only; those that have none of them are left out.
std::vector<BatchTask> share_of(std::vector<BatchTask> tasks, const BatchShare& share);

}  // namespace lacquer
