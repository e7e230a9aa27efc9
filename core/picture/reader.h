// Reads picture files by a program of its own (reader_program.cpp), which is started when the first is read. What a
// file does to its reader is a text in `error`, and nothing else. Safe from any thread.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/picture/confine.h"
#include "core/picture/files_module.h"
#include "core/picture/reading.h"

namespace lacquer {

/// Starts the program, so that the first picture does not wait for that. It reads PNG at once.
void start_reader();
/// Has it load what reads most other kinds of files, which takes a while; nothing is read meanwhile.
void prepare_reader();

// As the functions of the module of that kind. What `watch` is told may stand still for as long as a file takes.
PictureRead read_apart(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch,
                       Picture& picture, std::string& error);
PictureRead frames_apart(const std::string& path, PictureFrames& frames, std::string& error);
PictureRead layers_apart(const std::string& path, std::vector<PictureLayer>& layers, std::string& error);
PictureRead read_layer_apart(const std::string& path, const std::string& layer, PictureMeaning meaning,
                             const ReadWatch& watch, Picture& picture, std::string& error);
/// The process that opens it lives for as long as what it gives.
PictureRead open_sequence_apart(const std::string& path, std::shared_ptr<PictureSequence>& opened, std::string& error);

/// Which walls stand around readers on this system. None, with a text in `error`, where none can be started.
Walls reader_walls(std::string& error);

/// What a reader could do for lack of walls, in words that go on behind others: "; it can reach the network (no
/// seccomp)". Empty where all stand.
std::string missing_walls(const Walls& walls);

}  // namespace lacquer
