// lacquer-cli inspect FILE: all inspections and measures, as a table or as JSON, so that a build can hold effects to
// them.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>

#include "cli/played.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/finish/json_line.h"
#include "core/inspect/report.h"
#include "core/render/played_request.h"

namespace lacquer::cli {

namespace {

struct InspectOptions {
    PlayedOptions played;
    std::vector<std::string> dials;
    std::vector<std::string> measures;
    std::optional<double> at;
    std::optional<std::string> size;
    bool all_dials = false;
    bool all_shapes = false;
    bool as_json = false;
};

std::string_view verdict_words(Verdict verdict) {
    switch (verdict) {
        case Verdict::passes:
            return "passes";
        case Verdict::falls_short:
            return "falls short";
        case Verdict::says_nothing:
            break;
    }
    return "-";
}

void print_table(const std::string& variant, const InspectReport& report) {
    if (!variant.empty()) fmt::print("variant {}\n", variant);
    fmt::print("at {} s\n", plain_number(report.time, 2));
    for (const DialReport& dial : report.dials) {
        fmt::print("{}\n", dial.dial);
        for (const Measured& one : dial.measured) {
            fmt::print("  {} {:<12} {:<11}  {}{}\n", dial.is_promised(one.id) ? '*' : ' ', one.title,
                       verdict_words(one.verdict), one.shape.empty() ? "" : "in " + one.shape + ", ", one.words);
        }
    }
    for (const std::string& unknown : report.unknown_promises) fmt::print("{}: there is no such measure\n", unknown);
    for (const Fault& fault : report.faults) fmt::print("fault: {}\n", to_text(fault));
    for (const Fault& notice : report.notices) fmt::print("{}\n", to_text(notice));
    for (const Warning& warning : report.warnings) fmt::print("{}: {}\n", warning.where, warning.message);
}

Json json_of(const Measured& one, bool is_promised) {
    Json numbers = Json::object();
    for (const auto& [name, value] : one.numbers) numbers[name] = value;
    Json curves = Json::array();
    for (const MeasureCurve& curve : one.curves) {
        Json points = Json::array();
        for (const auto& [value, height] : curve.points) points.push_back({value, height});
        curves.push_back(Json::object({{"words", curve.words}, {"points", std::move(points)}}));
    }
    Json mends = Json::array();
    for (const Mend& mend : one.mends) mends.push_back(mend.words);
    Json object = Json::object({{"measure", one.id},
                                {"verdict", one.verdict == Verdict::passes        ? "passes"
                                            : one.verdict == Verdict::falls_short ? "falls_short"
                                                                                  : "says_nothing"},
                                {"promised", is_promised},
                                {"words", one.words},
                                {"numbers", std::move(numbers)},
                                {"curves", std::move(curves)},
                                {"mends", std::move(mends)}});
    if (!one.shape.empty()) object["shape"] = one.shape;
    return object;
}

Json json_of(const std::string& variant, const InspectReport& report) {
    Json dials = Json::array();
    for (const DialReport& dial : report.dials) {
        Json measured = Json::array();
        for (const Measured& one : dial.measured) measured.push_back(json_of(one, dial.is_promised(one.id)));
        dials.push_back(Json::object({{"dial", dial.dial}, {"measures", std::move(measured)}}));
    }
    Json warnings = Json::array();
    for (const Warning& warning : report.warnings) {
        warnings.push_back(Json::object({{"id", warning.id}, {"where", warning.where}, {"message", warning.message}}));
    }
    const auto told = [](const Faults& faults) {
        Json list = Json::array();
        for (const Fault& fault : faults)
            list.push_back(Json::object({{"id", fault.id}, {"where", fault.place.where}, {"message", fault.message}}));
        return list;
    };
    Json unknown = Json::array();
    for (const std::string& promise : report.unknown_promises) unknown.push_back(promise);
    return Json::object({{"variant", variant},
                         {"time", report.time},
                         {"falls_short", report.falls_short()},
                         {"faults", told(report.faults)},
                         {"notices", told(report.notices)},
                         {"warnings", std::move(warnings)},
                         {"dials", std::move(dials)},
                         {"unknown_promises", std::move(unknown)}});
}

Result<Done> check_names(const InspectOptions& options, const Finish& finish) {
    for (const std::string& name : options.dials) {
        if (find_dial(finish, name) != nullptr) continue;
        std::vector<std::string> names;
        for (const Dial& dial : finish.dials) names.push_back(dial.name);
        const auto near = nearest_name(name, names);
        return usage_fault("cli.dial", "there is no dial '" + name + "'", near ? "did you mean " + *near + "?" : "");
    }
    for (const std::string& id : options.measures) {
        if (find_measure(id) != nullptr) continue;
        std::string all;
        for (const Measure& measure : measures()) all += (all.empty() ? "" : ", ") + std::string(measure.id);
        return usage_fault("cli.measure", "there is no measure '" + id + "'", all);
    }
    return Done{};
}

Result<Outcome> inspect_all(const InspectOptions& options) {
    Result<PlayedFinish> played = played_finish(options.played);
    if (!played) return played.fault();
    if (auto good = check_names(options, played->finish()); !good) return good.fault();
    RenderRequest request = request_of(*played);
    if (options.size) {
        const Result<std::pair<int, int>> size = parse_size(*options.size);
        if (!size) return size.fault();
        std::tie(request.frame_width, request.frame_height) = *size;
    }
    WorkerPool pool;
    Renderer renderer(pool);
    Json reports = Json::array();
    bool falls_short = false;
    bool warns = false;
    for (const std::string& variant : variants_of(*played, options.played.finish)) {
        if (auto used = use_variant(*played, variant); !used) return used.fault();
        request.checked = played->checked;
        request.time = options.at.value_or(liveliest_moment(*request.checked, *request.tape));
        const InspectReport report = report_of(
            request, renderer, Cancel(), {options.all_dials, options.all_shapes, options.dials, options.measures});
        falls_short = falls_short || report.falls_short();
        warns = warns || !report.warnings.empty() || !report.notices.empty();
        if (options.as_json) {
            reports.push_back(json_of(variant, report));
        } else {
            print_table(variant, report);
        }
    }
    if (options.as_json) fmt::print("{}\n", one_line(reports));
    if (falls_short)
        return usage_fault("cli.inspect", "the finish falls short of what it promises", "see the rows with a star");
    return warns ? Outcome::with_notices : Outcome::done;
}

}  // namespace

Run offer_inspect(CLI::App& options) {
    const auto chosen = std::make_shared<InspectOptions>();
    add_played(options, chosen->played);
    options.add_option("--dial", chosen->dials, "only this dial; several may be given")->allow_extra_args(false);
    options.add_flag("--all-dials", chosen->all_dials, "also dials that nothing drives and that promise nothing");
    options.add_option("--measure", chosen->measures, "only this measure, and what is promised; several may be given")
        ->allow_extra_args(false);
    options.add_flag("--all-shapes", chosen->all_shapes, "in frames of 16:9, 21:9, 4:3, 1:1 and 9:16, too");
    options.add_option("--at", chosen->at, "at which moment, seconds; else where driven dials are farthest from rest");
    options.add_option("--size", chosen->size, "another size of the frame, in pixels")->type_name("WxH");
    options.add_flag("--json", chosen->as_json, "as JSON, with all numbers and curves");
    return [chosen] { return inspect_all(*chosen); };
}

}  // namespace lacquer::cli
