// Files of jobs: what they ask for, what is done by content, shares, and the report.
#include <catch2/catch.hpp>
#include <filesystem>
#include <map>
#include <set>

#include "core/batch/batch_report.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/json_tree.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
namespace fs = std::filesystem;

namespace {

std::vector<BatchJob> jobs_of(const std::string& jobs) {
    Result<std::vector<BatchJob>> read = jobs_from_text("{\"format\": 1, \"jobs\": [" + jobs + "]}", "jobs.json");
    if (!read) FAIL(to_text(read.fault()));
    return *read;
}

// A folder with a finish of one dial, which a batch draws at a few pixels.
class Studio {
public:
    Studio() { save("uv.x * much + time * 0.1"); }

    void save(const std::string& formula) {
        Finish finish = test::with_dial(test::finish_of({{"base", "uv.y"}, {"shown", formula}}), "much", 0, 1);
        finish.length = 1;
        finish.frame_width = 16;
        finish.frame_height = 8;
        finish.grounds.push_back(test::picture_ground("scene", "scene.png"));
        REQUIRE(save_finish(folder.file("a.lacquer"), finish));
    }

    std::vector<BatchTask> tasks(
        const std::string& jobs = R"({"name": "a", "finish": "a.lacquer", "frames": 10, "output": "out/a.png"})") {
        Result<std::vector<BatchTask>> made =
            batch_tasks(jobs_of(jobs), folder.path().string(), built_in_catalogue(), notices);
        if (!made) FAIL(to_text(made.fault()));
        return *made;
    }

    Result<Done> run(const std::vector<BatchTask>& all, const char* share = "1/1") {
        BatchOptions options;
        options.work = folder.file("work");
        options.share = *share_from(share);
        options.threads = 2;
        drawn.clear();
        return run_batch(
            all, options, [&](const BatchTask&, const SeriesFrame& frame) { drawn.insert(frame.path); }, Cancel());
    }

    BatchReport report(const std::vector<BatchTask>& all) { return report_of_batch(all, folder.file("work")); }

    test::TemporaryFolder folder;
    Faults notices;
    std::set<std::string> drawn;
};

std::map<std::string, std::string> pictures_in(const std::string& folder) {
    std::map<std::string, std::string> pictures;
    for (const auto& entry : fs::directory_iterator(folder))
        pictures[entry.path().filename().string()] = test::read_file(entry.path().string());
    return pictures;
}

}  // namespace

TEST_CASE("a job is read with all that it asks for") {
    const BatchJob job = jobs_of(
        R"({"name": "strike", "finish": "f.lacquer", "variants": ["", "night"], "tapes": "gale.tape",
            "sizes": ["1920x1080", "1080x1920"], "frames": 30, "range": [10, 20], "step_by": 2, "steps": ["a", "b"],
            "dials": {"much": 0.5, "tint": [1, 0.5, 0]}, "output": "o.exr", "bits": 32, "opacity": "straight",
            "data": true, "inspect": true, "at": 1})")[0];
    CHECK(job.variants == std::vector<std::string>{"", "night"});
    CHECK(job.tapes == std::vector<std::string>{"gale.tape"});
    CHECK(job.sizes[1] == std::pair(1080, 1920));
    CHECK(job.range == std::pair(10, 20));
    CHECK(job.step_by == 2);
    CHECK(job.dials.at("tint") == DialValue{1, 0.5, 0});
    CHECK(job.writing.options.bits == 32);
    CHECK_FALSE(job.writing.options.multiplied);
    CHECK(job.inspect);
    CHECK(jobs_of(R"({"finish": "x/strike.lacquer", "output": "o.png"})")[0].name == "strike");
}

TEST_CASE("a job that cannot be meant is refused, with what should stand there") {
    const auto fault_of = [](const std::string& jobs) {
        const auto read = jobs_from_text("{\"format\": 1, \"jobs\": [" + jobs + "]}", "jobs.json");
        REQUIRE_FALSE(read);
        return read.fault();
    };
    const std::string good = R"("finish": "f.lacquer", "output": "o.png")";
    for (const char* wrong :
         {R"("sizes": "wide")", R"("sizes": ["0x4"])", R"("sizes": ["9999999x9999999"])", R"("frames": -1)",
          R"("frames": "many")", R"("range": [5, 2])", R"("range": [1])", R"("step_by": 0)", R"("dials": {"a": "b"})",
          R"("dials": {"a": [1, 2, 3, 4]})", R"("opacity": "some")", R"("at": -2)", R"("variants": [])",
          R"("variants": [1])", R"("wat": 1)", R"("steps": 5)"}) {
        INFO(wrong);
        CHECK(fault_of("{" + good + ", " + wrong + "}").id == "jobs.value");
    }
    CHECK(fault_of(R"({"output": "o.png"})").id == "jobs.value");
    CHECK(fault_of("{" + good + "}, {" + good + "}").id == "jobs.name");
    CHECK(jobs_from_text("[]", "x").fault().id == "jobs.format");
    CHECK(jobs_from_text("{\"jobs\": []}", "x").fault().id == "jobs.format");
    CHECK(jobs_from_text("{", "x").fault().id == "file.json");
    for (const char* share : {"", "0/3", "4/3", "1", "a/b", "1/0", "-1/2", "1/2/3", "99999999999/99999999999"})
        CHECK(share_from(share).fault().id == "jobs.share");
}

