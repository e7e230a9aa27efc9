#include "core/batch/batch_report.h"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>

#include "core/base/base64.h"
#include "core/base/text.h"
#include "core/base/version.h"
#include "core/picture/files.h"
#include "core/picture/png.h"
#include "core/picture/sample.h"
#include "core/render/view.h"

namespace lacquer {

namespace {

constexpr int thumbnail_width = 192;

ReportedTask reported(const BatchTask& task, const std::string& work) {
    const TaskRecord record = record_of(task, work);
    ReportedTask made;
    made.name = task.name;
    made.key = task.key;
    made.frames = task.frames.size();
    made.done = made.frames - frames_to_do(task, record).size();
    made.inspected = record.inspected;
    const SeriesFrame* worst = nullptr;
    for (const SeriesFrame& frame : task.frames) {
        const auto found = record.frames.find(frame.number);
        if (found == record.frames.end() || !found->second.difference) continue;
        ++made.compared;
        const int difference = *found->second.difference;
        if (difference == 0) continue;
        ++made.differing;
        if (difference <= made.largest_difference) continue;
        made.largest_difference = difference;
        worst = &frame;
    }
    if (worst != nullptr) made.largest_at = worst->path;
    const auto show = [&](const SeriesFrame& frame) {
        if (std::find(made.pictures.begin(), made.pictures.end(), frame.path) == made.pictures.end())
            made.pictures.push_back(frame.path);
    };
    if (!task.frames.empty()) {
        show(task.frames.front());
        show(task.frames[task.frames.size() / 2]);
        show(task.frames.back());
    }
    if (worst != nullptr) show(*worst);
    return made;
}

std::string escaped(const std::string& text) {
    std::string made;
    for (const char c : text) {
        switch (c) {
            case '&':
                made += "&amp;";
                break;
            case '<':
                made += "&lt;";
                break;
            case '>':
                made += "&gt;";
                break;
            case '"':
                made += "&quot;";
                break;
            case '\'':
                made += "&#39;";
                break;
            default:
                made += c;
        }
    }
    return made;
}

std::string thumbnail(const std::string& path, WorkerPool& pool) {
    const Result<Picture> whole = read_picture(path, PictureMeaning::colour);
    if (!whole) return {};
    const int width = std::min(thumbnail_width, whole->width);
    const int height = std::max(1, static_cast<int>(static_cast<std::int64_t>(whole->height) * width / whole->width));
    const Picture small = shrink_to(*whole, width, height, true);
    const Result<std::string> bytes = png_bytes(to_image(small, float_type(small.channels), pool));
    if (!bytes) return {};
    return fmt::format(
        "<figure><img alt=\"{0}\" src=\"data:image/png;base64,{1}\"><figcaption>{0}</figcaption></figure>",
        escaped(std::filesystem::path(path).filename().string()), base64(*bytes));
}

std::string verdict_of(const ReportedTask& task) {
    if (task.done < task.frames) return fmt::format("<b class=\"left\">{} left</b>", task.frames - task.done);
    if (task.inspected && task.inspected->falls_short) return "<b class=\"bad\">falls short</b>";
    if (task.differing > 0) return "<b class=\"bad\">differs</b>";
    return "<b class=\"good\">done</b>";
}

std::string compared_words(const ReportedTask& task) {
    if (task.compared == 0) return "nothing stood there before";
    if (task.differing == 0) return fmt::format("{} as before", counted(task.compared, "frame"));
    return fmt::format("{} of {} differ, by up to {} of 255 in {}", task.differing, task.compared,
                       task.largest_difference, escaped(std::filesystem::path(task.largest_at).filename().string()));
}

constexpr std::string_view head = R"html(<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'">
<style>
body { background: #171412; color: #e9e2d8; font: 14px/1.5 "B612", sans-serif; margin: 32px auto; max-width: 1100px; padding: 0 16px; }
h1 { font-size: 22px; margin: 0 0 4px; } h2 { font-size: 16px; margin: 0; }
p { color: #a3978a; margin: 2px 0; } section { background: #1f1b18; border-left: 3px solid #3a322c; margin: 14px 0; padding: 12px 16px; }
section.bad { border-color: #d9472b; } section.good { border-color: #7fb79a; }
b.good { color: #7fb79a; } b.bad { color: #ff8a6b; } b.left { color: #e0b04a; }
figure { display: inline-block; margin: 10px 10px 0 0; } img { display: block; } figcaption { color: #a3978a; font-size: 12px; }
code { color: #a3978a; }
</style>
)html";

}  // namespace

bool BatchReport::is_done() const {
    return std::all_of(tasks.begin(), tasks.end(), [](const ReportedTask& t) { return t.done == t.frames; });
}

bool BatchReport::differs() const {
    return std::any_of(tasks.begin(), tasks.end(), [](const ReportedTask& t) { return t.differing > 0; });
}

bool BatchReport::falls_short() const {
    return std::any_of(tasks.begin(), tasks.end(),
                       [](const ReportedTask& t) { return t.inspected && t.inspected->falls_short; });
}

BatchReport report_of_batch(const std::vector<BatchTask>& tasks, const std::string& work) {
    BatchReport report;
    for (const BatchTask& task : tasks) report.tasks.push_back(reported(task, work));
    return report;
}

Json json_of(const BatchReport& report) {
    Json tasks = Json::array();
    for (const ReportedTask& task : report.tasks) {
        Json one = Json::object({{"name", task.name},
                                 {"key", task.key},
                                 {"frames", static_cast<std::int64_t>(task.frames)},
                                 {"done", static_cast<std::int64_t>(task.done)},
                                 {"compared", static_cast<std::int64_t>(task.compared)},
                                 {"differing", static_cast<std::int64_t>(task.differing)},
                                 {"largest_difference", task.largest_difference}});
        if (!task.largest_at.empty()) one["largest_at"] = task.largest_at;
        if (task.inspected) {
            Json words = Json::array();
            for (const std::string& each : task.inspected->words) words.push_back(each);
            one["inspected"] =
                Json::object({{"falls_short", task.inspected->falls_short}, {"words", std::move(words)}});
        }
        tasks.push_back(std::move(one));
    }
    return Json::object({{"format", 1},
                         {"version", program_version()},
                         {"done", report.is_done()},
                         {"differs", report.differs()},
                         {"falls_short", report.falls_short()},
                         {"tasks", std::move(tasks)}});
}

std::string page_of(const BatchReport& report, const std::string& title) {
    WorkerPool pool;
    std::string page(head);
    page += fmt::format("<title>{0}</title></head><body><h1>{0}</h1>", escaped(title));
    std::size_t frames = 0;
    std::size_t done = 0;
    for (const ReportedTask& task : report.tasks) {
        frames += task.frames;
        done += task.done;
    }
    page += fmt::format("<p>{} in {}, {} done, by version {}</p>", counted(frames, "frame"),
                        counted(report.tasks.size(), "task"), done, program_version());
    for (const ReportedTask& task : report.tasks) {
        const bool is_bad = task.differing > 0 || (task.inspected && task.inspected->falls_short);
        page += fmt::format("<section class=\"{}\"><h2>{} &nbsp; {}</h2><p>{} of {}; {}</p>",
                            is_bad                     ? "bad"
                            : task.done == task.frames ? "good"
                                                       : "left",
                            escaped(task.name), verdict_of(task), task.done, counted(task.frames, "frame"),
                            compared_words(task));
        if (task.inspected) {
            if (task.inspected->words.empty()) page += "<p>keeps what the finish promises</p>";
            for (const std::string& words : task.inspected->words) page += "<p>" + escaped(words) + "</p>";
        }
        for (const std::string& picture : task.pictures) page += thumbnail(picture, pool);
        page += fmt::format("<p><code>{}</code></p></section>\n", task.key);
    }
    return page + "</body></html>\n";
}

}  // namespace lacquer
