// Sets: what is in them, that they draw what the application draws, and that nothing of a finish gets out of its place.
#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>

#include "core/finish/json_tree.h"
#include "core/ship/checklist.h"
#include "core/ship/cross.h"
#include "core/ship/manifest.h"
#include "core/ship/set.h"
#include "core/ship/verify.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
namespace fs = std::filesystem;

namespace {

std::vector<const ShipOutput*> all_outputs() {
    std::vector<const ShipOutput*> outputs;
    for (const ShipOutput& output : ship_outputs()) outputs.push_back(&output);
    return outputs;
}

std::vector<const ShipOutput*> shader_outputs() {
    std::vector<const ShipOutput*> outputs;
    for (const ShipOutput& output : ship_outputs()) {
        if (!output.ending.empty()) outputs.push_back(&output);
    }
    return outputs;
}

ShippedFiles files_of(const ShipMaterial& material, const std::vector<const ShipOutput*>& outputs) {
    Result<ShippedFiles> files = set_files(material, outputs);
    if (!files) FAIL(to_text(files.fault()));
    return std::move(*files);
}

std::string file_named(const ShippedFiles& files, const std::string& path) {
    for (const ShippedFile& file : files) {
        if (file.path == path) return file.bytes;
    }
    FAIL("no " << path);
    return {};
}

Json parsed(const std::string& text) {
    Result<Json> json = json_from_text(text, "test");
    if (!json) FAIL(to_text(json.fault()));
    return std::move(*json);
}

// By every driver that is here; a line each for whoever reads the output.
void check_verified(const std::string& name, const ShipMaterial& material, const VerifyRequest& request) {
    WorkerPool pool(2);
    for (const ShipOutput* output : shader_outputs()) {
        INFO(name << " as " << output->id);
        const ShippedFiles files = files_of(material, {output});
        const Result<ShippedDrawer> drawer = drawer_of(material, *output, files);
        if (output->id == "msl") {
            REQUIRE_FALSE(drawer);
            CHECK(drawer.fault().id == "ship.unrun");
            continue;
        }
        if (!drawer) FAIL(to_text(drawer.fault()));
        const Result<Verified> verified = verify_by(material, *drawer, request, pool, Cancel());
        if (!verified) FAIL(to_text(verified.fault()));
        CHECK(verified->was_run);
        CHECK(verified->turned_over <= most_turned_over);
        CHECK(verified->holds());
        fmt::print("shipped {:<22} {:<8} {:.1e} off, {:.3f} % over an edge\n", name, output->id, verified->largest,
                   100 * verified->turned_over);
    }
}

VerifyRequest small_verification(const ShipMaterial& material) {
    VerifyRequest request = usual_verification(material);
    request.width = std::max(1, request.width / 2);
    request.height = std::max(1, request.height / 2);
    request.moments = {material.finish().length * 0.1, material.finish().length * 0.35};
    return request;
}

ShipMaterial demo(const std::string& name, PictureAccess access = PictureAccess::exact) {
    Result<ShipMaterial> material =
        ship_material({test::checked(test::demo_named(name)), test::demo_path(name), access});
    if (!material) FAIL(to_text(material.fault()));
    return std::move(*material);
}

}  // namespace

TEST_CASE("a shader, a loop, drops and many passes ship to every shader target as they are seen") {
    for (const char* name : {"squall-strike", "lamp-flame", "rain-on-the-pane", "captured-harbour"}) {
        const ShipMaterial material = demo(name);
        check_verified(name, material, small_verification(material));
    }
}

TEST_CASE("every demo ships to every shader target as it is seen", "[.everything]") {
    for (const auto& entry : fs::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() != ".lacquer") continue;
        const std::string name = entry.path().stem().string();
        const ShipMaterial material = demo(name);
        check_verified(name, material, small_verification(material));
    }
}

TEST_CASE("a set that draws something else is told") {
    const ShipMaterial material = demo("everyday-grade");
    const ShipOutput& output = *find_ship_output("glsl330");
    ShippedFiles files = files_of(material, {&output});
    const std::string path = shader_path(output, material.passes.back());
    for (ShippedFile& file : files) {
        if (file.path == path) file.bytes.replace(file.bytes.rfind("lq_out_0 ="), 10, "lq_out_0 = 0.9 *");
    }
    WorkerPool pool(2);
    const Result<ShippedDrawer> drawer = drawer_of(material, output, files);
    REQUIRE(drawer);
    const Result<Verified> verified = verify_by(material, *drawer, small_verification(material), pool, Cancel());
    REQUIRE(verified);
    CHECK_FALSE(verified->holds());
    const Result<ShippedDrawer> nothing = drawer_of(material, output, {});
    REQUIRE(nothing);
    const Result<Verified> missing = verify_by(material, *nothing, small_verification(material), pool, Cancel());
    REQUIRE_FALSE(missing);
    CHECK(missing.fault().id == "ship.unrun");
    Cancel stop;
    stop.request();
    CHECK_FALSE(verify_by(material, *drawer, small_verification(material), pool, stop));
}

