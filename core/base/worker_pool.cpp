#include "core/base/worker_pool.h"

#include <sys/resource.h>
#include <unistd.h>

#include <algorithm>
#include <utility>

namespace lacquer {

namespace {

// The pools of which this thread does pieces at the moment, the innermost first.
struct Working {
    const WorkerPool* pool;
    const Working* outer;
};
thread_local const Working* working = nullptr;

bool works_for(const WorkerPool* pool) {
    for (const Working* each = working; each != nullptr; each = each->outer) {
        if (each->pool == pool) return true;
    }
    return false;
}

}  // namespace

WorkerPool::WorkerPool(int threads) {
    const int wanted = threads > 0 ? threads : std::max(1, static_cast<int>(std::thread::hardware_concurrency()));
    for (int i = 1; i < wanted; ++i) threads_.emplace_back([this] { serve(); });
}

WorkerPool::~WorkerPool() {
    {
        const std::lock_guard lock(state_);
        stopping_ = true;
    }
    wake_.notify_all();
    for (std::thread& thread : threads_) thread.join();
}

void WorkerPool::run(int count, const std::function<void(int)>& work) {
    if (works_for(this)) {
        for (int i = 0; i < count; ++i) work(i);
        return;
    }
    const std::lock_guard job(job_);
    std::unique_lock lock(state_);
    work_ = &work;
    count_ = count;
    next_ = 0;
    thrown_ = nullptr;
    asked_within_ = working;
    wake_.notify_all();
    take_pieces(lock);
    finished_.wait(lock, [this] { return running_ == 0; });
    work_ = nullptr;
    if (thrown_ != nullptr) std::rethrow_exception(std::exchange(thrown_, nullptr));
}

void WorkerPool::take_pieces(std::unique_lock<std::mutex>& lock) {
    while (work_ != nullptr && next_ < count_) {
        const int piece = next_++;
        const auto* work = work_;
        ++running_;
        lock.unlock();
        std::exception_ptr thrown;
        // A piece stands within the pieces that its job was asked for from, whichever thread does it.
        const Working inside{this, static_cast<const Working*>(asked_within_)};
        const Working* const outside = std::exchange(working, &inside);
        try {
            (*work)(piece);
        } catch (...) {
            thrown = std::current_exception();
        }
        working = outside;
        lock.lock();
        --running_;
        if (thrown == nullptr) continue;
        if (thrown_ == nullptr) thrown_ = thrown;
        next_ = count_;
    }
    if (running_ == 0) finished_.notify_all();
}

void WorkerPool::serve() {
    // On Linux a thread id is enough for a priority of its own; a refusal only costs smoothness.
    (void)setpriority(PRIO_PROCESS, static_cast<id_t>(gettid()), 5);
    std::unique_lock lock(state_);
    for (;;) {
        wake_.wait(lock, [this] { return stopping_ || (work_ != nullptr && next_ < count_); });
        if (stopping_) return;
        take_pieces(lock);
    }
}

}  // namespace lacquer
