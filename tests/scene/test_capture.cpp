// Layered files: our own read back bit for bit, and those that OpenEXR's own library writes.
#include <ImfArray.h>
#include <ImfChannelList.h>
#include <ImfFrameBuffer.h>
#include <ImfHeader.h>
#include <ImfMultiPartOutputFile.h>
#include <ImfOutputFile.h>
#include <ImfOutputPart.h>
#include <ImfPartType.h>
#include <half.h>

#include <catch2/catch.hpp>
#include <cstring>

#include "core/scene/capture.h"
#include "core/scene/places.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

constexpr int wide = 37;
constexpr int high = 21;

SceneLayers small_scene() {
    WorkerPool pool(1);
    const ScenePlace place = harbour();
    return cast_world(place.world(Hour::storm, 0.7), place.camera, wide, high, {true, true, true, true, true}, pool,
                      Cancel());
}

bool first_parts_equal(const Picture& a, const Picture& b, int parts) {
    if (a.width != b.width || a.height != b.height) return false;
    for (int y = 0; y < a.height; ++y) {
        for (int x = 0; x < a.width; ++x) {
            if (std::memcmp(a.at(x, y), b.at(x, y), sizeof(float) * static_cast<std::size_t>(parts)) != 0) return false;
        }
    }
    return true;
}

float value_at(int x, int y, int channel) { return static_cast<float>(x * 0.25 + y * 2 + channel * 100); }

// Fills a frame buffer's channel from a function of place.
template <class T>
struct Plane {
    std::vector<T> data;
    int left;
    int top;
    int width;
    Plane(const Imath::Box2i& window, int channel)
        : left(window.min.x), top(window.min.y), width(window.max.x - window.min.x + 1) {
        for (int y = window.min.y; y <= window.max.y; ++y) {
            for (int x = window.min.x; x <= window.max.x; ++x) data.push_back(static_cast<T>(value_at(x, y, channel)));
        }
    }
    Imf::Slice slice(Imf::PixelType type) {
        char* origin = reinterpret_cast<char*>(data.data()) -
                       (static_cast<std::ptrdiff_t>(top) * width + left) * static_cast<std::ptrdiff_t>(sizeof(T));
        return {type, origin, sizeof(T), sizeof(T) * static_cast<std::size_t>(width)};
    }
};

}  // namespace

TEST_CASE("a capture that was written comes back bit for bit") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("scene with an ü.exr");
    const SceneLayers scene = small_scene();
    REQUIRE(write_capture(path, scene));
    const auto layers = picture_layers(path);
    REQUIRE(layers);
    const CaptureLayers found = found_layers(*layers, {});
    CHECK(found == CaptureLayers{"", "Z", "N", "P", "id"});
    CHECK(first_parts_equal(*read_layer(path, found.colour), scene.colour, 4));
    CHECK(first_parts_equal(*read_layer(path, found.depth), scene.depth, 1));
    CHECK(first_parts_equal(*read_layer(path, found.normal), scene.normal, 3));
    CHECK(first_parts_equal(*read_layer(path, found.position), scene.position, 3));
    CHECK(first_parts_equal(*read_layer(path, found.id), scene.id, 1));
    CHECK(read_layer(path, "motion").fault().id == "picture.layer");
}

TEST_CASE("with colours in 16 bits all else stays bit for bit") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("half.exr");
    const SceneLayers scene = small_scene();
    REQUIRE(write_capture(path, scene, CaptureBits::half_colours));
    CHECK(first_parts_equal(*read_layer(path, "Z"), scene.depth, 1));
    CHECK(first_parts_equal(*read_layer(path, "P"), scene.position, 3));
    CHECK(first_parts_equal(*read_layer(path, "id"), scene.id, 1));
    const Result<Picture> colour = read_layer(path, "");
    REQUIRE(colour);
    CHECK_FALSE(first_parts_equal(*colour, scene.colour, 3));
    for (int y = 0; y < scene.colour.height; ++y) {
        for (int x = 0; x < scene.colour.width; ++x) {
            for (int c = 0; c < 3; ++c) {
                // 11 bits of a number: half a step is 2^-11 of it (IEEE 754, binary16).
                CHECK(colour->at(x, y)[c] == Approx(scene.colour.at(x, y)[c]).epsilon(0.0005).margin(1e-7));
            }
        }
    }
}