TEST_CASE("native reading is a read a read, and how far it is off is measured") {
    const ShipMaterial native = demo("everyday-crossfade", PictureAccess::native);
    const std::string text = file_named(files_of(native, {find_ship_output("es300")}),
                                        shader_path(*find_ship_output("es300"), native.passes.back()));
    CHECK(text.find("texelFetch") == std::string::npos);
    CHECK(text.find("texture(") != std::string::npos);
    WorkerPool pool(2);
    for (const char* id : {"glsl330", "spirv"}) {
        const ShipOutput& output = *find_ship_output(id);
        const Result<ShippedDrawer> drawer = drawer_of(native, output, files_of(native, {&output}));
        REQUIRE(drawer);
        const Result<Verified> verified = verify_by(native, *drawer, small_verification(native), pool, Cancel());
        REQUIRE(verified);
        // Eight bits of the share between two pixels are what samplers are held to (Vulkan 1.0,
        // subTexelPrecisionBits is at least 4): within one part in sixteen of the step from pixel to pixel.
        CHECK(verified->largest < 0.07);
        CHECK(verified->was_run);
    }
}

TEST_CASE("a manifest names what its shaders name, where std140 puts it") {
    const ShipMaterial material = demo("squall-strike");
    const Json manifest = parsed(file_named(files_of(material, shader_outputs()), "manifest.json"));
    CHECK(manifest.find("lacquer_set")->number() == manifest_version);
    CHECK(manifest.find("cues")->list()[0].find("call")->text() == "squall_strike_cue_hit");
    CHECK(manifest.find("targets")->size() == shader_outputs().size());
    // The strike is no table of colours, so its set is no such target.
    const Json without = parsed(file_named(files_of(material, {find_ship_output("cube")}), "manifest.json"));
    CHECK(without.find("targets")->size() == 0);
    REQUIRE(manifest.find("passes")->list().size() == material.passes.size());
    for (std::size_t i = 0; i < material.passes.size(); ++i) {
        const Json& pass = manifest.find("passes")->list()[i];
        const Shader shader = shipped_shader(material, material.passes[i], Dialect::vulkan_450);
        REQUIRE(pass.find("uniforms")->list().size() == shader.uniforms.size());
        double end = 0;
        for (const Json& uniform : pass.find("uniforms")->list()) {
            const double offset = uniform.find("offset")->number();
            const std::string& type = uniform.find("type")->text();
            // OpenGL 4.5 core specification, section 7.6.2.2: scalars by 4, pairs by 8, threes and fours by 16.
            const double aligned = type == "vec2" ? 8 : type == "vec3" || type == "vec4" ? 16 : 4;
            CHECK(std::fmod(offset, aligned) == 0);
            CHECK(offset >= end);
            end = offset + (type == "vec2" ? 8 : type == "vec3" ? 12 : type == "vec4" ? 16 : 4);
        }
        CHECK(pass.find("uniform_block_size")->number() >= end);
    }
}

TEST_CASE("manifests are what their schema says, by another program") {
    // python3-jsonschema, which knows JSON Schema 2020-12.
    const test::TemporaryFolder folder;
    std::string files;
    for (const char* name : {"squall-strike", "wake", "brine-on-the-glass", "everyday-crossfade", "lamp-flame"}) {
        test::write_file(folder.file(name), file_named(files_of(demo(name), shader_outputs()), "manifest.json"));
        files += " " + folder.file(name);
    }
    const std::string script =
        "import json, sys, jsonschema; schema = json.load(open(sys.argv[1])); "
        "[jsonschema.validate(json.load(open(name)), schema) for name in sys.argv[2:]]; print('all hold')";
    const test::CommandResult checked = test::run_command("/usr/bin/python3 -c \"" + script + "\" " +
                                                          LACQUER_SOURCE "/docs/manifest.schema.json" + files);
    CHECK(checked.output == "all hold\n");
}

