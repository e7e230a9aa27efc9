#include "core/finish/shown.h"

#include "core/catalogue/samples.h"
#include "core/finish/stop_presets.h"

namespace lacquer {

Finish finish_on_samples(const std::string& formula) {
    Finish finish;
    finish.frame_width = 320;
    finish.frame_height = 180;
    Coat samples;
    samples.name = "Samples";
    for (const OperationFile& sample : sample_files()) {
        Step step;
        step.name = sample.name;
        step.formula = sample.text;
        samples.steps.push_back(std::move(step));
    }
    Step step;
    step.name = "shown";
    step.formula = formula;
    if (formula.find("return ") != std::string::npos) step.rules = CodeRules::glsl;
    // A picture that goes on from its last one says how many numbers it has.
    if (formula.find("previous(") != std::string::npos) step.ticking.width = 4;
    samples.steps.push_back(std::move(step));
    finish.coats.push_back(std::move(samples));
    finish.grounds.push_back({"dusk", GradientGround{stop_presets(StopValues::colours).front().stops}});
    return finish;
}

}  // namespace lacquer
