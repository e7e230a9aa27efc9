// Stand-ins that have not been replaced yet.
#include "core/finish/step_edits.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

void find_stand_in(Inspected& inspected, Warnings& warnings) {
    for (const std::string& name : stand_ins(inspected.finish())) {
        warnings.push_back({"inspect.stand-in",
                            name,
                            {},
                            "a stand-in: put the real source in its place before handing over",
                            {{"mark as final", [name](const Finish& finish) -> Result<Finish> {
                                  Finish changed = finish;
                                  for (Coat& coat : changed.coats) {
                                      for (Step& step : coat.steps) {
                                          if (step.name == name) step.stand_in = false;
                                      }
                                  }
                                  return changed;
                              }}}});
    }
}

}  // namespace

Inspection stand_in_inspection() { return {"stand_in", "stand-ins that are still there", find_stand_in}; }

}  // namespace lacquer
