// A folder of operations holds whatever somebody puts there.
#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <filesystem>

#include "core/catalogue/catalogue.h"
#include "tests/support/temporary.h"

using namespace lacquer;

TEST_CASE("in the user's folder only plain files are read; the others are told, and the rest is there") {
    namespace fs = std::filesystem;
    const test::TemporaryFolder folder;
    const std::string good =
        "//! title Half\n//! group Own\n//! about Half of it.\n//! says half of {x}\n//! shown half(uv.x)\n"
        "//! value x 1 number : what is halved\nfloat half_of(float x) { return x * 0.5; }\n";
    std::string named = good;
    named.replace(named.find("float half_of"), 13, "float halved");
    test::write_file(folder.file("halved.glsl"), named);
    fs::create_symlink("someone@somewhere.1234", folder.file(".#halved.glsl"));
    fs::create_symlink(folder.file("round.glsl"), folder.file("round.glsl"));
    fs::create_directory(folder.file("a_folder.glsl"));
    REQUIRE(mkfifo(folder.file("pipe.glsl").c_str(), 0600) == 0);
    test::write_file(folder.file("long.glsl"), std::string(70000, ' '));
    const auto catalogue = catalogue_with_folder(folder.path().string());
    CHECK(catalogue->operations.contains("halved"));
    CHECK(catalogue->operations.contains("gaussian_blur"));
    CHECK(catalogue->faults.size() == 5);
    for (const char* odd : {"round", "a_folder", "pipe", "long"}) {
        INFO(odd);
        CHECK(catalogue->broken.contains(odd));
        CHECK_FALSE(catalogue->operations.contains(odd));
    }
    CHECK(operation_files_in(folder.file("no such folder")).empty());
}

TEST_CASE(
    "files use shared ones where they say so, each once; what is missing and circles are told with file and line") {
    const std::string head = "//! title T\n//! group G\n//! about A.\n//! says s\n//! value x 1 number : x\n";
    const OperationFile twice{"twice", "//! shared\nfloat twice(float x) { return x * 2; }\n", "twice.glsl"};
    const OperationFile four{"fourfold",
                             "//! shared\n//! uses twice\nfloat fourfold(float x) { return twice(twice(x)); }\n",
                             "fourfold.glsl"};
    const OperationFile own{
        "own", head + "//! uses twice\n//! uses fourfold\nfloat own(float x) { return fourfold(x) + twice(x); }\n",
        "own.glsl"};
    const auto catalogue = make_catalogue({twice, four, own});
    for (const Fault& fault : catalogue->faults) FAIL(to_text(fault));
    CHECK(catalogue->operations.contains("own"));
    CHECK_FALSE(catalogue->operations.contains("twice"));
    const auto fault_of = [](const std::vector<OperationFile>& files) {
        const auto made = make_catalogue(files);
        REQUIRE(made->faults.size() == 1);
        return made->faults.front();
    };
    const Fault missing = fault_of({own, twice});
    CHECK(missing.id == "operation.uses");
    CHECK(missing.place.where == "own.glsl");
    CHECK(missing.place.line == 7);
    const OperationFile round{"twice", "//! shared\n//! uses fourfold\nfloat twice(float x) { return x * 2; }\n",
                              "twice.glsl"};
    CHECK(fault_of({own, round, four}).id == "operation.uses");
    // A mistake in what is used is told where it stands.
    const OperationFile wrong{"twice", "//! shared\nfloat twice(float x) {\n    return oops;\n}\n", "twice.glsl"};
    const Fault inside = fault_of({wrong, four, own});
    CHECK(inside.place.where == "twice.glsl");
    CHECK(inside.place.line == 3);
}

TEST_CASE("an operation that is being typed reads as it would from its file") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("third.glsl"), "//! shared\nfloat third(float x) { return x / 3; }\n");
    const auto read = [&](const std::string& name, const std::string& text) {
        return operation_as_typed(folder.path().string(), {name, text, folder.file(name + ".glsl")});
    };
    const std::string head = "//! title T\n//! group G\n//! about A.\n//! says s\n//! value x 1 number : x\n";
    const auto good = read("own", head + "//! uses third\nfloat own(float x) { return third(x); }\n");
    if (!good) FAIL(to_text(good.fault()));
    REQUIRE(good->has_value());
    CHECK((*good)->arguments.size() == 1);
    CHECK((*good)->lines.size() > 6);
    const auto wrong = read("own", head + "float own(float x) { return y; }\n");
    REQUIRE_FALSE(wrong);
    CHECK(wrong.fault().place.line == 6);
    CHECK(read("own", "//! wat\n").fault().id == "operation.head");
    CHECK(read("1 own", head).fault().id == "file.name");
    const auto shared = read("third", "//! shared\nfloat third(float x) { return x; }\n");
    REQUIRE(shared);
    CHECK_FALSE(shared->has_value());
    for (const char* name : {"mine", "a_b", "x"}) {
        const auto made = read(name, operation_template(name));
        if (!made) FAIL(to_text(made.fault()));
        CHECK((*made)->name == name);
    }
    CHECK_FALSE(std::filesystem::exists(folder.file("own.glsl")));
}
