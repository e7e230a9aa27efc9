#include <atomic>
#include <catch2/catch.hpp>
#include <thread>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"

using namespace lacquer;

TEST_CASE("every piece is done once, for any number of threads") {
    for (const int threads : {1, 2, 5}) {
        WorkerPool pool(threads);
        CHECK(pool.size() == threads);
        std::vector<std::atomic<int>> done(1000);
        pool.run(1000, [&](int i) { ++done[static_cast<std::size_t>(i)]; });
        for (const auto& count : done) REQUIRE(count == 1);
        pool.run(0, [](int) { FAIL("there is nothing to do"); });
    }
}

TEST_CASE("jobs from several threads wait for one another") {
    WorkerPool pool(3);
    std::atomic<int> sum{0};
    std::vector<std::thread> askers;
    for (int a = 0; a < 4; ++a) {
        askers.emplace_back([&] {
            for (int n = 0; n < 50; ++n) pool.run(7, [&](int) { ++sum; });
        });
    }
    for (std::thread& asker : askers) asker.join();
    CHECK(sum == 4 * 50 * 7);
}

TEST_CASE("copies of a cancel flag speak of the same flag") {
    const Cancel flag;
    const Cancel copy = flag;
    CHECK_FALSE(copy.requested());
    flag.request();
    CHECK(copy.requested());
    CHECK_FALSE(Cancel().requested());
}
