// Threads that share out numbered pieces of work. Ours rather than a library's: pieces are taken lowest first, so that
// a picture comes from the top; the threads stand below the interface's priority; and the thread sanitizer, which sees
// nothing of libraries that were built without it, sees all of this.
#pragma once

#include <condition_variable>
#include <exception>
#include <functional>
#include <mutex>
#include <thread>
#include <vector>

namespace lacquer {

/// A fixed set of threads, one job at a time. The caller of `run` works along, so a pool of one has no thread of its
/// own.
class WorkerPool {
public:
    /// `threads` counts the caller; 0 means one a processor. The threads run below the interface's priority.
    explicit WorkerPool(int threads = 0);
    ~WorkerPool();
    WorkerPool(const WorkerPool&) = delete;
    WorkerPool& operator=(const WorkerPool&) = delete;

    /// How many threads take part, the caller included.
    int size() const { return static_cast<int>(threads_.size()) + 1; }

    /// Calls `work(i)` once for each i in [0, count), lowest first, on any of the threads; returns when all are done.
    /// Jobs from several threads wait for one another; one that a piece asks for, by way of other pools, too, is done
    /// by the thread that asks. If a piece throws, those that were not begun are left out, and the first that was
    /// thrown comes out of here when the others are done.
    void run(int count, const std::function<void(int)>& work);

private:
    void serve();
    void take_pieces(std::unique_lock<std::mutex>& lock);

    std::mutex job_;  // held for the length of one run
    std::mutex state_;
    std::condition_variable wake_;
    std::condition_variable finished_;
    const std::function<void(int)>* work_ = nullptr;
    int count_ = 0;
    int next_ = 0;
    int running_ = 0;
    std::exception_ptr thrown_;
    const void* asked_within_ = nullptr;  ///< the pieces, of this or other pools, within which the job was asked for
    bool stopping_ = false;
    std::vector<std::thread> threads_;
};

}  // namespace lacquer
