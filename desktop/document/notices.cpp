#include "desktop/document/notices.h"

namespace lacquer {

void Notices::add(const QString& words, Tone tone) {
    if (words.isEmpty()) return;
    const QDateTime now = QDateTime::currentDateTime();
    if (!all_.empty() && all_.front().words == words && all_.front().tone == tone) {
        ++all_.front().times;
        all_.front().at = now;
    } else {
        all_.push_front({words, tone, now});
        if (all_.size() > most) all_.pop_back();
    }
    if (tone == Tone::failed && !unseen_) unseen_ = all_.front();
}

}  // namespace lacquer
