// How far long work has come, told on the error stream of a terminal; and Ctrl+C, by which it is called off.
#pragma once

#include <atomic>
#include <chrono>
#include <cstddef>
#include <string>
#include <thread>

#include "core/base/cancel.h"

namespace lacquer::cli {

/// A line that is written anew a few times a second; nothing where the error stream is no terminal.
class Progress {
public:
    explicit Progress(std::size_t all);
    /// Called by one thread at a time.
    void one_more(const std::string& words);
    /// Takes the line away.
    void end();

private:
    std::size_t all_;
    std::size_t done_ = 0;
    bool is_shown_;
    std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
    std::chrono::steady_clock::time_point told_ = begin_;
};

/// "1:02:03" or "2:03" of seconds.
std::string clock_text(double seconds);

/// While it lives, SIGINT and SIGTERM call work off instead of ending the process; to be made before threads are.
class CalledOff {
public:
    CalledOff();
    ~CalledOff();
    CalledOff(const CalledOff&) = delete;
    CalledOff& operator=(const CalledOff&) = delete;
    const Cancel& cancel() const { return cancel_; }

private:
    Cancel cancel_;
    std::atomic<bool> over_ = false;
    std::thread listener_;
};

}  // namespace lacquer::cli
