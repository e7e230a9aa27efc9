#include "core/finish/variants.h"

#include <algorithm>
#include <set>
#include <utility>

#include "core/base/text.h"

namespace lacquer {

namespace {

Fault variant_fault(const char* id, const std::string& name, std::string message, std::string mend = {}) {
    return {id, std::move(message), std::move(mend), {name, {}, 0, 0}};
}

Fault unknown(const std::string& name) {
    return variant_fault("variant.unknown", name, "there is no variant '" + shown_name(name) + "'");
}

Variant* own_variant(Finish& finish, std::string_view name) {
    if (find_variant(finish, name) == nullptr) return nullptr;
    auto& all = finish.variants.own();
    return &*std::find_if(all.begin(), all.end(), [&](const Variant& each) { return each.name == name; });
}

constexpr Patches Overlay::*all_patches[] = {&Overlay::dials, &Overlay::steps, &Overlay::grounds, &Overlay::responses};

using Names = std::set<std::string, std::less<>>;

Names names_of(const Finish& finish) {
    Names names;
    for (const auto& each : finish.dials) names.insert(each.name);
    for_each_step(finish, [&](const Coat&, const Step& step) { names.insert(step.name); });
    for (const auto& each : finish.grounds) names.insert(each.name);
    for (const auto& each : finish.responses) names.insert(each.name);
    return names;
}

// The part of an overlay that concerns one thing.
Overlay part_of(const Overlay& overlay, const std::string& name) {
    Overlay part;
    for (const auto patches : all_patches) {
        const auto found = (overlay.*patches).find(name);
        if (found != (overlay.*patches).end()) (part.*patches)[name] = found->second;
    }
    return part;
}

void put_part(Overlay& overlay, const std::string& name, const Overlay& part) {
    for (const auto patches : all_patches) {
        (overlay.*patches).erase(name);
        const auto found = (part.*patches).find(name);
        if (found != (part.*patches).end()) (overlay.*patches)[name] = found->second;
    }
}

}  // namespace

Finish switch_variant(Finish finish, std::string_view name) {
    if (finish.variant == name) return finish;
    // The way back of one is its overlay again, so off and on are the same.
    const auto turn = [&](std::string_view which) {
        const Variant* variant = find_variant(finish, which);
        if (variant == nullptr) return;
        Overlay way_back;
        const Overlay overlay = variant->overlay;
        finish = with_overlay(std::move(finish), overlay, &way_back);
        own_variant(finish, which)->overlay = std::move(way_back);
    };
    turn(finish.variant);
    turn(name);
    finish.variant = find_variant(finish, name) != nullptr ? std::string(name) : std::string();
    return finish;
}

Finish into_variant(const Finish& before, Finish edited) {
    if (edited.variant.empty() || before.variant != edited.variant) return edited;
    const Variant* was = find_variant(before, before.variant);
    const Variant* now = find_variant(edited, edited.variant);
    if (was == nullptr || now == nullptr) return edited;
    const Names old_names = names_of(before);
    const Names new_names = names_of(edited);
    Overlay held = now->overlay;
    if (old_names == new_names) {
        // What the finish itself has: the edit taken back where it changed something, then the variant.
        const Overlay undone = overlay_between(edited, before);
        if (undone.empty()) return edited;
        Finish base = with_overlay(with_overlay(edited, undone), was->overlay);
        // Things that the edit left alone keep what is held of them.
        const Overlay all = overlay_between(edited, base);
        for (const auto patches : all_patches) {
            for (const auto& [name, patch] : undone.*patches) {
                const auto found = (all.*patches).find(name);
                (held.*patches).erase(name);
                if (found != (all.*patches).end()) (held.*patches)[name] = found->second;
            }
        }
    } else {
        for (const auto& entry : entries_of(held, edited)) {
            const bool was_there = old_names.contains(entry.name);
            const bool is_there = new_names.contains(entry.name);
            Overlay part = part_of(held, entry.name);
            Overlay way;
            if (was_there && !is_there) {
                // Deleted: what the variant had of it is kept, not what the finish had.
                const Finish base = with_overlay(before, part_of(was->overlay, entry.name), &way);
                put_part(held, entry.name, part_of(way, entry.name));
            } else if (!was_there && is_there && !part_of(was->overlay, entry.name).empty()) {
                // There again: the variant has its say at once.
                edited = with_overlay(std::move(edited), part, &way);
                put_part(held, entry.name, way);
            }
        }
    }
    own_variant(edited, edited.variant)->overlay = std::move(held);
    return edited;
}

Result<Finish> into_base(Finish finish, const std::string& name) {
    if (!differs_from_base(finish, name))
        return variant_fault("variant.none", name, "the variant has nothing of its own here");
    put_part(own_variant(finish, finish.variant)->overlay, name, {});
    return finish;
}

Result<Finish> follow_base(Finish finish, const std::string& name) {
    if (!differs_from_base(finish, name))
        return variant_fault("variant.none", name, "the variant has nothing of its own here");
    const Overlay part = part_of(find_variant(finish, finish.variant)->overlay, name);
    finish = with_overlay(std::move(finish), part);
    put_part(own_variant(finish, finish.variant)->overlay, name, {});
    return finish;
}

bool differs_from_base(const Finish& finish, const std::string& name) {
    const Variant* variant = find_variant(finish, finish.variant);
    return variant != nullptr && !part_of(variant->overlay, name).empty();
}

std::string free_variant_name(const Finish& finish, std::string_view typed) {
    std::string wish = identifier_from(typed);
    if (wish.empty()) wish = "variant";
    std::string name = wish;
    for (int nth = 2; find_variant(finish, name) != nullptr; ++nth) {
        const std::string end = "_" + std::to_string(nth);
        name = wish.substr(0, max_name_length - end.size()) + end;
    }
    return name;
}

Result<Finish> add_variant(Finish finish, std::string_view typed, Overlay overlay) {
    const std::string name = free_variant_name(finish, typed);
    const std::string present = finish.variant;
    finish = switch_variant(std::move(finish), "");
    Variant variant;
    variant.name = name;
    variant.overlay = std::move(overlay);
    auto& all = finish.variants.own();
    const auto after = std::find_if(all.begin(), all.end(), [&](const Variant& each) { return each.name == present; });
    all.insert(after == all.end() ? after : after + 1, std::move(variant));
    return switch_variant(std::move(finish), name);
}

Result<Finish> copy_variant(Finish finish, const std::string& name) {
    if (find_variant(finish, name) == nullptr) return unknown(name);
    Overlay overlay = overlay_of(finish, name);
    return add_variant(switch_variant(std::move(finish), name), name, std::move(overlay));
}

Result<Finish> rename_variant(Finish finish, const std::string& name, std::string_view typed) {
    Variant* variant = own_variant(finish, name);
    if (variant == nullptr) return unknown(name);
    const std::string to = identifier_from(typed);
    if (to == name) return finish;
    if (to.empty()) return variant_fault("variant.name", name, "a name needs a letter first");
    if (find_variant(finish, to) != nullptr)
        return variant_fault("variant.name", name, "there is a variant '" + shown_name(to) + "' already",
                             "choose another name");
    variant->name = to;
    if (finish.variant == name) finish.variant = to;
    return finish;
}

Result<Finish> delete_variant(Finish finish, const std::string& name) {
    if (find_variant(finish, name) == nullptr) return unknown(name);
    if (finish.variant == name) finish = switch_variant(std::move(finish), "");
    std::erase_if(finish.variants.own(), [&](const Variant& each) { return each.name == name; });
    return finish;
}

Result<Finish> move_variant(Finish finish, const std::string& name, int direction) {
    if (find_variant(finish, name) == nullptr) return unknown(name);
    auto& all = finish.variants.own();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Variant& each) { return each.name == name; });
    const std::ptrdiff_t to = found - all.begin() + direction;
    if (to < 0 || to >= static_cast<std::ptrdiff_t>(all.size()))
        return variant_fault("edit.end", name,
                             "'" + shown_name(name) + "' is " + (direction < 0 ? "first" : "last") + " already");
    std::iter_swap(found, all.begin() + to);
    return finish;
}

Result<Finish> variant_as_finish(Finish finish, const std::string& name) {
    if (find_variant(finish, name) == nullptr) return unknown(name);
    finish = switch_variant(std::move(finish), name);
    finish.name += ", " + shown_name(name);
    finish.variants = {};
    finish.variant.clear();
    return finish;
}

Finish with_variants_of(Finish finish, const Finish& other) {
    const Finish plain = switch_variant(other, "");
    const std::string present = finish.variant;
    finish = switch_variant(std::move(finish), "");
    for (const Variant& variant : plain.variants) {
        Variant brought = variant;
        brought.name = free_variant_name(finish, variant.name);
        finish.variants.push_back(std::move(brought));
    }
    return switch_variant(std::move(finish), present);
}

Overlay overlay_of(const Finish& finish, const std::string& name) {
    const Finish off = finish.variant == name ? switch_variant(finish, "") : finish;
    const Variant* variant = find_variant(off, name);
    return variant != nullptr ? variant->overlay : Overlay();
}

}  // namespace lacquer