TEST_CASE("tasks are checked before anything is drawn") {
    Studio studio;
    const auto fault_of = [&](const std::string& jobs) {
        const auto made =
            batch_tasks(jobs_of(jobs), studio.folder.path().string(), built_in_catalogue(), studio.notices);
        REQUIRE_FALSE(made);
        return made.fault().id;
    };
    const std::string begin = R"({"finish": "a.lacquer", )";
    CHECK(fault_of(R"({"finish": "nowhere.lacquer", "output": "o.png"})") == "file.missing");
    CHECK(fault_of(begin + R"("output": "o.txt"})") == "picture.ending");
    CHECK(fault_of(begin + R"("output": "o.png", "variants": "night"})") == "jobs.variant");
    CHECK(fault_of(begin + R"("output": "o.png", "steps": "nothing"})") == "jobs.step");
    CHECK(fault_of(begin + R"("output": "o.png", "dials": {"nothing": 1}})") == "jobs.value");
    CHECK(fault_of(begin + R"("output": "o.png", "tapes": "no.tape"})") == "file.missing");
    CHECK(fault_of(begin + R"("name": "x", "output": "o.png"}, )" + begin + R"("name": "y", "output": "./o.png"})") ==
          "jobs.output");
    studio.save("nothing_here");
    CHECK(fault_of(begin + R"("output": "o.png"})") == "lang.unknown-name");
    Finish endless = test::finish_of({{"shown", "uv.x"}});
    endless.length = 600;
    REQUIRE(save_finish(studio.folder.file("long.lacquer"), endless));
    std::string many;
    for (int i = 0; i < 20; ++i)
        many += (i > 0 ? ", " : "") + std::string(R"({"finish": "long.lacquer", "frames": 1000, "name": "n)") +
                std::to_string(i) + R"(", "output": "o)" + std::to_string(i) + R"(.png"})";
    CHECK(fault_of(many) == "jobs.frames");
}

TEST_CASE("what is done is known by content, not by dates") {
    Studio studio;
    REQUIRE(studio.run(studio.tasks()));
    CHECK(studio.drawn.size() == 11);
    REQUIRE(studio.run(studio.tasks()));
    CHECK(studio.drawn.empty());
    // The same content, another date.
    studio.save("uv.x * much + time * 0.1");
    fs::last_write_time(studio.folder.file("a.lacquer"), fs::file_time_type::clock::now() + std::chrono::hours(9));
    REQUIRE(studio.run(studio.tasks()));
    CHECK(studio.drawn.empty());
    // A frame that is gone.
    fs::remove(studio.folder.file("out/a-0003.png"));
    REQUIRE(studio.run(studio.tasks()));
    CHECK(studio.drawn == std::set<std::string>{studio.folder.file("out/a-0003.png")});
    CHECK_FALSE(studio.report(studio.tasks()).differs());
    // A constant, a file that the finish names, a tape, a size: all is drawn again.
    const std::string key = studio.tasks()[0].key;
    test::write_file(studio.folder.file("scene.png"), "no picture");
    CHECK(studio.tasks()[0].key != key);
    fs::remove(studio.folder.file("scene.png"));
    CHECK(studio.tasks()[0].key == key);
    studio.save("uv.x * much + time * 0.3");
    const auto changed = studio.tasks();
    CHECK(changed[0].key != key);
    REQUIRE(studio.run(changed));
    CHECK(studio.drawn.size() == 11);
    const BatchReport report = studio.report(changed);
    CHECK(report.is_done());
    CHECK(report.differs());
    // The first frame is at 0 s, where nothing has changed; the last differs most.
    CHECK(report.tasks[0].compared == 11);
    CHECK(report.tasks[0].differing == 10);
    CHECK(report.tasks[0].largest_at == studio.folder.file("out/a-0010.png"));
    CHECK(report.tasks[0].largest_difference > 20);
    // Records that somebody spoilt are drawn anew.
    for (const auto& entry : fs::directory_iterator(studio.folder.file("work")))
        test::write_file(entry.path().string(), "{\"key\": 5, \"frames\": [{\"frame\": -1}, 7]}");
    REQUIRE(studio.run(changed));
    CHECK(studio.drawn.size() == 11);
    CHECK_FALSE(studio.report(changed).differs());
}

