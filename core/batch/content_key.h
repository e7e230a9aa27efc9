// What a drawing depends on, as one number: equal content has equal keys, whatever dates and names files have.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/catalogue/catalogue.h"
#include "core/finish/finish.h"

namespace lacquer {

/// A number of 128 bits, as 32 hexadecimal digits. Source of the hash: XXH3, by the xxHash library.
class ContentKey {
public:
    /// Takes a piece in; where one ends and the next begins counts.
    ContentKey& add(std::string_view bytes);
    ContentKey& add(double number);
    /// A file's bytes; that there is none counts, too. Faults: those of reading a file that is there.
    Result<Done> add_file(const std::string& path);
    std::string text() const;

private:
    std::string so_far_;
};

/// Of a finish that lies at `path`: what it says, every file that it names, the operations that it may call, and the
/// version of this program. Faults: those of `ContentKey::add_file`.
Result<ContentKey> key_of_finish(const Finish& finish, const std::string& path, const Catalogue& catalogue);

}  // namespace lacquer
