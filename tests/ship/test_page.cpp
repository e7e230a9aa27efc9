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

std::string chromium(const std::string& page, const std::string& words) {
    const test::TemporaryFolder profile;
    return "HOME=" + profile.path().string() +
           " timeout 120 chromium --headless=new --no-sandbox --disable-quic --no-first-run " +
           "--disable-background-networking --disable-component-update --disable-sync --user-data-dir=" +
           profile.file("profile") + " --use-gl=angle --use-angle=swiftshader --enable-unsafe-swiftshader " + words +
           " 'file://" + page + "#still' 2>/dev/null";
}

// What a script behind the page's own writes into it.
std::string told_by(const std::string& page, const std::string& script, const test::TemporaryFolder& folder) {
    const std::string file = folder.file("page.html");
    const std::string probe =
        "<script type=\"module\">\nconst told = document.createElement('pre');\nconst until = async (ready) => { while "
        "(!ready()) await new Promise((next) => setTimeout(next, 20)); };\nawait until(() => "
        "document.documentElement.dataset.ready === 'yes' || document.getElementById('said').textContent !== '');\n"
        "const lines = [];\ntry {\n" +
        script +
        "\n} catch (problem) { lines.push('failed ' + problem.message); }\n"
        "lines.push('said ' + document.getElementById('said').textContent);\n"
        "told.textContent = 'BEGIN\\n' + lines.join('\\n') + "
        "'\\nEND';\ndocument.body.append(told);\n</script>\n</body>";
    std::string text = page;
    text.replace(text.rfind("</body>"), 7, probe);
    test::write_file(file, text);
    const test::CommandResult result = test::run_command(chromium(file, "--virtual-time-budget=60000 --dump-dom"));
    const std::size_t begin = result.output.rfind("BEGIN\n");
    const std::size_t end = result.output.rfind("\nEND");
    if (begin == std::string::npos || end == std::string::npos)
        FAIL("no answer from the page: " << result.output.size());
    return result.output.substr(begin + 6, end - begin - 6);
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
    const std::string told = told_by(
        page_text(material),
        "lines.push(document.getElementById('name').textContent === '\\x3c/script>\\x3cscript>alert(1)//\" \\' */ "
        "\\n\\x3c!--' ? 'named' : 'not named');\nlines.push('asked ' + "
        "performance.getEntriesByType('resource').length);",
        folder);
    CHECK(told.find("named\nasked 0") == 0);
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