TEST_CASE("OpenEXR's own library: half colours, float depth, whole ids, a data window beyond the display window") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("shot.exr");
    const Imath::Box2i display(Imath::V2i(0, 0), Imath::V2i(wide - 1, high - 1));
    const Imath::Box2i data(Imath::V2i(-3, 2), Imath::V2i(wide - 5, high + 4));
    Imf::Header header(display, data);
    Plane<half> red(data, 0);
    Plane<half> green(data, 1);
    Plane<half> blue(data, 2);
    Plane<float> depth(data, 3);
    Plane<float> facing(data, 4);
    Plane<std::uint32_t> ids(data, 5);
    Imf::FrameBuffer buffer;
    const auto add = [&](const char* name, Imf::PixelType type, Imf::Slice slice) {
        header.channels().insert(name, Imf::Channel(type));
        buffer.insert(name, slice);
    };
    add("R", Imf::HALF, red.slice(Imf::HALF));
    add("G", Imf::HALF, green.slice(Imf::HALF));
    add("B", Imf::HALF, blue.slice(Imf::HALF));
    add("Z", Imf::FLOAT, depth.slice(Imf::FLOAT));
    add("normal.X", Imf::FLOAT, facing.slice(Imf::FLOAT));
    add("normal.Y", Imf::FLOAT, facing.slice(Imf::FLOAT));
    add("normal.Z", Imf::FLOAT, facing.slice(Imf::FLOAT));
    add("objectid", Imf::UINT, ids.slice(Imf::UINT));
    {
        Imf::OutputFile file(path.c_str(), header);
        file.setFrameBuffer(buffer);
        file.writePixels(data.max.y - data.min.y + 1);
    }
    const auto layers = picture_layers(path);
    REQUIRE(layers);
    const CaptureLayers found = found_layers(*layers, {});
    CHECK(found == CaptureLayers{"", "Z", "normal", no_layer, "objectid"});
    const Picture colour = *read_layer(path, found.colour);
    const Picture far = *read_layer(path, found.depth);
    const Picture id = *read_layer(path, found.id);
    CHECK(colour.width == wide);
    CHECK(colour.height == high);
    for (int y = 0; y < high; ++y) {
        for (int x = 0; x < wide; ++x) {
            INFO(x << ", " << y);
            const bool held = x <= wide - 5 && y >= 2;
            CHECK(colour.at(x, y)[1] == (held ? static_cast<float>(half(value_at(x, y, 1))) : 0.0F));
            CHECK(colour.at(x, y)[3] == (held ? 1.0F : 0.0F));
            CHECK(far.at(x, y)[0] == (held ? value_at(x, y, 3) : 0.0F));
            CHECK(id.at(x, y)[0] == (held ? std::floor(value_at(x, y, 5)) : 0.0F));
        }
    }
}

TEST_CASE("OpenEXR's own library: a file of several parts, each a layer by its name") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("parts.exr");
    const Imath::Box2i window(Imath::V2i(0, 0), Imath::V2i(wide - 1, high - 1));
    std::vector<Imf::Header> headers;
    const auto part = [&](const char* name, std::initializer_list<const char*> channels) {
        Imf::Header header(window, window);
        header.setName(name);
        header.setType(Imf::SCANLINEIMAGE);
        for (const char* channel : channels) header.channels().insert(channel, Imf::Channel(Imf::FLOAT));
        headers.push_back(header);
    };
    part("beauty", {"R", "G", "B", "A"});
    part("depth", {"Z"});
    part("world", {"X", "Y", "Z"});
    std::vector<Plane<float>> planes;
    planes.reserve(8);
    {
        Imf::MultiPartOutputFile file(path.c_str(), headers.data(), static_cast<int>(headers.size()));
        int number = 0;
        for (int p = 0; p < 3; ++p) {
            Imf::FrameBuffer buffer;
            for (auto channel = headers[static_cast<std::size_t>(p)].channels().begin();
                 channel != headers[static_cast<std::size_t>(p)].channels().end(); ++channel) {
                // Opacity is 1, so that colours are the same straight or not.
                planes.emplace_back(window, number++);
                if (std::strcmp(channel.name(), "A") == 0)
                    std::fill(planes.back().data.begin(), planes.back().data.end(), 1.0F);
                buffer.insert(channel.name(), planes.back().slice(Imf::FLOAT));
            }
            Imf::OutputPart out(file, p);
            out.setFrameBuffer(buffer);
            out.writePixels(high);
        }
    }
    const auto layers = picture_layers(path);
    REQUIRE(layers);
    REQUIRE(layers->size() == 3);
    const CaptureLayers found = found_layers(*layers, {});
    CHECK(found == CaptureLayers{"beauty", "depth", no_layer, "world", no_layer});
    // The library writes channels by name: A B G R, then Z, then X Y Z.
    CHECK(read_layer(path, "beauty")->at(5, 4)[0] == value_at(5, 4, 3));
    CHECK(read_layer(path, "depth")->at(5, 4)[0] == value_at(5, 4, 4));
    CHECK(read_layer(path, "world")->at(5, 4)[0] == value_at(5, 4, 5));
    CHECK(read_layer(path, "world")->at(5, 4)[2] == value_at(5, 4, 7));
}

TEST_CASE("layers named by hand stand, and a plain picture is a scene without depth") {
    const std::vector<PictureLayer> layers{{"", {"R", "G", "B"}, 8, 8}, {"mist", {"mist"}, 8, 8}, {"Z", {"Z"}, 8, 8}};
    CaptureLayers chosen;
    chosen.depth = "mist";
    chosen.id = no_layer;
    CHECK(found_layers(layers, chosen) == CaptureLayers{"", "mist", no_layer, no_layer, no_layer});
    CHECK(found_layers({{"", {"R", "G", "B"}, 8, 8}}, {}).depth == no_layer);
    CHECK(found_layers({{"layer one", {"layer one.R"}, 8, 8}}, {}).colour == "layer one");
}

TEST_CASE("broken layered files give a fault and nothing else") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("cut.exr");
    REQUIRE(write_capture(path, small_scene()));
    const std::string whole = test::read_file(path);
    for (const std::size_t kept :
         {std::size_t{0}, std::size_t{3}, std::size_t{40}, whole.size() / 2, whole.size() - 9}) {
        test::write_file(path, whole.substr(0, kept));
        const auto layers = picture_layers(path);
        if (layers) {
            for (const PictureLayer& layer : *layers) {
                const auto read = read_layer(path, layer.name);
                if (!read) CHECK(read.fault().id == "picture.unreadable");
            }
        } else {
            CHECK(layers.fault().id == "picture.unreadable");
        }
    }
    CHECK(picture_layers(folder.file("nowhere.exr")).fault().id == "picture.missing");
}
