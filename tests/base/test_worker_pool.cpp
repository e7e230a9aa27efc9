#include <atomic>
#include <catch2/catch.hpp>
#include <stdexcept>
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

TEST_CASE("what a piece throws comes out of the job, and the pool works on") {
    for (const int threads : {1, 3}) {
        WorkerPool pool(threads);
        std::atomic<int> begun{0};
        CHECK_THROWS_AS(pool.run(1000,
                                 [&](int i) {
                                     ++begun;
                                     if (i == 3) throw std::runtime_error("piece");
                                 }),
                        std::runtime_error);
        CHECK(begun < 1000);
        std::atomic<int> done{0};
        pool.run(10, [&](int) { ++done; });
        CHECK(done == 10);
    }
}

TEST_CASE("a job that a piece asks for is done within it, in a second pool's pieces, too") {
    WorkerPool pool(3);
    WorkerPool other(2);
    std::atomic<int> sum{0};
    pool.run(4, [&](int) { pool.run(5, [&](int i) { sum += i; }); });
    CHECK(sum == 4 * 10);
    pool.run(4, [&](int) { other.run(2, [&](int) { pool.run(3, [&](int) { ++sum; }); }); });
    CHECK(sum == 40 + 4 * 2 * 3);
}
