// Reading and writing files, so that a slow disk holds up no picture: on threads of their own, while the window goes
// on.
#pragma once

#include <QObject>
#include <QPointer>
#include <QString>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>
#include <type_traits>
#include <utility>

namespace lacquer {

/// What is handed to it runs on another thread, and so works on copies, never on what the window holds.
class Disk : public QObject {
    Q_OBJECT

public:
    explicit Disk(QObject* parent = nullptr);
    /// What was still to be done is done first.
    ~Disk() override;

    /// Done after all that came before, as soon as it can be.
    void later(std::function<void()> work);

    /// The same; what it gives is taken here, unless `whom` is gone by then.
    template <class Work, class Take>
    void then(const QObject* whom, Work work, Take take) {
        later([this, whom = QPointer<const QObject>(whom), work = std::move(work), take = std::move(take)] {
            auto given = std::make_shared<std::invoke_result_t<const Work&>>(work());
            post([whom, take, given] {
                if (whom != nullptr) take(std::move(*given));
            });
        });
    }

    /// What `work` gives, once all before it and it are done. Until then the window is painted and time goes on, but
    /// keys and clicks wait. `words` say what is being done ("saving a.lacquer"), should it take long.
    template <class Work>
    std::invoke_result_t<const Work&> wait(const QString& words, Work work) {
        auto given = std::make_shared<std::optional<std::invoke_result_t<const Work&>>>();
        auto mark = std::make_shared<Mark>();
        later([given, mark, work = std::move(work)] {
            given->emplace(work());
            set(*mark);
        });
        until(words, *mark, false);
        return std::move(**given);
    }

    /// The same for what only reads: it doesn't wait for what is being written, and Escape calls it off. Nothing then.
    template <class Work>
    std::optional<std::invoke_result_t<const Work&>> read(const QString& words, Work work) {
        auto given = std::make_shared<std::optional<std::invoke_result_t<const Work&>>>();
        auto mark = std::make_shared<Mark>();
        std::thread reader([given, mark, work = std::move(work)] {
            given->emplace(work());
            set(*mark);
        });
        if (!until(words, *mark, true)) {
            // A disk that doesn't answer can't be waited for; what it gives in the end is thrown away.
            reader.detach();
            return std::nullopt;
        }
        reader.join();
        return std::move(*given);
    }

    /// What has been waited for so long that it should be told, and whether it can be stopped; empty if nothing has.
    const QString& words() const { return words_; }
    bool can_stop() const { return can_stop_; }

Q_SIGNALS:
    void changed();

private:
    struct Mark {
        std::mutex mutex;
        std::condition_variable done_now;
        bool done = false;
        std::function<void()> wake;  ///< whoever waits; empty if nobody does
    };

    static void set(Mark& mark);
    bool until(const QString& words, Mark& mark, bool may_stop);
    void post(std::function<void()> take);
    void work();

    std::mutex mutex_;
    std::condition_variable more_;
    std::deque<std::function<void()>> queue_;
    bool ending_ = false;
    QString words_;
    bool can_stop_ = false;
    std::thread thread_;
};

}  // namespace lacquer
