#include "core/catalogue/catalogue.h"

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <set>

#include "core/base/text.h"
#include "core/lang/rename.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

// The one function of a plain operation, at a width where it goes by that of its arguments.
Result<std::shared_ptr<const TypedFunction>> plain_function(const Operation& operation, int width) {
    const std::string text = rename_in_formula(operation.text, "same", glsl_name(float_type(width)));
    const Result<Code> code = parse_code(text);
    if (!code) return code.fault();
    auto functions = check_functions(*code, step_scope(), text);
    if (!functions) return functions.fault();
    auto function = std::make_shared<TypedFunction>(*functions->at(operation.stages[0].function));
    function->foreign = true;
    return std::shared_ptr<const TypedFunction>(std::move(function));
}

Result<Callable> callable_of(const Operation& operation) {
    Callable callable;
    for (const OperationArgument& argument : operation.arguments) {
        callable.same.push_back(argument.width == 0);
        callable.fallbacks.push_back(argument.fallback);
    }
    for (int width = operation.has_same() ? 1 : 4; width <= 4; ++width) {
        auto function = plain_function(operation, width);
        if (!function) return function.fault();
        if (static_cast<std::size_t>((*function)->parameters) != operation.arguments.size()) {
            return Fault{"operation.head",
                         "its function takes " + std::to_string((*function)->parameters) + ", its head tells of " +
                             std::to_string(operation.arguments.size()),
                         "tell of each argument in the head, in order",
                         {operation.file, {}, 1, 0},
                         Severity::fault};
        }
        callable.widths.push_back(*function);
    }
    return callable;
}

}  // namespace

std::shared_ptr<const Catalogue> make_catalogue(const std::vector<OperationFile>& files) {
    auto catalogue = std::make_shared<Catalogue>();
    for (const OperationFile& file : files) {
        const auto refuse = [&](Fault fault) {
            if (fault.place.where.empty()) fault.place.where = file.path;
            catalogue->operations.erase(file.name);
            catalogue->plain.erase(file.name);
            catalogue->broken[file.name] = fault;
            catalogue->faults.push_back(std::move(fault));
        };
        Result<Operation> operation = read_operation(file.name, file.text, file.path);
        if (!operation) {
            refuse(operation.fault());
            continue;
        }
        if (operation->is_plain()) {
            Result<Callable> callable = callable_of(*operation);
            if (!callable) {
                refuse(callable.fault());
                continue;
            }
            catalogue->plain[file.name] = std::move(*callable);
        }
        catalogue->broken.erase(file.name);
        catalogue->operations[file.name] = std::move(*operation);
    }
    return catalogue;
}

const std::shared_ptr<const Catalogue>& built_in_catalogue() {
    static const std::shared_ptr<const Catalogue> catalogue = make_catalogue(built_in_operation_files());
    return catalogue;
}

std::vector<OperationFile> operation_files_in(const std::string& folder) {
    std::vector<OperationFile> files;
    std::error_code code;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, code)) {
        if (entry.path().extension() != ".glsl") continue;
        std::ifstream in(entry.path(), std::ios::binary);
        std::string text;
        // One more than is allowed, so that a file too long is told from one that just fits.
        std::copy_n(std::istreambuf_iterator<char>(in), std::min<std::uintmax_t>(entry.file_size(code), 65537),
                    std::back_inserter(text));
        files.push_back({entry.path().stem().string(), std::move(text), entry.path().string()});
    }
    std::sort(files.begin(), files.end(), [](const auto& a, const auto& b) { return a.name < b.name; });
    return files;
}

std::shared_ptr<const Catalogue> catalogue_with_folder(const std::string& folder) {
    std::vector<OperationFile> own;
    if (!folder.empty()) own = operation_files_in(folder);
    if (own.empty()) return built_in_catalogue();
    std::vector<OperationFile> files = built_in_operation_files();
    files.insert(files.end(), own.begin(), own.end());
    return make_catalogue(files);
}

std::string user_operations_folder() {
    const char* data = std::getenv("XDG_DATA_HOME");
    if (data != nullptr && *data != '\0') return (fs::path(data) / "lacquer/operations").string();
    const char* home = std::getenv("HOME");
    return home == nullptr ? std::string() : (fs::path(home) / ".local/share/lacquer/operations").string();
}

std::string catalogue_as_markdown(const Catalogue& catalogue) {
    std::set<std::string> groups;
    for (const auto& [name, operation] : catalogue.operations) groups.insert(operation.group);
    std::string text;
    for (const std::string& group : groups) {
        text += "\n## " + group + "\n";
        for (const auto& [name, operation] : catalogue.operations) {
            if (operation.group != group) continue;
            std::string call = name + "(";
            for (const OperationArgument& argument : operation.arguments) {
                call += (call.back() == '(' ? "" : ", ") + argument.name;
            }
            text += "\n### " + operation.title + "\n\n`" + call + ")` - " + operation.about + "\n";
            if (!operation.is_plain()) text += "It fills a whole step.\n";
            text += "\n";
            for (const OperationArgument& argument : operation.arguments) {
                text += "- `" + argument.name + "`: " + argument.words + " (" +
                        (argument.width == 0 ? std::string("any width")
                                             : counted(static_cast<std::size_t>(argument.width), "number")) +
                        (argument.picture ? ", read as a picture" : "") + ", " + argument.role;
                if (argument.range) {
                    text += "; " + shortest_number(argument.range->first) + " to " +
                            shortest_number(argument.range->second);
                    if (!argument.unit.empty()) text += " " + argument.unit;
                }
                if (!argument.fallback.empty()) text += "; `" + argument.fallback + "` if left out";
                text += ")\n";
            }
        }
    }
    return text;
}

}  // namespace lacquer
