// Batches by the real program: exit codes, resuming, and the ready engines of tools/cluster.
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"
#include "core/finish/json_tree.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::run_cli;
namespace fs = std::filesystem;

namespace {

std::string jobs_text(const std::string& to) {
    return R"({"format": 1, "jobs": [{"name": "strike", "finish": ")" + test::demo_path() +
           R"(", "frames": 5, "sizes": ["64x36", "36x64"], "output": ")" + to + R"(/strike.png"},
              {"finish": ")" +
           test::demo_path("wake") + R"(", "frames": 5, "sizes": "64x36", "output": ")" + to + R"(/wake.png"}]})";
}

// The same files with the same bytes.
bool are_alike(const std::string& one, const std::string& other) {
    std::size_t count = 0;
    for (const auto& entry : fs::directory_iterator(one)) {
        ++count;
        if (test::read_file(entry.path().string()) != test::read_file(other + "/" + entry.path().filename().string()))
            return false;
    }
    for (const auto& entry : fs::directory_iterator(other)) {
        (void)entry;
        --count;
    }
    return count == 0;
}

const std::string cluster = LACQUER_SOURCE "/tools/cluster";

}  // namespace

TEST_CASE("render draws a part of a series, goes on where it stopped, in several sizes and variants") {
    const test::TemporaryFolder folder;
    const std::string words =
        "render '" + test::demo_path() + "' --frames 10 --size 48x27 -o '" + folder.file("a.png") + "'";
    REQUIRE(run_cli(words + " --range 3..9 --step-by 3").code == 0);
    CHECK(fs::exists(folder.file("a-0003.png")));
    CHECK(fs::exists(folder.file("a-0009.png")));
    CHECK_FALSE(fs::exists(folder.file("a-0004.png")));
    CHECK_FALSE(fs::exists(folder.file("a.png.begun")));
    // Stopped in the middle: whole files only, and the rest later.
    const test::CommandResult stopped =
        test::run_command("timeout -s INT 1 '" + test::program_folder() + "/lacquer-cli' render '" + test::demo_path() +
                          "' --frames 200 --size 640x360 -o '" + folder.file("b.png") + "'");
    CHECK(stopped.output.find("called off") != std::string::npos);
    std::size_t before = 0;
    for (const auto& entry : fs::directory_iterator(folder.path()))
        before += entry.path().filename().string().starts_with("b-") ? 1 : 0;
    REQUIRE(before > 0);
    const std::string first = test::read_file(folder.file("b-0000.png"));
    CHECK(first.substr(first.size() - 8, 4) == "IEND");
    const test::CommandResult other = run_cli(
        "render '" + test::demo_path() + "' --frames 200 --size 320x180 --resume -o '" + folder.file("b.png") + "'");
    CHECK(other.code == 1);
    CHECK(other.output.find("of something else") != std::string::npos);
    const test::CommandResult rest =
        run_cli("render '" + test::demo_path() + "' --frames 200 --size 640x360 --resume --range 0.." +
                std::to_string(before + 2) + " -o '" + folder.file("b.png") + "'");
    INFO(rest.output);
    CHECK(rest.code == 0);
    CHECK(rest.output.find("b-0000.png:") == std::string::npos);
    CHECK(fs::exists(
        folder.file("b-" + std::string(before + 2 < 10 ? "000" : "00") + std::to_string(before + 2) + ".png")));
    REQUIRE(run_cli("render '" + test::demo_path("dissolve") + "' --variant all --sizes 32x32,16x32 --at 1 -o '" +
                    folder.file("d.png") + "'")
                .code == 0);
    for (const char* name : {"d-32x32.png", "d-16x32.png", "d-cells-32x32.png", "d-wipe-16x32.png"})
        CHECK(fs::exists(folder.file(name)));
    for (const char* wrong : {"--range 5..2", "--range a..b", "--range 5", "--step-by 0", "--memory 1",
                              "--sizes 4x4 --size 5x5", "--sizes 4x4,"}) {
        INFO(wrong);
        CHECK(run_cli(words + " " + wrong).code == 1);
    }
    CHECK(run_cli("render '" + test::demo_path() + "' --resume -o '" + folder.file("x.png") + "'").code == 1);
}

