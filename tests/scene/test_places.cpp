// The Skerry Lamp's places: what is in them, and that they move.
#include <catch2/catch.hpp>
#include <cstring>
#include <set>

#include "core/scene/cast.h"
#include "core/scene/places.h"

using namespace lacquer;

namespace {

SceneLayers cast(const ScenePlace& place, Hour hour, double seconds, int width = 320, int height = 180) {
    WorkerPool pool(2);
    return cast_world(place.world(hour, seconds), place.camera, width, height, {true, true, true, true, true}, pool,
                      Cancel());
}

float brightest(const Picture& picture) {
    float most = 0;
    for (std::size_t i = 0; i < picture.data.size(); i += 4) most = std::max(most, picture.data[i]);
    return most;
}

double mean(const Picture& picture) {
    double sum = 0;
    for (std::size_t i = 0; i < picture.data.size(); i += 4) sum += static_cast<double>(picture.data[i + 1]);
    return sum / (static_cast<double>(picture.data.size()) / 4);
}

}  // namespace

TEST_CASE("places and hours are found by name") {
    CHECK(find_place("harbour") != nullptr);
    CHECK(find_place("lamp_room") != nullptr);
    CHECK(find_place("attic") == nullptr);
    for (const Hour hour : {Hour::day, Hour::dusk, Hour::storm}) CHECK(hour_named(name_of(hour)) == hour);
    CHECK_FALSE(hour_named("noon"));
}

TEST_CASE("every object that is named is seen, and everything seen is named") {
    for (const ScenePlace& place : scene_places()) {
        std::set<int> seen;
        for (const double seconds : {0.0, 3.0}) {
            const SceneLayers layers = cast(place, Hour::day, seconds, 640, 360);
            for (std::size_t i = 0; i < layers.id.data.size(); i += 4) seen.insert(static_cast<int>(layers.id.data[i]));
        }
        seen.erase(0);
        std::set<int> named;
        for (const SceneObject& object : place.objects) {
            named.insert(object.id);
            INFO(place.name << ": " << object.name);
            CHECK(seen.contains(object.id));
        }
        CHECK(named.size() == place.objects.size());
        for (const int id : seen) CHECK(named.contains(id));
    }
}

TEST_CASE("lamps are brighter than white, and a storm's night is darker than the day") {
    for (const ScenePlace& place : scene_places()) {
        const SceneLayers night = cast(place, Hour::storm, 0.5);
        CHECK(brightest(night.colour) > 2);
        for (const float value : night.colour.data) REQUIRE(std::isfinite(value));
        CHECK(mean(night.colour) < mean(cast(place, Hour::day, 0.5).colour));
    }
}

TEST_CASE("time moves waves, boats and the lamp's beam, and the same time is the same picture") {
    const ScenePlace place = harbour();
    const SceneLayers now = cast(place, Hour::storm, 1);
    const SceneLayers again = cast(place, Hour::storm, 1);
    CHECK(std::memcmp(now.colour.data.data(), again.colour.data.data(), now.colour.data.size() * 4) == 0);
    const SceneLayers later = cast(place, Hour::storm, 1.5);
    const auto differ = [](const Picture& a, const Picture& b) {
        int count = 0;
        for (std::size_t i = 0; i < a.data.size(); i += 4) count += a.data[i] != b.data[i] ? 1 : 0;
        return count;
    };
    CHECK(differ(now.id, later.id) > 50);
    CHECK(differ(now.depth, later.depth) > 5000);
    // The lighthouse stands still.
    CHECK(now.id.at(160, 60)[0] == later.id.at(160, 60)[0]);
}
