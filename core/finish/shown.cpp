#include "core/finish/shown.h"

#include "core/catalogue/samples.h"

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
    samples.steps.push_back(std::move(step));
    finish.coats.push_back(std::move(samples));
    return finish;
}

}  // namespace lacquer
