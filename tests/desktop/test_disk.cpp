// Reading and writing files beside the window: in order, told when it takes long, called off by Escape.
#include <QLineEdit>
#include <atomic>
#include <catch2/catch.hpp>
#include <condition_variable>
#include <mutex>

#include "desktop/document/disk.h"
#include "desktop/shell/notice_bar.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A disk that answers when it is told to.
class Gate {
public:
    void open() {
        const std::lock_guard lock(mutex_);
        open_ = true;
        opened_.notify_all();
    }
    void pass() {
        std::unique_lock lock(mutex_);
        opened_.wait(lock, [this] { return open_; });
    }

private:
    std::mutex mutex_;
    std::condition_variable opened_;
    bool open_ = false;
};

}  // namespace

TEST_CASE("what is asked of the disk is done in order, and all of it before it goes") {
    std::vector<int> done;
    std::vector<int> taken;
    {
        Disk disk;
        disk.later([&] { done.push_back(1); });
        disk.then(
            &disk, [&] { return done.emplace_back(2); }, [&](int given) { taken.push_back(given); });
        CHECK(disk.wait({}, [&] { return done.size(); }) == 2);
        CHECK(QTest::qWaitFor([&] { return !taken.empty(); }, 60000));
        disk.later([&] { done.push_back(3); });
    }
    CHECK(done == std::vector<int>{1, 2, 3});
    CHECK(taken == std::vector<int>{2});
}

TEST_CASE("what a disk gives for somebody who is gone is not taken") {
    Disk disk;
    bool taken = false;
    {
        const QObject gone;
        disk.then(
            &gone, [] { return 1; }, [&](int) { taken = true; });
    }
    bool after = false;
    disk.then(
        &disk, [] { return 1; }, [&](int) { after = true; });
    CHECK(QTest::qWaitFor([&] { return after; }, 60000));
    CHECK_FALSE(taken);
}

TEST_CASE("while a slow disk writes, the window is painted, keys wait, and Escape doesn't stop it") {
    BenchWindow bench(test::demo_path());
    Disk& disk = bench.document().disk();
    auto* bar = bench.find<NoticeBar>("notice_bar");
    const auto gate = std::make_shared<Gate>();
    const std::string before = bench.document().selected();
    int told = 0;
    const auto look = QObject::connect(&disk, &Disk::changed, [&] {
        if (disk.words().isEmpty()) return;
        ++told;
        CHECK_FALSE(disk.can_stop());
        CHECK(bar->work() == QStringLiteral("saving a.lacquer …"));
        bench.key(Qt::Key_Up);
        bench.key(Qt::Key_Escape);
        CHECK_FALSE(bench.window().close());
        gate->open();
    });
    CHECK(disk.wait(QStringLiteral("saving a.lacquer"), [gate] {
        gate->pass();
        return 7;
    }) == 7);
    QObject::disconnect(look);
    CHECK(told == 1);
    CHECK(bench.document().selected() == before);
    CHECK(bar->work().isEmpty());
    bench.key(Qt::Key_Up);
    CHECK(bench.document().selected() != before);
}

TEST_CASE("Escape calls off what a disk never gives") {
    BenchWindow bench(test::demo_path());
    Disk& disk = bench.document().disk();
    const auto gate = std::make_shared<Gate>();
    const auto look = QObject::connect(&disk, &Disk::changed, [&] {
        if (disk.can_stop()) bench.key(Qt::Key_Escape);
    });
    const auto given = disk.read(QStringLiteral("opening a.lacquer"), [gate] {
        gate->pass();
        return 7;
    });
    CHECK_FALSE(given);
    gate->open();
    QObject::disconnect(look);
    CHECK(disk.read({}, [] { return 8; }) == 8);
}

TEST_CASE("play that is recorded while a finish is saved is not lost, and not taken for saved") {
    const test::TemporaryFolder folder;
    BenchWindow bench(test::demo_path());
    bench.to_save = qs(folder.file("slow.lacquer"));
    Disk& disk = bench.document().disk();
    const auto before_looking = std::make_shared<Gate>();
    const auto before_writing = std::make_shared<Gate>();
    disk.later([before_looking] { before_looking->pass(); });
    const auto look = QObject::connect(&disk, &Disk::changed, [&] {
        if (disk.words().startsWith(QStringLiteral("looking"))) {
            disk.later([before_writing] { before_writing->pass(); });
            before_looking->open();
        }
        if (!disk.words().startsWith(QStringLiteral("saving"))) return;
        Finish changed = bench.document().finish();
        changed.length = 7;
        bench.document().edit(changed, QStringLiteral("longer"));
        before_writing->open();
    });
    REQUIRE(bench.document().save_as());
    QObject::disconnect(look);
    CHECK(bench.document().finish().length == 7);
    CHECK(bench.document().edited());
    const auto read = load_finish(bench.to_save.toStdString());
    REQUIRE(read);
    CHECK(read->finish.length != 7);
    // Its pictures are named from its new place, in what was changed meanwhile as well.
    CHECK(read->finish.grounds == bench.document().finish().grounds);
    REQUIRE(bench.document().save());
    CHECK_FALSE(bench.document().edited());
}
