// A ground that is a scene captured in a layered file.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"
#include "core/picture/files_module.h"
#include "core/picture/sample.h"
#include "core/scene/capture.h"

namespace lacquer {

class Fields;
class Json;

struct CaptureGround {
    static constexpr std::string_view key = "capture";

    std::string path = {};      ///< absolute, or relative to the finish's own folder
    CaptureLayers layers = {};  ///< names of layers in its file; those left empty are found by themselves
    FileOpacity opacity = FileOpacity::as_marked;
    Sampling sampling = {};

    friend bool operator==(const CaptureGround&, const CaptureGround&) = default;
};

void read(Fields& fields, CaptureGround& ground);
void write(Json& object, const CaptureGround& ground);
std::vector<GroundPicture> pictures_of(const CaptureGround& ground, const std::string& name);
std::vector<std::string*> paths_of(CaptureGround& ground);
ListLength list_of(const CaptureGround& ground);

}  // namespace lacquer
