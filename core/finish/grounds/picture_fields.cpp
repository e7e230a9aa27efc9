#include "core/finish/grounds/picture_fields.h"

#include "core/finish/json_fields.h"
#include "core/finish/kinds.h"

namespace lacquer {

Sampling read_sampling(Fields& fields) {
    const auto wrap = wrap_named(fields.text("wrap", "clamp"));
    if (!wrap) fields.complain("wrap", "clamp, repeat or mirror");
    const auto filter = filter_named(fields.text("filter", "linear"));
    if (!filter) fields.complain("filter", "linear or nearest");
    return {wrap.value_or(Wrap::clamp), filter.value_or(Filter::linear)};
}

void write_sampling(Json& object, const Sampling& sampling) {
    if (sampling.wrap != Wrap::clamp) object["wrap"] = wrap_name(sampling.wrap);
    if (sampling.filter != Filter::linear) object["filter"] = filter_name(sampling.filter);
}

FileOpacity read_opacity(Fields& fields) {
    const bool multiplied = fields.flag("multiplied", false);
    const bool straight = fields.flag("straight", false);
    if (multiplied && straight) fields.complain("straight", "left out where it is multiplied");
    if (multiplied) return FileOpacity::multiplied;
    return straight ? FileOpacity::straight : FileOpacity::as_marked;
}

void write_opacity(Json& object, FileOpacity opacity) {
    if (opacity == FileOpacity::multiplied) object["multiplied"] = true;
    if (opacity == FileOpacity::straight) object["straight"] = true;
}

}  // namespace lacquer
