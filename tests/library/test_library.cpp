// The library as other programs use it: by the example in C and by Python, held to what lacquer-cli draws.
#include <catch2/catch.hpp>
#include <sstream>

#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::run_command;

namespace {

const std::string library = test::program_folder() + "/liblacquer.so.0";

// A library that is built with a sanitizer needs that loaded first by whoever uses it.
#if defined(__SANITIZE_ADDRESS__)
const std::string preloaded = "ASAN_OPTIONS=detect_leaks=0 LD_PRELOAD=$(cc -print-file-name=libasan.so) ";
#elif defined(__SANITIZE_THREAD__)
const std::string preloaded = "LD_PRELOAD=$(cc -print-file-name=libtsan.so) ";
#else
const std::string preloaded;
#endif

// A compiled example; once for all cases.
std::string example() {
    static const test::TemporaryFolder folder;
    const std::string program = folder.file("draw");
    if (test::run_command("test -x '" + program + "'").code == 0) return program;
    const test::CommandResult built =
        run_command("cc -std=c99 -Wall -Wextra -Wpedantic -Werror -I '" LACQUER_SOURCE "' '" LACQUER_SOURCE
                    "/examples/library/draw.c' '" +
                    library + "' -Wl,-rpath,'" + test::program_folder() + "' -o '" + program + "'");
    INFO(built.output);
    REQUIRE(built.code == 0);
    return program;
}

test::CommandResult python(const std::string& script) {
    static const test::TemporaryFolder folder;
    test::write_file(folder.file("script.py"),
                     "import sys\nsys.path.insert(0, '" LACQUER_SOURCE "/library/python')\nimport lacquer\n" + script);
    return run_command(preloaded + "LACQUER_LIBRARY='" + library + "' python3 -B '" + folder.file("script.py") + "'");
}

}  // namespace

TEST_CASE("the example in C draws what the command line draws") {
    const test::TemporaryFolder folder;
    for (const char* demo : {"squall-strike", "object-outlines", "rain-on-the-pane", "chimney-smoke"}) {
        INFO(demo);
        std::string cues;
        for (const CueKind& kind : test::demo_named(demo).cues) cues += " --cue " + kind.name + ":0.8@0.1";
        // Without a cue the command line plays the finish's own tape.
        if (cues.empty() && !test::demo_named(demo).tape.empty()) continue;
        const test::CommandResult drawn = run_command(preloaded + "'" + example() + "' '" + test::demo_path(demo) +
                                                      "' 0.7 160 90 '" + folder.file("a.ppm") + "'");
        INFO(drawn.output);
        REQUIRE(drawn.code == 0);
        REQUIRE(test::run_cli("render '" + test::demo_path(demo) + "' --at 0.7 --size 160x90" + cues + " -o '" +
                              folder.file("b.png") + "'")
                    .code == 0);
        const test::CommandResult compared = run_command("compare -metric AE '" + folder.file("a.ppm") + "' \\( '" +
                                                         folder.file("b.png") + "' -alpha off \\) null: 2>&1");
        CHECK(compared.output == "0");
    }
    CHECK(run_command(preloaded + "'" + example() + "' nowhere.lacquer 0 8 8 x.ppm").output.find("nowhere.lacquer") !=
          std::string::npos);
    CHECK(
        run_command(preloaded + "'" + example() + "' '" + test::demo_path() + "' 0 0 -1 '" + folder.file("x.ppm") + "'")
            .code == 1);
}

TEST_CASE("only the interface's symbols are seen, and they are versioned") {
    const test::CommandResult symbols =
        run_command("nm -D --defined-only '" + library + "' | awk '{print $3}' | grep -v '^LACQUER_0$'");
    REQUIRE(symbols.code == 0);
    std::size_t count = 0;
    std::istringstream lines(symbols.output);
    for (std::string line; std::getline(lines, line); ++count) {
        INFO(line);
        CHECK(line.starts_with("lacquer_"));
        CHECK(line.ends_with("@@LACQUER_0"));
    }
    CHECK(count == 21);
}

