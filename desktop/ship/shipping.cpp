#include "desktop/ship/shipping.h"

#include "core/ship/checklist.h"
#include "core/ship/set.h"
#include "desktop/kit/core_words.h"

namespace lacquer {

/// What was found in looking at all targets.
struct Shipping::Looked {
    std::shared_ptr<const CheckedFinish> checked;
    bool native = false;
    std::optional<Fault> refused;
    std::vector<ShipTarget> targets;
    std::string checklist;
    std::vector<ShipLimit> limits;
    SetCost frame_cost;
};

Shipping::Shipping(Models& models, QObject* parent) : QObject(parent), document_(models.document) {
    for (const ShipOutput& output : ship_outputs()) {
        targets_.emplace_back();
        targets_.back().output = &output;
        targets_.back().chosen = output.is_usual;
    }
    connect(&document_, &Document::finish_changed, this, [this] {
        look();
        emit changed();
    });
    connect(&document_, &Document::was_saved, this, [this] {
        if (choices_.keeps && !choices_.folder.isEmpty()) ship();
    });
}

ShipRequest Shipping::request() const {
    return {document_.shared_checked(), document_.path(),
            choices_.native ? PictureAccess::native : PictureAccess::exact};
}

void Shipping::set_choices(const ShipChoices& choices) {
    if (choices == choices_) return;
    choices_ = choices;
    for (ShipTarget& target : targets_)
        target.chosen = target.output->is_usual != choices_.turned.contains(qs(std::string(target.output->id)));
    look();
    emit choices_changed();
    emit changed();
}

void Shipping::toggle(std::size_t target) {
    ShipChoices choices = choices_;
    const QString id = qs(std::string(targets_[target].output->id));
    if (!choices.turned.removeOne(id)) choices.turned.append(id);
    set_choices(choices);
}

void Shipping::take(const QString& id) {
    const ShipTarget* found = target(id);
    if (found == nullptr || found->chosen) return;
    document_.say(tr("%1 is shipped, too").arg(core_words(found->output->title)));
    toggle(static_cast<std::size_t>(found - targets_.data()));
}

const ShipTarget* Shipping::target(const QString& id) const {
    for (const ShipTarget& one : targets_) {
        if (qs(std::string(one.output->id)) == id) return &one;
    }
    return nullptr;
}

void Shipping::set_shown(bool shown) {
    is_shown_ = shown;
    look();
}

// One look at a time: what has changed meanwhile is looked at when that is over.
void Shipping::look() {
    if (!is_shown_ || looking_.busy() || is_current() || document_.interacting()) return;
    const auto work = [request = request()](const Cancel& cancel, const Background::Progress&) {
        Looked looked;
        looked.checked = request.checked;
        looked.native = request.access == PictureAccess::native;
        const Result<ShipMaterial> material = ship_material(request);
        for (const ShipOutput& output : ship_outputs()) {
            ShipTarget target;
            target.output = &output;
            if (material && !cancel.requested()) {
                if (output.unless != nullptr) target.unless = output.unless(*material);
                const Result<ShippedFiles> files = target.unless.empty() && output.is_usual
                                                       ? output.write(*material, cancel)
                                                       : Result<ShippedFiles>(ShippedFiles());
                if (!files) target.fault = files.fault();
                for (const ShippedFile& file : files ? *files : ShippedFiles()) {
                    ++target.files;
                    target.bytes += file.bytes.size();
                }
            }
            looked.targets.push_back(std::move(target));
        }
        if (!material) {
            looked.refused = material.fault();
            return looked;
        }
        looked.checklist = host_checklist(*material);
        looked.limits = material->limits;
        looked.frame_cost = set_cost(*material, PassMoment::frame);
        return looked;
    };
    looking_.run<Looked>(QString(), work, [this](Looked looked) { took(std::move(looked)); });
}

void Shipping::took(Looked looked) {
    const bool same = looked.checked == looked_at_ && looked.native == looked_native_;
    looked_at_ = looked.checked;
    looked_native_ = looked.native;
    refused_ = std::move(looked.refused);
    checklist_ = qs(looked.checklist);
    limits_ = std::move(looked.limits);
    frame_cost_ = looked.frame_cost;
    for (std::size_t i = 0; i < targets_.size(); ++i) {
        const bool chosen = targets_[i].chosen;
        const std::optional<Verified> verified = same ? targets_[i].verified : std::nullopt;
        targets_[i] = std::move(looked.targets[i]);
        targets_[i].chosen = chosen;
        targets_[i].verified = verified;
    }
    emit changed();
    look();
}

std::vector<const ShipOutput*> Shipping::chosen() const {
    std::vector<const ShipOutput*> outputs;
    for (const ShipTarget& target : targets_) {
        if (target.chosen) outputs.push_back(target.output);
    }
    return outputs;
}

void Shipping::ship() {
    if (chosen().empty()) return document_.say(tr("No target is chosen"));
    using Given = Result<std::size_t>;
    const auto work = [request = request(), outputs = chosen(), folder = choices_.folder.toStdString()](
                          const Cancel& cancel, const Background::Progress& progress) -> Given {
        const Result<ShipMaterial> material = ship_material(request);
        if (!material) return material.fault();
        const Result<ShippedFiles> files =
            set_files(*material, outputs, cancel, [&](double share, const std::string&) { progress(share); });
        if (!files) return files.fault();
        if (const Result<Done> written = write_set(folder, *files); !written) return written.fault();
        return files->size();
    };
    const auto done = [this, folder = choices_.folder](const Given& given) {
        if (!given) return document_.complain(given.fault());
        document_.say(tr("Shipped %n file(s) to %1", nullptr, static_cast<int>(*given)).arg(folder));
    };
    if (!document_.background().run<Given>(tr("shipping"), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

void Shipping::verify() {
    struct Found {
        std::shared_ptr<const CheckedFinish> checked;
        bool native = false;
        std::vector<std::pair<std::string_view, Verified>> all;
    };
    using Given = Result<Found>;
    const auto work = [request = request(), outputs = chosen()](const Cancel& cancel,
                                                                const Background::Progress& progress) -> Given {
        Found found{request.checked, request.access == PictureAccess::native, {}};
        const Result<ShipMaterial> material = ship_material(request);
        if (!material) return material.fault();
        WorkerPool pool;
        const VerifyRequest asked = usual_verification(*material);
        for (std::size_t i = 0; i < outputs.size(); ++i) {
            progress(static_cast<double>(i) / static_cast<double>(outputs.size()));
            if (outputs[i]->ending.empty()) continue;
            const Result<ShippedFiles> files = outputs[i]->write(*material, cancel);
            if (!files) return files.fault();
            Verified verified;
            if (const Result<ShippedDrawer> drawer = drawer_of(*material, *outputs[i], *files)) {
                Result<Verified> drawn = verify_by(*material, *drawer, asked, pool, cancel);
                if (!drawn) return drawn.fault();
                verified = std::move(*drawn);
            } else {
                verified.drawn_by = drawer.fault().message;
            }
            found.all.emplace_back(outputs[i]->id, std::move(verified));
        }
        return found;
    };
    const auto done = [this](const Given& given) {
        if (!given) return document_.complain(given.fault());
        int differ = 0;
        int ran = 0;
        for (const auto& [id, verified] : given->all) {
            for (ShipTarget& target : targets_) {
                if (target.output->id == id && given->checked == document_.shared_checked()) target.verified = verified;
            }
            ran += verified.was_run ? 1 : 0;
            differ += verified.was_run && !verified.holds() && !given->native ? 1 : 0;
        }
        document_.say(differ > 0      ? tr("%n target(s) draw something else", nullptr, differ)
                      : given->native ? tr("%n target(s) were drawn by native reading", nullptr, ran)
                                      : tr("%n target(s) draw what the application draws", nullptr, ran));
        emit changed();
    };
    if (!document_.background().run<Given>(tr("verifying"), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

}  // namespace lacquer