TEST_CASE("a finish with faults is not shipped, one without steps is") {
    const Result<ShipMaterial> refused =
        ship_material({test::checked(test::finish_of({{"a", "vec4(nothing)"}})), {}, PictureAccess::exact});
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "ship.faults");
    const ShipMaterial empty = test::material_of(Finish{});
    CHECK(files_of(empty, all_outputs()).size() > 1);
    const ShipMaterial picture = test::material_of(test::with_scene(Finish{}), test::demo_path());
    CHECK(picture.finished == "scene");
}

TEST_CASE("what a host has to know is said before anything is shipped") {
    const auto says = [](const ShipMaterial& material, std::string_view id) {
        for (const auto& [fault, instead] : material.limits) {
            CHECK(fault.severity == Severity::warning);
            CHECK_FALSE(fault.mend.empty());
            CHECK((instead.empty() || find_ship_output(instead) != nullptr));
            if (fault.id == id) return true;
        }
        return false;
    };
    CHECK(says(demo("wake"), "ship.ticks"));
    CHECK(says(demo("rain-on-the-pane"), "ship.droplets"));
    CHECK(says(test::material_of(test::finish_of({{"a", "vec4(dFdx(uv.x))"}})), "ship.derivatives"));
    Finish lost = test::finish_of({{"a", "texture(gone, uv)"}});
    lost.grounds = {test::picture_ground("gone", "gone.png")};
    CHECK(says(test::material_of(lost), "ship.missing"));
    CHECK(test::material_of(test::finish_of({{"a", "vec4(1)"}})).limits.empty());
    // What is not there ships as it is seen: black.
    check_verified("a lost picture", test::material_of(lost), {nullptr, {0}, 16, 9});
}

TEST_CASE("more pictures than devices take in one pass are refused with a mend") {
    Finish finish;
    std::string sum = "vec4(0)";
    for (int k = 0; k < 18; ++k) {
        const std::string name = "ground_" + std::to_string(k);
        finish.grounds.push_back(test::picture_ground(name, "nowhere.png"));
        sum += " + texture(" + name + ", uv)";
    }
    Finish steps = test::finish_of({{"sum", sum}});
    steps.grounds = finish.grounds;
    const Result<ShipMaterial> refused = ship_material({test::checked(steps), {}, PictureAccess::exact});
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "ship.pictures");
    CHECK_FALSE(refused.fault().mend.empty());
}

TEST_CASE("two hundred dials ship to every target") {
    std::string sum = "0.0";
    Finish finish;
    for (int k = 0; k < 200; ++k) sum += " + dial_" + std::to_string(k) + " * 0.001";
    finish = test::finish_of({{"sum", "vec4(" + sum + ")"}});
    for (int k = 0; k < 200; ++k) finish = test::with_dial(finish, "dial_" + std::to_string(k), k, 300);
    finish.frame_width = 16;
    finish.frame_height = 9;
    const ShipMaterial material = test::material_of(finish);
    check_verified("two hundred dials", material, {nullptr, {0}, 16, 9});
}

TEST_CASE("names that a language keeps for itself ship to every target") {
    Finish finish = test::finish_of({{"half", "uv.x"},
                                     {"signed", "half * 0.5"},
                                     {"fragment", "signed + 0.25"},
                                     {"float4", "vec4(fragment, line, texture2d, 1)"},
                                     {"register", "float4 * register_dial"}});
    for (const char* name : {"line", "texture2d", "register_dial"}) finish = test::with_dial(finish, name, 0.5, 1);
    check_verified("kept names", test::material_of(finish), {nullptr, {0}, 24, 16});
}

