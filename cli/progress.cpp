#include "cli/progress.h"

#include <fmt/core.h>
#include <pthread.h>
#include <signal.h>
#include <unistd.h>

#include <cmath>

namespace lacquer::cli {

namespace {

sigset_t ending_signals() {
    sigset_t signals;
    sigemptyset(&signals);
    sigaddset(&signals, SIGINT);
    sigaddset(&signals, SIGTERM);
    return signals;
}

}  // namespace

std::string clock_text(double seconds) {
    const auto whole = static_cast<long long>(std::llround(std::fmax(0, std::fmin(seconds, 1e9))));
    return whole >= 3600 ? fmt::format("{}:{:02}:{:02}", whole / 3600, whole / 60 % 60, whole % 60)
                         : fmt::format("{}:{:02}", whole / 60, whole % 60);
}

Progress::Progress(std::size_t all) : all_(all), is_shown_(isatty(STDERR_FILENO) != 0) {}

void Progress::one_more(const std::string& words) {
    ++done_;
    const auto now = std::chrono::steady_clock::now();
    if (!is_shown_ || (now - told_ < std::chrono::milliseconds(250) && done_ < all_)) return;
    told_ = now;
    const double passed = std::chrono::duration<double>(now - begin_).count();
    const double left = passed / static_cast<double>(done_) * static_cast<double>(all_ - done_);
    fmt::print(stderr, "\r\x1b[K{} of {}, {} left  {}", done_, all_, clock_text(left), words.substr(0, 40));
}

void Progress::end() {
    if (is_shown_) fmt::print(stderr, "\r\x1b[K");
}

// Threads that are made while the signals are held back inherit that, so that only the listener hears of them.
CalledOff::CalledOff() {
    const sigset_t signals = ending_signals();
    pthread_sigmask(SIG_BLOCK, &signals, nullptr);
    listener_ = std::thread([this, signals] {
        const timespec moment{0, 50'000'000};
        while (!over_) {
            if (sigtimedwait(&signals, nullptr, &moment) > 0) cancel_.request();
        }
    });
}

CalledOff::~CalledOff() {
    over_ = true;
    listener_.join();
    const sigset_t signals = ending_signals();
    pthread_sigmask(SIG_UNBLOCK, &signals, nullptr);
}

}  // namespace lacquer::cli
