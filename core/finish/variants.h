// Variants of a finish: which is on, and what of an edit goes into it.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// The finish with another variant on, or none if the name is empty. While one is on, the finish has its values, and
/// the variant holds what the finish itself had in their places. An unknown name switches all off.
Finish switch_variant(Finish finish, std::string_view name);

/// What becomes of an edit made while a variant is on in both. Values, formulas, grounds and responses that the edit
/// changed go into the variant: the finish itself keeps its own, and so do all other variants. An edit that adds,
/// deletes or renames something changes the finish itself; what the variant has of a deleted thing is kept in it.
Finish into_variant(const Finish& before, Finish edited);

/// Writes what the variant that is on has of a thing into the finish itself. Faults: `variant.none` if it has nothing
/// of it, or none is on.
Result<Finish> into_base(Finish finish, const std::string& name);

/// Lets a thing follow the finish itself again. Faults: `variant.none`.
Result<Finish> follow_base(Finish finish, const std::string& name);

/// True if the variant that is on has something of its own under this name.
bool differs_from_base(const Finish& finish, const std::string& name);

/// A name that no variant has, from what was typed; "variant" if nothing usable was.
std::string free_variant_name(const Finish& finish, std::string_view typed);

/// A new variant with this overlay, behind the one that is on; it is on afterwards. Its name is a free one like what
/// was typed.
Result<Finish> add_variant(Finish finish, std::string_view typed, Overlay overlay);

/// Faults of these: `variant.unknown`, `variant.name`.
Result<Finish> copy_variant(Finish finish, const std::string& name);
Result<Finish> rename_variant(Finish finish, const std::string& name, std::string_view typed);
Result<Finish> delete_variant(Finish finish, const std::string& name);
/// One place on (+1) or back (-1); where it stands at an end, the fault `edit.end`.
Result<Finish> move_variant(Finish finish, const std::string& name, int direction);

/// A finish of its own: with the variant's values, and without any variants.
Result<Finish> variant_as_finish(Finish finish, const std::string& name);

/// With all variants of another finish behind its own, under free names. What they change and this finish hasn't, they
/// keep as missing.
Finish with_variants_of(Finish finish, const Finish& other);

/// What a variant changes, whether it is on or not.
Overlay overlay_of(const Finish& finish, const std::string& name);

}  // namespace lacquer
