#include "tests/support/operations.h"

#include <catch2/catch.hpp>

#include "core/finish/shown.h"
#include "tests/support/finishes.h"

namespace lacquer::test {

namespace {

constexpr int width = 80;
constexpr int height = 45;

}  // namespace

std::string ShownCall::with(std::size_t index, const std::string& text) const {
    std::string call = before;
    for (std::size_t i = 0; i < arguments.size(); ++i)
        call += (i == 0 ? "" : ", ") + (i == index ? text : arguments[i]);
    return call + after;
}

std::string ShownCall::text() const { return with(arguments.size(), ""); }

ShownCall shown_call(const Operation& operation) {
    const std::string& shown = operation.shown;
    const std::size_t begin = shown.find(operation.name + "(");
    REQUIRE(begin != std::string::npos);
    std::size_t at = begin + operation.name.size() + 1;
    ShownCall call{shown.substr(0, at), {}, ""};
    std::string argument;
    for (int depth = 0; depth >= 0; ++at) {
        REQUIRE(at < shown.size());
        const char letter = shown[at];
        depth += letter == '(' ? 1 : letter == ')' ? -1 : 0;
        if (depth < 0 || (depth == 0 && letter == ',')) {
            const std::size_t first = argument.find_first_not_of(' ');
            if (first != std::string::npos) call.arguments.push_back(argument.substr(first));
            argument.clear();
        } else {
            argument += letter;
        }
    }
    call.after = shown.substr(at - 1);
    for (std::size_t i = call.arguments.size(); i < operation.arguments.size(); ++i) {
        call.arguments.push_back(operation.arguments[i].fallback);
    }
    return call;
}

SampleDrawer::SampleDrawer(Backend backend) : renderer_(pool_, std::nullopt, shared_stores()) {
    if (const auto notice = renderer_.use(backend)) FAIL(to_text(*notice));
}

Picture SampleDrawer::draw(const std::string& formula) {
    INFO(formula);
    RenderRequest request;
    request.checked = checked(finish_on_samples(formula));
    const CheckedStep& step = request.checked->steps.back();
    if (step.fault) FAIL(to_text(*step.fault));
    request.width = width;
    request.height = height;
    request.time = 0.4;
    request.steps = {"shown"};
    Result<Frame> frame = renderer_.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    return std::move(frame->steps[0].picture);
}

std::vector<float> constant_value(const std::string& formula) {
    const Picture picture = picture_of({{"value", formula}}, 1, 1);
    return {picture.data.begin(), picture.data.end()};
}

Picture picture_of(const std::vector<std::pair<std::string, std::string>>& steps, int wide, int high, double time) {
    const Finish finish = finish_of(steps);
    const auto known = checked(finish);
    for (const CheckedStep& step : known->steps) {
        if (step.fault) FAIL(step.name << ": " << to_text(*step.fault));
    }
    return draw(finish, steps.back().first, wide, high, time).picture;
}

}  // namespace lacquer::test
