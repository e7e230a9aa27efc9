// Small finishes and pictures for tests.
#pragma once

#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "core/finish/checked.h"
#include "core/render/renderer.h"

namespace lacquer::test {

/// A finish of one coat with these steps: name, formula.
Finish finish_of(const std::vector<std::pair<std::string, std::string>>& steps);

/// The finish with one dial more, at its least value, or driven by a formula.
Finish with_dial(Finish finish, const std::string& name, double least, double most, const std::string& formula = {});

/// With the demo's storm as a ground `scene`.
Finish with_scene(Finish finish);

/// A ground that is the picture at `path`.
Ground picture_ground(const std::string& name, const std::string& path);
/// A gradient or a curve.
Ground stops_ground(const std::string& name, StopValues values, std::vector<Stop> stops);

std::shared_ptr<const CheckedFinish> checked(const Finish& finish);

/// Programs and pictures that tests have in common, as whatever draws in one process has.
std::shared_ptr<RenderStores> shared_stores();

/// The value of a formula at one pixel of a small frame, drawn by the strip machine.
DrawnStep draw(const Finish& finish, const std::string& step, int width, int height, double time = 0);

/// The demo finish and where it lies.
std::string demo_path();
Finish demo_finish();
/// A finish from demo/finishes, by its file's name without ending, and where it lies. "dissolve:cells" is the variant
/// `cells` of `dissolve`.
Finish demo_named(const std::string& name);
std::string demo_path(const std::string& name);

/// A pass that draws one formula or code, `value`, checked in this scope. A fault fails the test.
Pass pass_of(const std::string& text, const Scope& scope);

/// A 4-channel picture with unlike pixels.
Picture test_picture(int width, int height);

}  // namespace lacquer::test
