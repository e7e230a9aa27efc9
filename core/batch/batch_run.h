// Tasks drawn, and what is known of them afterwards. What is done is known by content: a frame is done if its file is
// there and a record of the task's key names it.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/batch/batch_job.h"

namespace lacquer {

/// What is known of a frame that was written.
struct FrameRecord {
    /// The largest difference to the file that stood there before, in steps of 8 bits; nothing where there was none, or
    /// it had another size.
    std::optional<int> difference;
};

struct InspectRecord {
    bool falls_short = false;
    std::vector<std::string> words;  ///< what it falls short of
};

/// What the record files of a task say together.
struct TaskRecord {
    std::string key;
    std::map<int, FrameRecord> frames;
    std::optional<InspectRecord> inspected;
};

struct BatchOptions {
    std::string work;  ///< the folder of records and checkpoints, made if it is not there
    BatchShare share;
    int threads = 0;
    std::size_t memory = std::size_t{2} * 1024 * 1024 * 1024;
    bool again = false;  ///< also what is done
};

/// What all record files in the work folder say of a task with its present key.
TaskRecord record_of(const BatchTask& task, const std::string& work);
/// Its frames that are not done yet.
std::vector<SeriesFrame> frames_to_do(const BatchTask& task, const TaskRecord& record);

/// Is told of each frame that is written.
using BatchWatch = std::function<void(const BatchTask&, const SeriesFrame&)>;

/// Draws what the share has still to do of these tasks, all of them; frames that ticks lead to begin from the nearest
/// checkpoint of another share that is there. Two shares write no file together. Faults: the first of those of drawing
/// and writing, `file.unwritable`, `render.cancelled`; what was written until then is recorded.
Result<Done> run_batch(const std::vector<BatchTask>& tasks, const BatchOptions& options, const BatchWatch& watch,
                       const Cancel& cancel);

}  // namespace lacquer
