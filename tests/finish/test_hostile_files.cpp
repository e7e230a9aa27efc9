// Files that mean harm: a clear message with a place, quickly, in bounded memory.
#include <catch2/catch.hpp>
#include <chrono>

#include "core/finish/file.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

std::string id_of(const std::string& text) {
    const Result<OpenedFinish> opened = finish_from_text(text, "x");
    return opened ? "fine" : opened.fault().id;
}

}  // namespace

TEST_CASE("a truncated file is told with its line and column") {
    const std::string whole = finish_to_text(test::demo_finish());
    const Result<OpenedFinish> cut = finish_from_text(whole.substr(0, whole.size() / 2), "demo.lacquer");
    REQUIRE_FALSE(cut);
    CHECK(cut.fault().id == "file.json");
    CHECK(cut.fault().place.where == "demo.lacquer");
    CHECK(cut.fault().place.line > 5);
    const Result<OpenedFinish> wrong = finish_from_text("{\n  \"format\": 1,\n  oops\n}", "x");
    CHECK(wrong.fault().place.line == 3);
    CHECK(wrong.fault().place.column == 3);
}

TEST_CASE("every prefix of a real file is a fault or a finish") {
    const std::string whole = finish_to_text(test::demo_finish());
    for (std::size_t n = 0; n + 2 < whole.size(); n += 37) CHECK(id_of(whole.substr(0, n)) == "file.json");
}

TEST_CASE("other JSON, newer formats, endless brackets and floods of keys are refused") {
    CHECK(id_of("") == "file.json");
    CHECK(id_of("not json") == "file.json");
    CHECK(id_of("[]") == "file.shape");
    CHECK(id_of("{}") == "file.shape");
    CHECK(id_of("{\"format\": 2}") == "file.format");
    CHECK(id_of("{\"format\": 1, \"length\": 1e999}") == "file.json");
    CHECK(id_of(std::string(1000000, '[')) == "file.depth");
    CHECK(id_of(std::string("\xff\xfe\x00{", 4)) == "file.json");
    std::string keys = "{\"format\": 1";
    for (int i = 0; i < 200000; ++i) keys += ",\"k" + std::to_string(i) + "\":0";
    CHECK(id_of(keys + "}") == "file.depth");
    CHECK(finish_from_text("{\"format\": 2}", "x").fault().mend.find("newer") != std::string::npos);
}

TEST_CASE("100 MB of brackets are answered within a second") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("brackets.lacquer");
    test::write_file(path, std::string(100'000'000, '['));
    const auto begin = std::chrono::steady_clock::now();
    const Result<OpenedFinish> opened = load_finish(path);
#if defined(__SANITIZE_THREAD__) || defined(__SANITIZE_ADDRESS__)
    constexpr int slower = 10;
#else
    constexpr int slower = 1;
#endif
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(slower));
    REQUIRE_FALSE(opened);
    CHECK(opened.fault().id == "file.size");
}

TEST_CASE("missing files, folders and devices are told") {
    const test::TemporaryFolder folder;
    CHECK(load_finish(folder.file("none.lacquer")).fault().id == "file.missing");
    CHECK(load_finish(folder.path().string()).fault().id == "file.unreadable");
    CHECK(load_finish("/dev/zero").fault().id == "file.unreadable");
}

TEST_CASE("bytes turned over by chance never do more than fault") {
    const std::string whole = finish_to_text(test::demo_finish());
    std::uint32_t state = 99;
    for (int n = 0; n < 1500; ++n) {
        std::string text = whole;
        for (int k = 0; k < 3; ++k) {
            state = state * 1664525U + 1013904223U;
            text[(state >> 8U) % text.size()] = static_cast<char>(state >> 24U);
        }
        const Result<OpenedFinish> opened = finish_from_text(text, "x");
        if (opened) (void)test::checked(opened->finish);
    }
    SUCCEED();
}
