// lacquer-cli batch FILE.json: many finishes, variants and tapes as frames, by one process or by many.
#include <fmt/core.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <filesystem>

#include "cli/arguments.h"
#include "cli/progress.h"
#include "cli/verbs.h"
#include "core/base/file.h"
#include "core/base/text.h"
#include "core/batch/batch_report.h"
#include "core/finish/file.h"
#include "core/finish/json_line.h"

namespace lacquer::cli {

namespace {

struct BatchVerb {
    FinishOptions jobs;  ///< its file is that of the jobs
    std::optional<std::string> work;
    std::optional<std::string> share;
    std::optional<std::string> report;
    bool dry_run = false;
    bool again = false;
    bool must_match = false;
    int threads = 0;
    int memory = 2048;
};

void print_plan(const std::vector<BatchTask>& tasks, const std::string& work) {
    fmt::print("{:<36} {:>8} {:>8} {:>8}  {}\n", "task", "frames", "done", "to do", "first file");
    for (const BatchTask& task : tasks) {
        const std::size_t left = frames_to_do(task, record_of(task, work)).size();
        fmt::print("{:<36} {:>8} {:>8} {:>8}  {}\n", task.name, task.frames.size(), task.frames.size() - left, left,
                   task.frames.empty() ? "-" : task.frames.front().path);
    }
}

Result<Done> write_report(const BatchVerb& options, const std::vector<BatchTask>& tasks, const std::string& work,
                          BatchReport& report) {
    report = report_of_batch(tasks, work);
    if (!options.report) return Done{};
    const std::string title = std::filesystem::path(options.jobs.file).stem().string();
    if (auto written = write_whole_file(*options.report + ".json", one_line(json_of(report)) + "\n"); !written)
        return written;
    if (auto written = write_whole_file(*options.report + ".html", page_of(report, title)); !written) return written;
    fmt::print("{0}.json\n{0}.html\n", *options.report);
    return Done{};
}

Result<Outcome> batch(const BatchVerb& options) {
    if (options.threads < 0 || options.threads > 256) return usage_fault("cli.number", "--threads takes 0 to 256", "");
    if (options.memory < 16) return usage_fault("cli.number", "--memory takes 16 megabytes at least", "");
    BatchOptions run;
    run.work = options.work.value_or(std::filesystem::path(options.jobs.file).replace_extension(".work").string());
    run.threads = options.threads;
    run.memory = static_cast<std::size_t>(options.memory) * 1024 * 1024;
    run.again = options.again;
    if (options.share) {
        const Result<BatchShare> share = share_from(*options.share);
        if (!share) return share.fault();
        run.share = *share;
    }
    const Result<std::string> text = read_whole_file(options.jobs.file, max_file_size);
    if (!text) return text.fault();
    const Result<std::vector<BatchJob>> jobs = jobs_from_text(*text, options.jobs.file);
    if (!jobs) return jobs.fault();
    Faults notices;
    const std::string folder = std::filesystem::path(options.jobs.file).parent_path().string();
    const Result<std::vector<BatchTask>> tasks = batch_tasks(*jobs, folder, catalogue_of(options.jobs), notices);
    if (!tasks) return tasks.fault();
    for (const Fault& notice : notices) tell(notice);
    if (options.dry_run) {
        print_plan(share_of(*tasks, run.share), run.work);
        return notices.empty() ? Outcome::done : Outcome::with_notices;
    }
    std::size_t all = 0;
    for (const BatchTask& task : share_of(*tasks, run.share))
        all += options.again ? task.frames.size() : frames_to_do(task, record_of(task, run.work)).size();
    Progress progress(all);
    const CalledOff called_off;
    const Result<Done> drawn = run_batch(
        *tasks, run, [&](const BatchTask& task, const SeriesFrame&) { progress.one_more(task.name); },
        called_off.cancel());
    progress.end();
    BatchReport report;
    if (auto written = write_report(options, *tasks, run.work, report); !written) return written.fault();
    if (!drawn) return drawn.fault();
    fmt::print("{} drawn\n", counted(all, "frame"));
    if (report.falls_short())
        return usage_fault("cli.inspect", "a finish falls short of what it promises", "see the report");
    if (options.must_match && report.differs())
        return usage_fault("cli.differs", "pictures differ from those that stood there before", "see the report");
    return notices.empty() ? Outcome::done : Outcome::with_notices;
}

}  // namespace

Run offer_batch(CLI::App& options) {
    const auto chosen = std::make_shared<BatchVerb>();
    options.add_option("FILE", chosen->jobs.file, "the jobs, as docs/studio.md describes them")->required();
    options.add_option("--operations", chosen->jobs.operations, "a folder of operations in place of the user's own");
    options.add_option("--work", chosen->work, "the folder of records; else beside the jobs, called after them");
    options.add_option("--share", chosen->share, "only this part of the work, always the same one: 3/20")
        ->type_name("N/COUNT");
    options.add_option("--report", chosen->report, "writes what came of it, as NAME.json and NAME.html")
        ->type_name("NAME");
    options.add_flag("--dry-run", chosen->dry_run, "tells what would be drawn, and what is done already");
    options.add_flag("--again", chosen->again, "draws also what is done");
    options.add_flag("--must-match", chosen->must_match, "a picture that differs from the one before is a fault");
    options.add_option("--threads", chosen->threads, "how many draw, 0 for one a processor");
    options.add_option("--memory", chosen->memory, "what frames under way may hold together, megabytes")
        ->capture_default_str();
    return [chosen] { return batch(*chosen); };
}

}  // namespace lacquer::cli
