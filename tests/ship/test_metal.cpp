// Metal's language is C++: the shaders that are shipped in it are compiled with a small standard library of ours and
// run on this processor, pixel by pixel.
#include <fmt/core.h>

#include <dlfcn.h>
#include <catch2/catch.hpp>
#include <filesystem>
#include <regex>

#include "core/ship/set.h"
#include "core/ship/verify.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

struct MetalLevel {
    const float* data;
    int width, height;
};
struct MetalTexture {
    const MetalLevel* levels;
    int count;
};
using DrawMetal = void (*)(const void* block, const MetalTexture* pictures, int width, int height, float* pixels);

// Calls the entry point of a shader for every pixel, block by block of 2 x 2, so often that slopes are known.
std::string driver_of(const Shader& shader, const std::string& text) {
    std::string arguments;
    if (!shader.uniforms.empty()) arguments += ", *static_cast<const lq_values*>(block)";
    for (std::size_t k = 0; k < shader.pictures.size(); ++k) arguments += fmt::format(", pictures[{}]", k);
    for (std::size_t at = text.find("[[sampler("); at != std::string::npos; at = text.find("[[sampler(", at + 1))
        arguments += ", metal::sampler()";
    if (text.find("[[position]]") != std::string::npos) arguments += ", make_float4(x + 0.5F, y + 0.5F, 0, 1)";
    const bool has_slopes = text.find("dfd") != std::string::npos || text.find("fwidth") != std::string::npos;
    return fmt::format(R"code(
extern "C" void draw(const void* block, const metal::texture2d<float>* pictures, int width, int height, float* pixels) {{
    (void)block;
    (void)pictures;
    for (int top = 0; top < height; top += 2) for (int left = 0; left < width; left += 2) {{
        for (int turn = 0; turn < {}; ++turn) {{
            for (int k = 0; k < 4; ++k) {{
                const int x = left + (k & 1), y = top + (k >> 1);
                metal::block_of_pixels.begin(k);
                const main0_out out = main0({});
                if (x >= width || y >= height) continue;
                for (int c = 0; c < 4; ++c) pixels[4 * (y * width + x) + c] = out.lq_out_0[c];
            }}
            metal::block_of_pixels.turn();
        }}
    }}
}}
)code",
                       has_slopes ? 3 : 1, arguments.empty() ? arguments : arguments.substr(2));
}

class MetalShaders {
public:
    MetalShaders(const ShipMaterial& material, const ShippedFiles& files) {
        const ShipOutput& output = *find_ship_output("msl");
        const std::regex constructor(R"(\b(float|int|uint|bool)([234])\()");
        for (const ShippedPass& pass : material.passes) {
            std::string text;
            for (const ShippedFile& file : files) {
                if (file.path == shader_path(output, pass)) text = file.bytes;
            }
            REQUIRE_FALSE(text.empty());
            const Shader shader = shipped_shader(material, pass, Dialect::vulkan_450);
            text = std::regex_replace(text, constructor, "make_$1$2(") + driver_of(shader, text);
            const std::string source = folder_.file(pass.stem + ".cpp");
            const std::string library = folder_.file(pass.stem + ".so");
            test::write_file(source, text);
            const test::CommandResult built =
                test::run_command("clang++ -std=c++20 -O1 -ffp-contract=off -fPIC -shared -w -isystem " LACQUER_SOURCE
                                  "/tests/ship/metal_shim " +
                                  source + " -o " + library);
            if (built.code != 0) FAIL(pass.stem << "\n" << built.output.substr(0, 3000));
            void* handle = dlopen(library.c_str(), RTLD_NOW | RTLD_LOCAL);
            REQUIRE(handle != nullptr);
            draw_[pass.stem] = reinterpret_cast<DrawMetal>(dlsym(handle, "draw"));
            REQUIRE(draw_[pass.stem] != nullptr);
        }
    }

    Result<Picture> draw(const PassDrawing& drawing) const {
        const Shader shader = shipped_shader_of(drawing);
        const std::vector<std::uint8_t> block = block_bytes(shader, drawing);
        std::vector<std::vector<Picture>> wide(shader.pictures.size());
        std::vector<std::vector<MetalLevel>> levels(shader.pictures.size());
        std::vector<MetalTexture> pictures;
        for (std::size_t k = 0; k < shader.pictures.size(); ++k) {
            const auto found = drawing.pictures.find(shader.pictures[k].source);
            PictureView view = found != drawing.pictures.end() ? found->second : PictureView{};
            static constexpr std::array<float, 4> black = {0, 0, 0, 1};
            if (view.data == nullptr) view = PictureView{black.data(), 1, 1, {}, {}, 4};
            wide[k].push_back(four_channels(view));
            for (const PictureView& copy : view.smaller) wide[k].push_back(four_channels(copy));
            for (const Picture& level : wide[k]) levels[k].push_back({level.data.data(), level.width, level.height});
            pictures.push_back({levels[k].data(), static_cast<int>(levels[k].size())});
        }
        Picture drawn(drawing.width, drawing.height, 4);
        draw_.at(drawing.pass.stem)(block.data(), pictures.data(), drawing.width, drawing.height, drawn.data.data());
        return drawn;
    }

private:
    static Shader shipped_shader_of(const PassDrawing& drawing) {
        return emit_glsl(drawing.pass.pass, Dialect::vulkan_450);
    }
    static Picture four_channels(const PictureView& view) {
        Picture made(view.width, view.height, 4);
        const auto pixels = static_cast<std::size_t>(view.width) * static_cast<std::size_t>(view.height);
        const auto channels = static_cast<std::size_t>(view.channels);
        for (std::size_t i = 0; i < pixels; ++i) {
            for (std::size_t c = 0; c < 4; ++c)
                made.data[4 * i + c] = c < channels ? view.data[i * channels + c] : c == 3 ? 1.0F : 0.0F;
        }
        return made;
    }

    test::TemporaryFolder folder_;
    std::map<std::string, DrawMetal> draw_;
};

void check_metal(const std::string& name) {
    INFO(name);
    const ShipMaterial material = test::material_of(test::demo_named(name), test::demo_path(name));
    const Result<ShippedFiles> files = set_files(material, {find_ship_output("msl")});
    REQUIRE(files);
    const MetalShaders shaders(material, *files);
    const ShippedDrawer drawer{"this processor", [&](const PassDrawing& drawing) { return shaders.draw(drawing); }};
    VerifyRequest request = usual_verification(material);
    request.width /= 3;
    request.height /= 3;
    request.moments = {material.finish().length * 0.1, material.finish().length * 0.35};
    WorkerPool pool(2);
    const Result<Verified> verified = verify_by(material, drawer, request, pool, Cancel());
    if (!verified) FAIL(to_text(verified.fault()));
    CHECK(verified->holds());
    fmt::print("shipped {:<22} {:<8} {:.1e} off, {:.3f} % over an edge\n", name, "msl", verified->largest,
               100 * verified->turned_over);
}

}  // namespace

TEST_CASE("a shader and a loop in Metal's language draw what the application draws") {
    for (const char* name : {"squall-strike", "wake", "everyday-wipe"}) check_metal(name);
}

TEST_CASE("every demo in Metal's language draws what the application draws", "[.everything]") {
    for (const auto& entry : std::filesystem::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() == ".lacquer") check_metal(entry.path().stem().string());
    }
}