TEST_CASE("hostile texts stay in their places in every file of a set") {
    Finish finish = test::finish_of({{"shown", "vec4(uv, strength, 1)"}});
    const std::string hostile = "*/ \"'\\ ?\?/\n#error </script> \xE2\x80\xA8 ../../escaped \x01 // \xF0\x9F\x92\xA3 ";
    finish.name = hostile + "\\";
    finish.brief = hostile;
    finish = test::with_dial(finish, "strength", 0, 1);
    finish.dials[0].note = hostile;
    finish.dials[0].unit = hostile;
    finish.dials[0].code_name = hostile;
    finish.coats[0].steps.own()[0].note = hostile + "\\";
    finish.cues = {{"hit"}};
    finish.cues[0].name = "int main(void) { return 1; } /*";
    Signal signal;
    signal.name = "hull";
    signal.note = hostile;
    signal.unit = hostile;
    finish.signals = {signal};
    const ShipMaterial material = test::material_of(finish);
    const test::TemporaryFolder folder;
    const ShippedFiles files = files_of(material, all_outputs());
    REQUIRE(write_set(folder.file("set"), files));
    for (const auto& entry : fs::recursive_directory_iterator(folder.path()))
        CHECK(entry.path().string().starts_with(folder.file("set")));
    CHECK_FALSE(fs::exists(folder.path().parent_path() / "escaped"));
    check_verified("hostile texts", material, {nullptr, {0}, 24, 16});
    const test::PlayedValues wanted = test::by_application(material, {}, {0, 1});
    test::check_alike(test::by_header(material, {}, {0, 1}, "gcc -std=c99", "c"), wanted);
    test::check_alike(test::by_module(material, {}, {0, 1}), wanted);
    CHECK(parsed(file_named(files, "manifest.json")).find("name")->text() == finish.name);
    CHECK(host_checklist(material).find('\x01') == std::string::npos);
}

TEST_CASE("a set is replaced as a whole, and nothing else is") {
    const test::TemporaryFolder folder;
    const std::string set = folder.file("set");
    REQUIRE(write_set(set, {{"shaders/a.frag", "one"}, {"manifest.json", "{\"lacquer_set\": 1}"}}));
    CHECK(test::read_file(set + "/shaders/a.frag") == "one");
    REQUIRE(write_set(set + "/", {{"shaders/b.frag", "two"}, {"manifest.json", "{\"lacquer_set\": 1}"}}));
    CHECK_FALSE(fs::exists(set + "/shaders/a.frag"));
    CHECK(test::read_file(set + "/shaders/b.frag") == "two");
    // Nothing is left beside it.
    CHECK(std::distance(fs::directory_iterator(folder.path()), fs::directory_iterator()) == 1);
    const std::string other = folder.file("other");
    fs::create_directory(other);
    test::write_file(other + "/mine.txt", "keep me");
    const Result<Done> refused = write_set(other, {{"manifest.json", "{}"}});
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "ship.folder");
    CHECK(test::read_file(other + "/mine.txt") == "keep me");
    test::write_file(folder.file("file"), "keep me");
    CHECK_FALSE(write_set(folder.file("file"), {{"manifest.json", "{}"}}));
    for (const char* path : {"../a", "/a", "a/../../b", "", "a b", "..", "a/./b"})
        CHECK_FALSE(write_set(folder.file("new"), {{path, "x"}}));
    CHECK_FALSE(fs::exists(folder.file("new")));
}

TEST_CASE("what GLSL does not take is a fault, not an end") {
    const Result<CrossedShader> crossed =
        cross_shader("#version 450\nvoid main() { nonsense; }", ShaderStage::fragment);
    REQUIRE_FALSE(crossed);
    CHECK(crossed.fault().id == "ship.crossing");
    CHECK_FALSE(cross_shader("", ShaderStage::fragment));
    CHECK_FALSE(spirv_from_hlsl("float4 main() {"));
}

TEST_CASE("shipping is stopped between targets and leaves nothing") {
    Cancel stop;
    stop.request();
    const Result<ShippedFiles> files = set_files(demo("everyday-cut"), all_outputs(), stop);
    REQUIRE_FALSE(files);
    CHECK(files.fault().id == "ship.stopped");
}

TEST_CASE("lacquer-cli ships, verifies and tells what a host supplies") {
    const test::TemporaryFolder folder;
    const std::string finish = test::demo_path("squall-strike");
    const test::CommandResult shipped =
        test::run_cli("ship " + finish + " -o " + folder.file("set") + " --to glsl330 --to play --verify");
    CHECK(shipped.code == 0);
    CHECK(shipped.output.find("glsl330  verified") != std::string::npos);
    CHECK(fs::exists(folder.file("set") + "/play/squall_strike_play.h"));
    CHECK_FALSE(fs::exists(folder.file("set") + "/shaders/hlsl"));
    CHECK(test::run_cli("ship " + finish + " --checklist").output.find("squall_strike_cue_hit") != std::string::npos);
    CHECK(test::run_cli("ship " + finish + " -o x --to telegraph").code == 1);
    CHECK(test::run_cli("ship " + finish).code == 1);
    CHECK(test::run_cli("ship " + finish + " -o x --reading blurred").code == 1);
}
