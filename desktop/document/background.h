// Work that takes longer than a frame: it is done on a thread of its own, says how far it has come, and can be stopped.
#pragma once

#include <QObject>
#include <QString>
#include <functional>
#include <thread>

#include "core/base/cancel.h"

namespace lacquer {

class Background : public QObject {
    Q_OBJECT

public:
    using Progress = std::function<void(double)>;

    explicit Background(QObject* parent = nullptr) : QObject(parent) {}
    /// Stops what is under way, and waits for it.
    ~Background() override;

    bool busy() const { return thread_.joinable(); }
    /// What is being done, and its share so far, 0..1.
    const QString& words() const { return words_; }
    double share() const { return share_; }
    bool can_stop() const { return can_stop_; }
    /// False if nothing that can be stopped is under way.
    bool stop();

    /// Does `work` on the thread and hands what it gives to `done` on this one. One thing at a time: false if something
    /// is under way already. What asks for no `Cancel` cannot be stopped.
    template <class Given>
    bool run(const QString& words, std::function<Given()> work, std::function<void(Given)> done) {
        const auto plain = [work = std::move(work)](const Cancel&, const Progress&) { return work(); };
        if (!run<Given>(words, plain, std::move(done))) return false;
        can_stop_ = false;
        return true;
    }
    template <class Given>
    bool run(const QString& words, std::function<Given(const Cancel&, const Progress&)> work,
             std::function<void(Given)> done) {
        if (busy()) return false;
        begin(words);
        thread_ = std::thread([this, work = std::move(work), done = std::move(done), cancel = cancel_] {
            auto given = std::make_shared<Given>(work(cancel, [this](double share) { tell(share); }));
            post([done, given] { done(std::move(*given)); });
        });
        return true;
    }

Q_SIGNALS:
    void changed();

private:
    void begin(const QString& words);
    void tell(double share);
    void post(std::function<void()> done);

    std::thread thread_;
    Cancel cancel_;
    QString words_;
    double share_ = 0;
    bool can_stop_ = true;
};

}  // namespace lacquer
