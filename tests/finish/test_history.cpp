#include <catch2/catch.hpp>

#include "core/finish/history.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Finish named(const std::string& name) {
    Finish finish;
    finish.name = name;
    return finish;
}

}  // namespace

TEST_CASE("undo and redo walk through the snapshots") {
    History history(named("a"));
    CHECK_FALSE(history.can_undo());
    history.record(named("b"), "to b");
    history.record(named("c"), "to c");
    CHECK(history.undo_words() == "to c");
    history.undo();
    CHECK(history.now()->name == "b");
    CHECK(history.redo_words() == "to c");
    history.undo();
    history.undo();
    CHECK(history.now()->name == "a");
    history.redo();
    history.record(named("d"), "to d");
    CHECK_FALSE(history.can_redo());
    history.undo();
    CHECK(history.now()->name == "b");
}

TEST_CASE("the moves of one drag are one change; sealing parts them") {
    History history(named("a"));
    history.record(named("b"), "drag", "dial x");
    history.record(named("c"), "drag", "dial x");
    history.record(named("d"), "drag", "dial y");
    history.seal();
    history.record(named("e"), "drag", "dial y");
    history.undo();
    CHECK(history.now()->name == "d");
    history.undo();
    CHECK(history.now()->name == "c");
    history.undo();
    CHECK(history.now()->name == "a");
}

TEST_CASE("nothing changed is nothing to undo, and the past is bounded") {
    History history(named("a"));
    history.record(named("a"), "nothing");
    CHECK_FALSE(history.can_undo());
    for (int i = 0; i < 1500; ++i) history.record(named(std::to_string(i)), "count");
    int back = 0;
    for (; history.can_undo(); ++back) history.undo();
    CHECK(back == 999);
}
