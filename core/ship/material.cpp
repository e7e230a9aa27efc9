#include "core/ship/material.h"

#include <fmt/core.h>

#include <algorithm>
#include <cctype>
#include <filesystem>
#include <system_error>

#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/render/frame.h"

namespace lacquer {

namespace {

Fault refused(const Fault& first) {
    Fault fault = first;
    fault.id = "ship.faults";
    fault.message = "a finish with faults is not shipped: " + first.message;
    return fault;
}

// The first fault that would be met in drawing it.
const Fault* first_fault(const CheckedFinish& checked) {
    if (!checked.faults.empty()) return &checked.faults.front();
    for (const CheckedDial& dial : checked.dials) {
        if (dial.fault) return &*dial.fault;
    }
    for (const CheckedStep& step : checked.steps) {
        if (step.on && step.fault) return &*step.fault;
    }
    return nullptr;
}

bool reads_derivatives(const Pass& pass) {
    bool found = false;
    const auto look = [&](const Typed& node) {
        const auto* call = node.as<BuiltinCall>();
        found = found || (call != nullptr && call->builtin >= Builtin::derivative_x &&
                          call->builtin <= Builtin::derivative_width);
    };
    for (const PassStep& step : pass.steps) visit_nodes(*step.typed, look);
    return found;
}

ShipLimit limit(const char* id, std::string message, std::string mend, std::string where = {}) {
    return {{id, std::move(message), std::move(mend), {std::move(where), {}, 0, 0}, Severity::warning}};
}

}  // namespace

std::string_view pass_moment_name(PassMoment moment) {
    switch (moment) {
        case PassMoment::start:
            return "start";
        case PassMoment::tick:
            return "tick";
        case PassMoment::frame:
            break;
    }
    return "frame";
}

std::string safe_stem(std::string_view text, std::string_view instead) {
    constexpr std::size_t longest = 48;
    std::string stem;
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        const bool is_usual = byte < 0x80 && std::isalnum(byte) != 0;
        if (is_usual && (!stem.empty() || std::isalpha(byte) != 0)) {
            stem += static_cast<char>(std::tolower(byte));
        } else if (!stem.empty() && stem.back() != '_') {
            stem += '_';
        }
        if (stem.size() == longest) break;
    }
    while (!stem.empty() && stem.back() == '_') stem.pop_back();
    return stem.empty() ? std::string(instead) : stem;
}

Result<ShipMaterial> ship_material(const ShipRequest& request) {
    const CheckedFinish& checked = *request.checked;
    if (const Fault* fault = first_fault(checked)) return refused(*fault);
    ShipMaterial material;
    material.request = request;
    material.stem = safe_stem(checked.finish->name, "finish");
    for_each_step(*checked.finish, [&](const Coat&, const Step& step) {
        if (!step.note.empty()) material.notes[step.name] = step.note;
    });
    const auto add = [&](const Plan& plan, PassMoment when) {
        for (const Pass& pass : plan.passes) {
            const std::string what = pass.outputs.empty() ? "" : pass.outputs.front();
            material.passes.push_back(
                {pass, when, fmt::format("{:02}_{}", material.passes.size() + 1, safe_stem(what, "pass"))});
        }
    };
    if (!checked.ticked.empty()) {
        add(plan_starts(checked), PassMoment::start);
        add(plan_ticks(checked), PassMoment::tick);
    }
    add(plan_for(checked, {""}), PassMoment::frame);
    if (!material.passes.empty() && material.passes.back().when == PassMoment::frame)
        material.finished = material.passes.back().pass.outputs.front();
    bool derivatives = false;
    for (const ShippedPass& shipped : material.passes) {
        derivatives = derivatives || reads_derivatives(shipped.pass);
        const std::size_t pictures = shipped_shader(material, shipped, Dialect::es_300).pictures.size();
        if (pictures <= most_shipped_pictures) continue;
        return Fault{"ship.pictures",
                     fmt::format("'{}' reads {} pictures in one go, and many devices take only {}", shipped.pass.name,
                                 pictures, most_shipped_pictures),
                     "let a step that reads some of them be read elsewhere by texture(), so that it is stored first",
                     {shipped.pass.outputs.front(), {}, 0, 0},
                     Severity::fault};
    }
    if (!checked.ticked.empty()) {
        material.limits.push_back(limit(
            "ship.ticks", "what goes on from tick to tick needs two pictures of each such step, swapped by the host",
            "draw the passes of a tick so often a second as the manifest says, however many frames are shown; or ship "
            "frames of the tape"));
        material.limits.back().instead = "frames";
    }
    if (derivatives) {
        material.limits.push_back(limit("ship.derivatives",
                                        "differences between neighbouring pixels are measured in blocks of 2 by 2",
                                        "draw at the size that is shown; another size gives other differences"));
    }
    for (const Ground& ground : checked.finish->grounds) {
        for (const std::string& path : paths_of(ground)) {
            std::error_code code;
            if (path.empty() || std::filesystem::exists(picture_path(request.finish_path, path), code)) continue;
            material.limits.push_back(limit("ship.missing",
                                            "a file of it is not there, so it is shipped as black or clear",
                                            "put it back, or choose another", ground.name));
            break;
        }
        if (ground.as<DropletsGround>() == nullptr) continue;
        material.limits.push_back(limit(
            "ship.droplets", "the pictures of its drops are the host's to draw",
            "what they are like stands in the manifest, under droplets; or ship pictures of the drops", ground.name));
        material.limits.back().instead = "drops";
    }
    return material;
}

Shader shipped_shader(const ShipMaterial& material, const ShippedPass& pass, Dialect dialect) {
    return emit_glsl(pass.pass, dialect, {material.request.access, material.notes});
}

}  // namespace lacquer
