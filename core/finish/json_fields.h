// Taking a file's values apart: nothing in it is trusted; what has the wrong shape is named and left out.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/base/fault.h"
#include "core/base/kept_keys.h"
#include "core/finish/json.h"
#include "core/finish/limits.h"

namespace lacquer {

/// Takes known keys out of an object one by one; what is left over is kept as it is.
class Fields {
public:
    /// `path` is where the object stands in the file, `where` the file. What is wrong is added to `notices`.
    Fields(Json object, std::string path, std::string where, Faults& notices);

    /// What a key holds, or something else if it is not there or is of another kind, which is told.
    std::string text(const char* key, std::string otherwise = {});
    bool flag(const char* key, bool otherwise);
    double number(const char* key, double otherwise);
    /// `count` numbers in a row, or false.
    bool numbers(const char* key, std::size_t count, std::vector<double>& numbers);
    /// Whatever it holds; false if it is not there.
    bool take(const char* key, Json& value);

    /// Calls `read(Fields&)` for each object of a list; of one that is too long, for as many as are allowed.
    template <class Read>
    void each(const char* key, Read read, std::size_t most = max_members) {
        const std::vector<Json> members = listed(key, most);
        for (std::size_t i = 0; i < members.size(); ++i) {
            Fields fields(members[i], member_path(key, i), where_, notices_);
            if (members[i].is_object()) read(fields);
        }
    }
    void complain(const std::string& key, const std::string& wanted);
    bool has(std::string_view key) const { return left_.contains(key); }
    /// What was not taken, to be kept.
    KeptKeys kept() const;

    /// True for a number that is not out of all reason.
    static bool is_number(const Json& value);

private:
    std::vector<Json> listed(const char* key, std::size_t most);
    std::string member_path(const char* key, std::size_t index) const;
    Json left_ = Json::object();
    std::string path_;
    std::string where_;
    Faults& notices_;
};

}  // namespace lacquer