TEST_CASE("a batch tells what it would do, does it, and reports what differs") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("jobs.json"), jobs_text("out"));
    const std::string words = "batch '" + folder.file("jobs.json") + "'";
    const test::CommandResult dry = run_cli(words + " --dry-run");
    INFO(dry.output);
    CHECK(dry.code == 0);
    CHECK(dry.output.find("strike-36x64") != std::string::npos);
    CHECK_FALSE(fs::exists(folder.file("out")));
    const test::CommandResult done = run_cli(words + " --report '" + folder.file("report") + "' --must-match");
    INFO(done.output);
    CHECK(done.code == 0);
    const Result<Json> report = json_from_text(test::read_file(folder.file("report.json")), "report");
    REQUIRE(report);
    CHECK(report->find("done")->flag());
    CHECK(test::read_file(folder.file("report.html")).find("data:image/png") != std::string::npos);
    // Drawn again by the same program: nothing differs.
    CHECK(run_cli(words + " --again --must-match").code == 0);
    // A constant, and it does.
    Finish changed = test::demo_finish();
    for (Coat& coat : changed.coats) {
        for (Step& step : coat.steps.own()) {
            if (step.name == "rim") step.formula += " * 0.5";
        }
    }
    const std::string there = folder.file("changed.lacquer");
    REQUIRE(save_finish(there, moved_paths(changed, test::demo_path(), there)));
    std::string jobs = jobs_text("out");
    jobs.replace(jobs.find(test::demo_path()), test::demo_path().size(), there);
    test::write_file(folder.file("jobs.json"), jobs);
    const test::CommandResult differs = run_cli(words + " --must-match --report '" + folder.file("report") + "'");
    CHECK(differs.code == 1);
    CHECK(differs.output.find("differ") != std::string::npos);
    CHECK(test::read_file(folder.file("report.html")).find("differs") != std::string::npos);
    test::write_file(folder.file("jobs.json"), "{");
    CHECK(run_cli(words).code == 1);
    CHECK(run_cli(words + " --share 9/3").code == 1);
}

TEST_CASE("every demo's batch drawn twice is the same, and a constant that was changed in one is found there alone") {
    const test::TemporaryFolder folder;
    fs::copy(LACQUER_SOURCE "/demo", folder.file("demo"), fs::copy_options::recursive);
    std::string jobs;
    for (const auto& entry : fs::directory_iterator(folder.file("demo/finishes"))) {
        if (entry.path().extension() != ".lacquer") continue;
        const std::string name = entry.path().stem().string();
        jobs += (jobs.empty() ? "" : ", ") + ("{\"name\": \"" + name + "\", \"finish\": \"demo/finishes/" + name) +
                ".lacquer\", \"frames\": 4, \"range\": [1, 2], \"sizes\": \"48x27\", \"output\": \"out/" + name +
                ".png\"}";
    }
    test::write_file(folder.file("jobs.json"), "{\"format\": 1, \"jobs\": [" + jobs + "]}");
    const std::string words =
        "batch '" + folder.file("jobs.json") + "' --must-match --report '" + folder.file("report") + "'";
    const auto differing = [&] {
        std::vector<std::string> names;
        const Result<Json> report = json_from_text(test::read_file(folder.file("report.json")), "report");
        REQUIRE(report);
        REQUIRE(report->find("tasks")->size() > 30);
        for (const Json& task : report->find("tasks")->list()) {
            if (const Json* largest = task.find("largest_difference"); largest != nullptr && largest->number() > 0)
                names.push_back(task.find("name")->text());
        }
        return names;
    };
    const test::CommandResult first = run_cli(words);
    INFO(first.output);
    REQUIRE(first.code == 0);
    const test::CommandResult second = run_cli(words + " --again");
    INFO(second.output);
    CHECK(second.code == 0);
    CHECK(differing().empty());
    const std::string changed = folder.file("demo/finishes/everyday-grade.lacquer");
    Result<OpenedFinish> opened = load_finish(changed);
    REQUIRE(opened);
    opened->finish.coats.back().steps.own().back().formula =
        "(" + opened->finish.coats.back().steps.own().back().formula + ") * 0.9";
    REQUIRE(save_finish(changed, opened->finish));
    CHECK(run_cli(words).code == 1);
    CHECK(differing() == std::vector<std::string>{"everyday-grade"});
}

TEST_CASE("the ready engines draw what one process draws") {
    const test::TemporaryFolder folder;
    const std::string cli = test::program_folder() + "/lacquer-cli";
    for (const char* name : {"one", "parallel", "make"})
        test::write_file(folder.file(name + std::string(".json")), jobs_text(name));
    REQUIRE(run_cli("batch '" + folder.file("one.json") + "'").code == 0);
    const test::CommandResult parallel =
        test::run_command("cd '" + folder.path().string() + "' && LACQUER_CLI='" + cli + "' PROCESSES=2 '" + cluster +
                          "/parallel' parallel.json 4");
    INFO(parallel.output);
    CHECK(parallel.code == 0);
    CHECK(are_alike(folder.file("one"), folder.file("parallel")));
    CHECK(fs::exists(folder.file("parallel-report.html")));
    const test::CommandResult make =
        test::run_command("make -s -f '" + cluster + "/batch.mk' -C '" + folder.path().string() +
                          "' -j2 JOBS=make.json SHARES=3 LACQUER_CLI='" + cli + "'");
    INFO(make.output);
    CHECK(make.code == 0);
    CHECK(are_alike(folder.file("one"), folder.file("make")));
    CHECK(fs::exists(folder.file("make-report.html")));
}
