// The play link: what a game sends is played live, and recorded like what is pressed.
#pragma once

#include <QObject>
#include <QTimer>
#include <memory>

#include "core/link/receiver.h"
#include "desktop/playing/playing.h"

namespace lacquer {

class GameLink : public QObject {
    Q_OBJECT

public:
    GameLink(Document& document, Playing& playing, Clock clock, QObject* parent = nullptr);
    ~GameLink() override;

    /// Listens at a port, to this machine only unless `everywhere`. False, with the reason said, if that cannot be.
    bool listen(int port, bool everywhere = false);
    void stop_listening();
    /// Null while nothing is listened to.
    const LinkReceiver* receiver() const { return receiver_.get(); }

Q_SIGNALS:
    void changed();  ///< it listens or not, or something came

private:
    void take_arrivals();
    void tell_names();
    void answer(const std::vector<LinkArrivals::Asked>& questions);

    Document& document_;
    Playing& playing_;
    Clock clock_;
    std::unique_ptr<LinkReceiver> receiver_;
    LinkNames names_;  ///< that the receiver knows
    QTimer timer_;     ///< fetches what came, also while nothing plays
};

}  // namespace lacquer
