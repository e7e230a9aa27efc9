// What was said to the user: the last of it stays readable, and a failure stays until it is seen.
#pragma once

#include <QDateTime>
#include <QString>
#include <deque>
#include <optional>

namespace lacquer {

/// Whether something was done, or went wrong and is to stay until somebody has seen it.
enum class Tone { done, failed };

struct Notice {
    QString words;
    Tone tone = Tone::done;
    QDateTime at;
    int times = 1;  ///< it was said in a row
};

class Notices {
public:
    static constexpr std::size_t most = 200;

    void add(const QString& words, Tone tone);
    /// Newest first.
    const std::deque<Notice>& all() const { return all_; }
    /// The oldest failure that nobody has seen yet.
    const std::optional<Notice>& unseen() const { return unseen_; }
    void see() { unseen_.reset(); }

private:
    std::deque<Notice> all_;
    std::optional<Notice> unseen_;
};

}  // namespace lacquer
