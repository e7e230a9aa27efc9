// The page in a real browser, with a software driver: it starts by itself, asks for nothing, and draws what the
// application draws.
#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <sstream>

#include "core/ship/moment.h"
#include "core/ship/page/page.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// Every so many pixels are looked at, across and down: a prime, so that no pattern is missed.
constexpr int stride = 13;

// What a script gives that runs in the page: the lines that it puts into `lines`, then what the page itself says.
std::string told_by(const std::string& page, const std::string& script, const test::TemporaryFolder& folder) {
    test::write_file(folder.file("page.html"), page);
    test::write_file(folder.file("script.js"), script);
    const test::CommandResult result =
        test::run_command("timeout 120 node " LACQUER_SOURCE "/tests/ship/in_page.mjs " + folder.file("page.html") +
                          " " + folder.file("script.js") + " " + folder.file("profile"));
    if (result.code != 0) FAIL("the page failed: " << result.output.substr(0, 2000));
    return result.output;
}

std::string page_text(const ShipMaterial& material) {
    Result<std::string> page = page_of(material, Cancel());
    if (!page) FAIL(to_text(page.fault()));
    return std::move(*page);
}

// The largest difference but for so many of the pixels, and how many there were.
struct PageDifference {
    double largest = 0;
    double turned_over = 0;
};

PageDifference difference_at(const ShipMaterial& material, const std::vector<double>& moments) {
    const test::TemporaryFolder folder;
    std::string script = "const size = {};\n";
    for (const double moment : moments) {
        script += fmt::format(
            "{{ const seen = lacquer.readAt({});\n  for (let y = 0; y < seen.height; y += {}) for (let x = 0; x < "
            "seen.width; x += {}) {{ const at = 4 * (y * seen.width + x); lines.push(Array.from(seen.floats.slice(at, "
            "at "
            "+ 4)).join(' ')); }} }}\n",
            moment, stride, stride);
    }
    std::istringstream in(told_by(page_text(material), script, folder));
    WorkerPool pool(2);
    MomentSource source(material, nullptr, pool);
    std::vector<double> off;
    for (const double moment : moments) {
        const Finish& finish = material.finish();
        const Result<MomentPictures> wanted =
            source.pictures({moment, finish.frame_width, finish.frame_height}, Cancel());
        REQUIRE(wanted);
        const Picture& picture = wanted->finished.picture;
        for (int y = 0; y < picture.height; y += stride) {
            for (int x = 0; x < picture.width; x += stride) {
                std::string line;
                REQUIRE(std::getline(in, line));
                if (line.starts_with("failed") || line.starts_with("said")) FAIL(line);
                std::istringstream numbers(line);
                double furthest = 0;
                for (int c = 0; c < picture.channels; ++c) {
                    double number = 0;
                    numbers >> number;
                    furthest = std::max(furthest, std::fabs(number - static_cast<double>(picture.at(x, y)[c])));
                }
                off.push_back(furthest);
            }
        }
    }
    std::string said;
    std::getline(in, said);
    CHECK(said == "said ");
    PageDifference found;
    for (const double one : off) {
        if (one > 2e-3) {
            found.turned_over += 1.0 / static_cast<double>(off.size());
        } else {
            found.largest = std::max(found.largest, one);
        }
    }
    return found;
}

}  // namespace

TEST_CASE("the page of the strike draws what the application draws, within 2 MB") {
    const ShipMaterial material =
        test::material_of(test::demo_named("squall-strike"), test::demo_path("squall-strike"));
    CHECK(page_text(material).size() < 2'000'000);
    const PageDifference found = difference_at(material, {0, 0.9, 1.3});
    CHECK(found.largest < 1e-3);
    CHECK(found.turned_over < 2e-3);
}

