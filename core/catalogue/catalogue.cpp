#include "core/catalogue/catalogue.h"

#include <algorithm>
#include <cctype>
#include <cstdlib>
#include <filesystem>
#include <set>
#include <string_view>
#include <utility>

#include "core/base/file.h"
#include "core/base/text.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

// The one function of a plain operation, at a width where it goes by that of its arguments.
Result<std::shared_ptr<const TypedFunction>> plain_function(const Operation& operation, int width, Scope scope) {
    scope.same = float_type(width);
    auto functions = check_functions(*operation.code, scope, operation.text);
    if (!functions) return placed_in_file(functions.fault(), operation);
    auto function = std::make_shared<TypedFunction>(*functions->at(operation.stages[0].function));
    function->foreign = true;
    return std::shared_ptr<const TypedFunction>(std::move(function));
}

Result<Callable> callable_of(const Operation& operation, const Scope& scope) {
    Callable callable;
    for (const OperationArgument& argument : operation.arguments) {
        callable.same.push_back(argument.width == 0);
        callable.fallbacks.push_back(argument.fallback);
    }
    for (int width = operation.has_same() ? 1 : 4; width <= 4; ++width) {
        auto function = plain_function(operation, width, scope);
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

void refuse(Catalogue& catalogue, const OperationFile& file, Fault fault) {
    if (fault.place.where.empty()) fault.place.where = file.path;
    catalogue.operations.erase(file.name);
    catalogue.plain.erase(file.name);
    catalogue.broken[file.name] = fault;
    catalogue.faults.push_back(std::move(fault));
}

// Adds files of different names. Those that call others wait until these are there.
void add_batch(Catalogue& catalogue, std::vector<const OperationFile*> waiting, const UsedText& used) {
    Scope scope = step_scope();
    scope.functions = &catalogue.plain;
    std::vector<std::string> staged;
    for (bool last_try = false; !waiting.empty();) {
        std::vector<const OperationFile*> still;
        for (const OperationFile* file : waiting) {
            if (file->fault) {
                refuse(catalogue, *file, *file->fault);
                continue;
            }
            Result<AssembledText> text = assembled(file->text, file->path, used);
            Result<Operation> operation =
                text ? read_operation(file->name, std::move(*text), file->path) : Result<Operation>(text.fault());
            if (!operation) {
                refuse(catalogue, *file, operation.fault());
                continue;
            }
            if (operation->is_plain()) {
                Result<Callable> callable = callable_of(*operation, scope);
                if (!callable && !last_try && callable.fault().id == "lang.unknown-function") {
                    still.push_back(file);
                    continue;
                }
                if (!callable) {
                    refuse(catalogue, *file, callable.fault());
                    continue;
                }
                catalogue.plain[file->name] = std::move(*callable);
            } else {
                staged.push_back(file->name);
            }
            catalogue.broken.erase(file->name);
            catalogue.operations[file->name] = std::move(*operation);
        }
        last_try = still.size() == waiting.size();
        waiting = std::move(still);
    }
    const auto functions = std::make_shared<const std::map<std::string, Callable, std::less<>>>(catalogue.plain);
    for (const std::string& name : staged) catalogue.operations.at(name).functions = functions;
}

void find_not_called(Catalogue& catalogue) {
    for (const auto& [name, operation] : catalogue.operations) {
        if (operation.is_plain()) continue;
        catalogue.not_called[name] = {"finish.whole-step",
                                      "'" + name + "' fills a whole step",
                                      "make it a step of its own, and name that here",
                                      {},
                                      Severity::fault};
    }
    for (const auto& [name, fault] : catalogue.broken) {
        if (!catalogue.operations.contains(name)) catalogue.not_called[name] = broken_operation(name, fault);
    }
}

}  // namespace

std::shared_ptr<const Catalogue> make_catalogue(const std::vector<OperationFile>& files) {
    auto catalogue = std::make_shared<Catalogue>();
    std::map<std::string, std::pair<std::string, std::string>> shared;
    for (const OperationFile& file : files) {
        if (!file.fault && is_shared_text(file.text)) shared[file.name] = {file.text, file.path};
    }
    const UsedText used = [&](const std::string& name) {
        const auto found = shared.find(name);
        return found != shared.end() ? &found->second : nullptr;
    };
    std::vector<const OperationFile*> batch;
    std::set<std::string_view> names;
    for (const OperationFile& file : files) {
        if (!file.fault && is_shared_text(file.text)) continue;
        if (!names.insert(file.name).second) {
            // It replaces one before, which others of its own batch may have called.
            add_batch(*catalogue, std::exchange(batch, {}), used);
            names = {file.name};
        }
        batch.push_back(&file);
    }
    add_batch(*catalogue, std::move(batch), used);
    find_not_called(*catalogue);
    return catalogue;
}

const std::shared_ptr<const Catalogue>& built_in_catalogue() {
    static const std::shared_ptr<const Catalogue> catalogue = make_catalogue(built_in_operation_files());
    return catalogue;
}

std::vector<OperationFile> operation_files_in(const std::string& folder) {
    std::vector<OperationFile> files;
    std::error_code code;
    for (auto entry = fs::directory_iterator(folder, code); !code && entry != fs::directory_iterator();
         entry.increment(code)) {
        const fs::path& path = entry->path();
        if (path.extension() != ".glsl") continue;
        Result<std::string> text = read_whole_file(path.string(), max_operation_file);
        files.push_back({path.stem().string(), text ? std::move(*text) : std::string(), path.string(),
                         text ? std::nullopt : std::optional<Fault>(text.fault())});
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

Result<std::optional<Operation>> operation_as_typed(const std::string& folder, const OperationFile& typed) {
    if (!is_identifier(typed.name))
        return Fault{"file.name",
                     "'" + typed.name + "' cannot be called by a step",
                     "use letters, digits and _, a letter first",
                     {typed.path, {}, 0, 0},
                     Severity::fault};
    std::vector<OperationFile> files = built_in_operation_files();
    for (OperationFile& own : operation_files_in(folder)) {
        if (own.name != typed.name) files.push_back(std::move(own));
    }
    files.push_back(typed);
    if (is_shared_text(typed.text)) return std::optional<Operation>();
    const std::shared_ptr<const Catalogue> catalogue = make_catalogue(files);
    if (const auto broken = catalogue->broken.find(typed.name); broken != catalogue->broken.end())
        return broken->second;
    return std::optional<Operation>(catalogue->operations.at(typed.name));
}

std::string operation_template(const std::string& name) {
    std::string title = name;
    std::replace(title.begin(), title.end(), '_', ' ');
    title[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(title[0])));
    return "//! title " + title +
           "\n"
           "//! group My own\n"
           "//! about What it does, in a line.\n"
           "//! says " +
           title +
           " of {what}, {much}\n"
           "//! value what 1 number : what it works on\n"
           "//! value much 1 number = 1 in 0..1 : how much of it\n"
           "float " +
           name +
           "(float what, float much) {\n"
           "    return what * much;\n"
           "}\n";
}

std::string user_operations_folder() {
    const char* data = std::getenv("XDG_DATA_HOME");
    if (data != nullptr && *data != '\0') return (fs::path(data) / "lacquer/operations").string();
    const char* home = std::getenv("HOME");
    return home == nullptr ? std::string() : (fs::path(home) / ".local/share/lacquer/operations").string();
}

}  // namespace lacquer
