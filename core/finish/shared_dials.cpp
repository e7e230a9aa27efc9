#include "core/finish/shared_dials.h"

#include <algorithm>

#include "core/base/file.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/json_tree.h"
#include "core/finish/read_play.h"
#include "core/finish/variants.h"

namespace lacquer {

namespace {

const Dial* named(const std::vector<Dial>& dials, const std::string& name) {
    const auto found = std::find_if(dials.begin(), dials.end(), [&](const Dial& d) { return d.name == name; });
    return found == dials.end() ? nullptr : &*found;
}

Fault no_such_file(const std::string& path) {
    return {"file.shape", "shared dials live in a file whose name ends in .dials", "choose such a file",
            Place{path, {}, 0, 0}, Severity::fault};
}

// What the file tells of a dial; where it stands among others is the finish's own.
Dial as_shared(Dial dial, const Dial& own) {
    dial.shared = true;
    dial.group = own.group;
    dial.formula = own.formula;
    return dial;
}

}  // namespace

bool is_shared_dials_file(std::string_view path) { return path.ends_with(".dials") && path.size() > 6; }

Result<std::vector<Dial>> load_shared_dials(const std::string& path) {
    if (!is_shared_dials_file(path)) return no_such_file(path);
    Result<std::string> text = read_whole_file(path, max_file_size);
    if (!text) return text.fault();
    Result<Json> json = json_from_text(*text, path);
    if (!json) return json.fault();
    const Place place{path, {}, 0, 0};
    Faults notices;
    Fields fields(*json, "", path, notices);
    const double format = fields.number("format", 0);
    if (format > finish_format) {
        return Fault{"file.format", "the shared dials are of a newer Lacquer", "open them with that", place,
                     Severity::fault};
    }
    if (format != finish_format || !json->contains("dials")) {
        return Fault{"file.shape", "the file does not say that it holds shared dials", "choose a .dials file", place,
                     Severity::fault};
    }
    std::vector<Dial> read;
    fields.each("dials", [&](Fields& dial) { read.push_back(read_dial(dial)); });
    return read;
}

Result<Done> save_shared_dials(const std::string& path, const std::vector<Dial>& dials) {
    if (!is_shared_dials_file(path)) return no_such_file(path);
    return write_whole_file(path, dials_to_text(dials));
}

// What a variant has of them stays its own.
Finish with_shared_dials(Finish finish, const std::vector<Dial>& shared, Faults& notices) {
    const std::string variant = finish.variant;
    finish = switch_variant(std::move(finish), "");
    for (Dial& dial : finish.dials) {
        if (!dial.shared) continue;
        if (const Dial* there = named(shared, dial.name)) {
            dial = as_shared(*there, dial);
            continue;
        }
        dial.shared = false;
        notices.push_back({"file.value", "'" + dial.name + "' is no longer among the shared dials",
                           "it is a dial of this finish again", Place{finish.shared_dials, {}, 0, 0},
                           Severity::warning});
    }
    return switch_variant(std::move(finish), variant);
}

std::vector<Dial> changed_elsewhere(const Finish& finish, const std::vector<Dial>& known, std::vector<Dial> now) {
    const std::vector<Dial> own = shared_dials_of(finish, {});
    for (Dial& dial : now) {
        const Dial* before = named(known, dial.name);
        const Dial* here = named(own, dial.name);
        if (before != nullptr && here != nullptr && *before == dial) dial = *here;
    }
    return now;
}

std::vector<Dial> shared_dials_of(const Finish& finish, std::vector<Dial> in_file) {
    const Finish plain = switch_variant(finish, "");
    for (const Dial& dial : plain.dials) {
        if (!dial.shared) continue;
        Dial bare = dial;
        bare.shared = false;
        bare.group.clear();
        bare.formula.clear();
        bare.promises.clear();
        const auto same =
            std::find_if(in_file.begin(), in_file.end(), [&](const Dial& d) { return d.name == dial.name; });
        if (same == in_file.end()) {
            in_file.push_back(std::move(bare));
        } else {
            *same = std::move(bare);
        }
    }
    return in_file;
}

Result<Finish> take_shared_dial(Finish finish, const std::vector<Dial>& shared, const std::string& name) {
    const Dial* there = named(shared, name);
    if (there == nullptr) {
        return Fault{"edit.unknown", "no shared dial is called '" + name + "'", "", Place{name, {}, 0, 0},
                     Severity::fault};
    }
    return add_dial(std::move(finish), as_shared(*there, Dial()));
}

}  // namespace lacquer