TEST_CASE("shares are the whole, bit for bit, each frame in one of them, and one that died is done alone") {
    Studio studio;
    REQUIRE(fs::copy_file(test::demo_path("chimney-smoke"), studio.folder.file("smoke.lacquer")));
    const auto jobs = [](const std::string& to) {
        return R"({"name": "a", "finish": "a.lacquer", "frames": 10, "sizes": ["16x8", "8x16"], "output": ")" + to +
               R"(/a.png"}, {"name": "smoke", "finish": "smoke.lacquer", "frames": 4, "range": [0, 12], "sizes": "32x18",
                 "output": ")" +
               to + R"(/smoke.png"})";
    };
    const auto whole = studio.tasks(jobs("whole"));
    REQUIRE(studio.run(whole));
    const auto wanted = pictures_in(studio.folder.file("whole"));
    CHECK(wanted.size() == 11 + 11 + 13);
    const auto parts = studio.tasks(jobs("parts"));
    for (const int count : {1, 3, 7, 100}) {
        std::multiset<std::string> seen;
        for (int nth = 1; nth <= count; ++nth) {
            for (const BatchTask& task : share_of(parts, {nth, count})) {
                for (const SeriesFrame& frame : task.frames) seen.insert(frame.path);
            }
        }
        CHECK(seen.size() == wanted.size());
        CHECK(std::set<std::string>(seen.begin(), seen.end()).size() == wanted.size());
    }
    fs::remove_all(studio.folder.file("work"));
    for (const char* share : {"4/5", "1/5", "5/5", "2/5"}) REQUIRE(studio.run(parts, share));
    CHECK_FALSE(studio.report(parts).is_done());
    REQUIRE(studio.run(parts, "3/5"));
    CHECK(studio.report(parts).is_done());
    CHECK(pictures_in(studio.folder.file("parts")) == wanted);
    // What a later share of ticks begins from.
    CHECK(fs::exists(studio.folder.file("work/smoke.12.ticks")));
    fs::remove(studio.folder.file("parts/smoke-0012.png"));
    REQUIRE(studio.run(parts));
    CHECK(pictures_in(studio.folder.file("parts")) == wanted);
}

TEST_CASE("the report says what came of each task, whatever it is called") {
    Studio studio;
    const auto tasks = studio.tasks(
        R"({"name": "<script>'\"&/../x", "finish": "a.lacquer", "output": "out/one.png", "inspect": true})");
    CHECK_FALSE(studio.report(tasks).is_done());
    REQUIRE(studio.run(tasks));
    const BatchReport report = studio.report(tasks);
    REQUIRE(report.tasks.size() == 1);
    CHECK(report.is_done());
    CHECK(report.tasks[0].frames == 1);
    REQUIRE(report.tasks[0].inspected);
    const std::string page = page_of(report, "Night & day");
    CHECK(page.find("<script>") == std::string::npos);
    CHECK(page.find("Night &amp; day") != std::string::npos);
    CHECK(page.find("data:image/png;base64,iVBORw0KGgo") != std::string::npos);
    CHECK(page.find("http") == page.find("http-equiv"));
    const Json json = json_of(report);
    CHECK(json.find("done")->flag());
    CHECK(json.find("tasks")->list()[0].find("frames")->number() == 1);
    // Nothing was written beside the folders that were named.
    for (const auto& entry : fs::directory_iterator(studio.folder.path())) {
        const std::string name = entry.path().filename().string();
        CHECK((name == "out" || name == "work" || name == "a.lacquer"));
    }
}

TEST_CASE("what is read as jobs is what their schema allows, by another program") {
    // python3-jsonschema, which knows JSON Schema 2020-12.
    const test::TemporaryFolder folder;
    const auto allowed = [&](const std::string& jobs) {
        test::write_file(folder.file("jobs.json"), "{\"format\": 1, \"jobs\": [" + jobs + "]}");
        const std::string script =
            "import json, sys, jsonschema; jsonschema.validate(json.load(open(sys.argv[2])), "
            "json.load(open(sys.argv[1])))";
        return test::run_command("python3 -c '" + script + "' '" LACQUER_SOURCE "/docs/jobs.schema.json' '" +
                                 folder.file("jobs.json") + "'")
                   .code == 0;
    };
    const std::string begin = R"({"finish": "f.lacquer", "output": "o.png")";
    for (const char* more :
         {"", R"(, "sizes": "4x4")", R"(, "sizes": ["4x4", "8x8"], "frames": 12.5, "range": [0, 9], "step_by": 3)",
          R"(, "variants": "all", "tapes": ["", "a.tape"], "steps": ["a"], "dials": {"a": 1, "b": [1, 2, 3]})",
          R"(, "bits": 16, "opacity": "straight", "data": true, "inspect": true, "at": 2, "name": "n")",
          R"(, "wat": 1)", R"(, "frames": -1)", R"(, "variants": [])", R"(, "dials": {"a": "b"})", R"(, "step_by": 0)",
          R"(, "sizes": "wide")", R"(, "opacity": "some")", R"(, "at": -1)", R"(, "range": [1])"}) {
        const std::string job = begin + more + "}";
        INFO(job);
        CHECK(allowed(job) == static_cast<bool>(jobs_from_text("{\"format\": 1, \"jobs\": [" + job + "]}", "jobs")));
    }
}