TEST_CASE("Python opens, asks, plays and draws; what goes wrong is an exception with a mend") {
    const test::CommandResult done = python(R"py(
f = lacquer.open(')py" + test::demo_path() + R"py(')
assert f.size == (1280, 720), f.size
assert f.length == 6
assert 'hit' in f.cues and 'rim' in f.steps, (f.cues, f.steps)
assert f.dials['softness']['value'] == 0.45 and not f.dials['softness']['driven'], f.dials
f.clear_tape()
rest = f.draw(0.3, 64, 36)
f.cue('hit', at=0.1, strength=0.8)
assert f.value('blow.presence', 0.05) == 0 and f.value('blow.presence', 0.3) > 0
struck = f.draw(0.3, 64, 36)
assert struck != rest and len(struck) == 64 * 36 * 4
assert f.draw(0.3, 64, 36) == struck
f.hold('softness', 0.05)
assert abs(f.value('softness', 1) - 0.05) < 1e-6
assert f.draw(0.3, 64, 36) != struck
f.let_go('softness')
assert f.draw(0.3, 64, 36) == struck
floats = f.draw(0.3, 8, 4, step='rim', floats=True)
import struct
pixel = struct.unpack('4f', floats[:16])
assert pixel[1:] == (0, 0, 1), pixel
def fault_of(work):
    try:
        work()
    except lacquer.Fault as fault:
        assert fault.mend or fault.id.startswith('file'), fault.id
        return fault.id
    raise AssertionError('no fault')
assert fault_of(lambda: f.cue('nothing', at=0)) == 'play.unknown'
assert fault_of(lambda: f.cue('hit', at=float('nan'))) == 'play.value'
assert fault_of(lambda: f.cue('hit', at=-1)) == 'play.value'
assert fault_of(lambda: f.set('nothing', 0, 1)) == 'play.unknown'
assert fault_of(lambda: f.hold('softness', [1, 2, 3, 4])) == 'library.value'
assert fault_of(lambda: f.hold('softness', [])) == 'library.value'
assert fault_of(lambda: f.draw(0, 0, 5)) == 'library.size'
assert fault_of(lambda: f.draw(0, 10**6, 1)) == 'library.size'
assert fault_of(lambda: f.draw(0, 5, 5, step='nothing')) == 'library.unknown'
assert fault_of(lambda: f.value('nothing', 0)) == 'library.unknown'
assert fault_of(lambda: f.use_variant('nothing')) == 'play.unknown'
assert fault_of(lambda: f.use_tape('/nowhere.tape')) == 'file.missing'
assert fault_of(lambda: lacquer.open('/nowhere.lacquer')) == 'file.missing'
assert fault_of(lambda: lacquer.open_text('{')) == 'file.json'
f.close()
assert fault_of(lambda: f.cue('hit', at=0)) == 'library.null'
g = lacquer.open_text('{"format": 1, "coats": [{"name": "C", "steps": [{"name": "a", "formula": "uv.x +"}]}]}')
assert fault_of(lambda: g.draw(0, 4, 4)).startswith('lang.')
d = lacquer.open(')py" + test::demo_path("dissolve") +
                                            R"py(')
plain = d.draw(1.5, 32, 32)
d.use_variant(d.variants[0])
assert d.draw(1.5, 32, 32) != plain
d.use_variant('')
assert d.draw(1.5, 32, 32) == plain
print(lacquer.version(), 'all good')
)py");
    INFO(done.output);
    CHECK(done.code == 0);
    CHECK(done.output.find("all good") != std::string::npos);
}

TEST_CASE("many threads may use the library at once, on one finish and on many") {
    const test::CommandResult done = python(R"py(
import threading
path = ')py" + test::demo_path() + R"py('
shared = lacquer.open(path)
wanted = {t: bytes(shared.draw(t / 10, 48, 27)) for t in range(6)}
wrong = []
def work(own):
    finish = lacquer.open(path) if own else shared
    for t in list(range(6)) * 3:
        if bytes(finish.draw(t / 10, 48, 27)) != wanted[t]:
            wrong.append(t)
threads = [threading.Thread(target=work, args=(i % 2 == 0,)) for i in range(8)]
for thread in threads: thread.start()
for thread in threads: thread.join()
assert not wrong, wrong
print('all good')
)py");
    INFO(done.output);
    CHECK(done.output.find("all good") != std::string::npos);
}
