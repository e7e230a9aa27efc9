// Where drops are, against textbook mechanics and a step-by-step solution of the same equations.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/droplets/motion.h"

using namespace lacquer;

// Linear drag: dv/dt = g - k v has the solution v0 e^(-k t) + g (1 - e^(-k t)) / k; any textbook of mechanics.
TEST_CASE("with drag k the speed after t is v e^(-k t), and a fall g gives g t^2 / 2") {
    for (const double k : {0.3, 2.0, 9.0}) {
        for (const double t : {0.1, 1.0, 4.0}) {
            CHECK(5 * drag_over(k, t).keeps == Approx(5 * std::exp(-k * t)));
            CHECK(drag_over(k, t).gains == Approx((1 - std::exp(-k * t)) / k));
        }
    }
    CHECK(drag_over(0, 3).falls * 2 == Approx(2 * 3 * 3 / 2.0));
    CHECK(drag_over(0, 3).gains == 3);
    CHECK(drag_over(0, 3).keeps == 1);
}

TEST_CASE("as the drag vanishes, its forms go over into those without it, without a jump") {
    for (const double age : {1e-6, 0.01, 1.0, 100.0}) {
        double last = drag_over(0, age).falls;
        for (const double k : {1e-12, 1e-7, 1e-6, 1.1e-6, 1e-5, 1e-4, 1.1e-4}) {
            const Drag over = drag_over(k, age);
            CHECK(over.falls == Approx(age * age / 2).epsilon(k * age + 1e-9));
            CHECK(over.gains == Approx(age).epsilon(k * age + 1e-9));
            CHECK(over.falls <= last * (1 + 1e-9));
            last = over.falls;
        }
    }
}

// A straightforward solver in very small steps, for the same equation: dv/dt = k (w(t) - v).
TEST_CASE("a wind that changes carries as far as when it is worked out step by step") {
    Track speed(0.5);
    speed.change(1, -2);
    speed.change(2.5, 0);
    speed.change(2.75, 3);
    const double k = 1.7;
    const Wind wind(speed, k);
    for (const double birth : {-3.0, 0.0, 0.4, 1.0, 2.6}) {
        double way = 0;
        double velocity = 0;
        const double step = 1e-5;
        double checked = birth + 0.5;
        for (double t = birth; t < birth + 3; t += step) {
            const double pull = k * (speed.value(t + step / 2) - velocity);
            way += velocity * step + pull * step * step / 2;
            velocity += pull * step;
            if (t < checked) continue;
            checked += 0.5;
            REQUIRE(wind.way(birth, t + step) == Approx(way).margin(2e-4));
            REQUIRE(wind.velocity(birth, t + step) == Approx(velocity).margin(2e-4));
        }
    }
    // In the long run a drop goes with the wind, as the difference of speeds dies away.
    CHECK(wind.velocity(0, 60) == Approx(3));
    CHECK(Wind(speed, 0).is_still());
    CHECK(Wind(Track(0), 2).is_still());
}

TEST_CASE("gusts are smooth, differ from key to key, and are nothing at whole times") {
    CHECK(gust_noise(7, 3) == 0);
    CHECK(gust_noise(7, 0.4) != gust_noise(8, 0.4));
    double largest = 0;
    for (double t = 0; t < 50; t += 0.001) {
        const double here = gust_noise(7, t);
        largest = std::max(largest, std::fabs(here));
        REQUIRE(std::fabs(gust_noise(7, t + 0.001) - here) < 0.01);
    }
    CHECK(largest > 0.3);
    CHECK(largest <= 1);
}

// A ball from rest at height h lands after sqrt(2 h / g); with a share e of its speed it leaps to e^2 h: any textbook.
TEST_CASE("what bounces lands when it should, leaps to the square of its share, and comes to rest") {
    const double g = 2;
    const double h = 1;
    const double e = 0.6;
    const double lands = std::sqrt(2 * h / g);
    CHECK(bounced({0, 0}, g, h, e, lands - 1e-9).way.y == Approx(h));
    const double up = e * g * lands / g;
    CHECK(h - bounced({0, 0}, g, h, e, lands + up).way.y == Approx(e * e * h));
    const Bounced rests = bounced({0.5, 0}, g, h, e, 100);
    CHECK(rests.way.y == Approx(h));
    CHECK(rests.velocity == Vector2{});
    CHECK(rests.way.x > 0.5);
    CHECK(bounced({0.5, 0}, g, h, e, 101).way.x == rests.way.x);
}