// Grounds that move stand in a page as they are at the still's moment, so that what goes on from tick to tick there
// differs where it reads them.
TEST_CASE("the page of every demo draws what the application draws", "[.everything]") {
    for (const auto& entry : std::filesystem::directory_iterator(LACQUER_SOURCE "/demo/finishes")) {
        if (entry.path().extension() != ".lacquer") continue;
        const std::string name = entry.path().stem().string();
        const ShipMaterial material = test::material_of(test::demo_named(name), test::demo_path(name));
        if (!material.request.checked->ticked.empty()) continue;
        const PageDifference found = difference_at(material, {page_moment(material)});
        WARN(fmt::format("{}: largest {:.1e}, {:.3f} % over an edge", name, found.largest, 100 * found.turned_over));
        CHECK(found.turned_over < 5e-3);
    }
}

TEST_CASE("a page plays what goes on from tick to tick") {
    const ShipMaterial material = test::material_of(test::demo_named("wake"), test::demo_path("wake"));
    const PageDifference found = difference_at(material, {0.25, 0.5});
    CHECK(found.turned_over < 1e-2);
}

TEST_CASE("no text of a finish gets out of its place in a page, or asks for anything") {
    Finish finish = test::finish_of({{"shown", "vec4(uv, 0.5, 1)"}});
    finish.name = "</script><script>alert(1)//\" ' */ \n<!--";
    finish.brief = "</title></script><img src=http://192.0.2.1/x onerror=alert(1)>\xE2\x80\xA8";
    finish = test::with_dial(finish, "bold", 0, 1);
    finish.dials[0].note = "*/ </script> <!-- <script>";
    finish.dials[0].code_name = "</script>";
    finish.coats[0].steps.own()[0].note = "*/ }\n#error </script>";
    finish.frame_width = 64;
    finish.frame_height = 36;
    const ShipMaterial material = test::material_of(finish);
    const PageDifference found = difference_at(material, {0});
    CHECK(found.largest < 1e-6);
    CHECK(found.turned_over == 0);
    const test::TemporaryFolder folder;
    const std::string told =
        told_by(page_text(material),
                "lines.push(document.getElementById('name').textContent === '</script><script>alert(1)//\" \\' */ "
                "\\n<!--' ? 'named' : 'not named');\nlines.push('asked ' + "
                "performance.getEntriesByType('resource').length);",
                folder);
    CHECK(told.find("named\nasked 0") == 0);
}

TEST_CASE("droplets go on in a page as on the tape") {
    const ShipMaterial material =
        test::material_of(test::demo_named("sparks-at-the-crane"), test::demo_path("sparks-at-the-crane"));
    const PageDifference found = difference_at(material, {page_moment(material)});
    CHECK(found.turned_over < 5e-3);
    const test::TemporaryFolder folder;
    const std::string told = told_by(page_text(material), R"js(
await until(() => document.documentElement.dataset.whole === 'yes');
const sum = (seconds) => lacquer.readAt(seconds).floats.reduce((all, one) => all + one, 0);
const times = [0.5, 1.0, 1.5, 2.0].map(sum);
lines.push(new Set(times.map((each) => each.toFixed(1))).size, sum(0.5) === times[0]);
)js",
                                     folder);
    INFO(told);
    CHECK(told.find("4\ntrue\nsaid") == 0);
}

TEST_CASE("a page is played by keys") {
    const ShipMaterial material =
        test::material_of(test::demo_named("squall-strike"), test::demo_path("squall-strike"));
    const test::TemporaryFolder folder;
    const std::string told = told_by(page_text(material), R"js(
const press = (key) => document.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
const text = (id) => document.getElementById(id).textContent;
press('ArrowRight');
press('ArrowRight');
await until(() => text('clock') === '0.03 s');
press('b');
lines.push(document.getElementById('before').getAttribute('aria-pressed'));
press('b');
press('1');
lines.push(text('said'), text('play'));
await until(() => Number(document.getElementById('of-presence').value) > 0);
press(' ');
lines.push(text('play'));
document.getElementById('said').textContent = '';
)js",
                                     folder);
    INFO(told);
    CHECK(told.find("true\nhit at 0.03 s\nStop\nPlay\nsaid") == 0);
}
