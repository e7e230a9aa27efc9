// What is shipped of the open finish: which targets, where to, how pictures are read, and what was found of each.
#pragma once

#include <QObject>
#include <QString>
#include <optional>
#include <vector>

#include "core/ship/set_cost.h"
#include "core/ship/verify.h"
#include "desktop/document/background.h"
#include "desktop/drawing/models.h"

namespace lacquer {

/// A target as its card shows it.
struct ShipTarget {
    const ShipOutput* output = nullptr;
    bool chosen = true;
    std::size_t files = 0;
    std::size_t bytes = 0;
    std::optional<Fault> fault;  ///< why it cannot be written
    std::string unless;          ///< why this finish has no such thing
    std::optional<Verified> verified;
};

/// What a finish was shipped as last; kept between runs.
struct ShipChoices {
    QString folder;
    QStringList turned;  ///< ids of usual targets that are left out, and of others that are taken
    bool native = false;
    bool keeps = false;  ///< ships again at every save
    friend bool operator==(const ShipChoices&, const ShipChoices&) = default;
};

class Shipping : public QObject {
    Q_OBJECT

public:
    explicit Shipping(Models& models, QObject* parent = nullptr);

    const std::vector<ShipTarget>& targets() const { return targets_; }
    const ShipChoices& choices() const { return choices_; }
    void set_choices(const ShipChoices& choices);
    void toggle(std::size_t target);
    /// Chooses the target of this id, if it is not yet; says so.
    void take(const QString& id);
    /// The target of this id, or null.
    const ShipTarget* target(const QString& id) const;

    /// What the host has to supply; why nothing is shipped where that is so.
    const QString& checklist() const { return checklist_; }
    const std::optional<Fault>& refused() const { return refused_; }
    const std::vector<ShipLimit>& limits() const { return limits_; }
    const SetCost& frame_cost() const { return frame_cost_; }
    bool is_looking() const { return looking_.busy(); }
    /// Whether what is told is of the finish as it is now.
    bool is_current() const { return looked_at_ == document_.shared_checked() && looked_native_ == choices_.native; }

    /// While it is not seen nothing is worked out.
    void set_shown(bool shown);
    /// Writes the chosen targets to the folder, which must be set.
    void ship();
    /// Draws what would be written, and compares it with the application.
    void verify();

Q_SIGNALS:
    void changed();
    void choices_changed();

private:
    struct Looked;
    void look();
    void took(Looked looked);
    std::vector<const ShipOutput*> chosen() const;
    ShipRequest request() const;

    Document& document_;
    std::vector<ShipTarget> targets_;
    ShipChoices choices_;
    QString checklist_;
    std::optional<Fault> refused_;
    std::vector<ShipLimit> limits_;
    SetCost frame_cost_;
    std::shared_ptr<const CheckedFinish> looked_at_;
    bool looked_native_ = false;
    bool is_shown_ = false;
    Background looking_;
};

}  // namespace lacquer
