// What the finish reads, added, replaced and found: each changes the document and says what it did.
#pragma once

#include <QStringList>
#include <string>

#include "core/finish/finish.h"

class QImage;

namespace lacquer {

class Document;

/// A picture, a capture or a table, by what the file is.
void add_picture(Document& document, const QString& path);
/// Several files as one change.
void add_pictures(Document& document, const QStringList& paths);
/// A picture that was copied in another program, kept as a file beside the finish, or with the program's data while the
/// finish has no place yet.
void add_pasted_picture(Document& document, const QImage& image);
/// False if the user changed their mind.
bool add_picture_asking(Document& document);
/// A new finish that works on this picture and has its size. False if the present one is not to be left.
bool start_from_picture(Document& document, const QString& path);
/// Adds a gradient or a curve with two stops.
void add_stops(Document& document, StopValues values);
/// Adds droplets: a light rain over the whole frame.
void add_droplets(Document& document);
/// A file in a ground's place; all that reads it follows.
void replace_ground(Document& document, const std::string& name, const QString& path);
/// Adds a part to a sprite, in its middle and on top; a new sprite of the picture's size if there is none of the name.
void add_sprite_part(Document& document, const std::string& sprite, const QString& path);
/// Asks for the first file that is missing, and takes all others from about there that have their names.
void find_missing(Document& document);
void add_scene(Document& document, const ScenePlace& place, Hour hour);
/// Marks for objects of the first scene; false if there is none.
bool add_marks(Document& document);
/// Moves the camera of a stand-in scene at a moment, in seconds.
void set_camera(Document& document, const std::string& scene, const Camera& camera, double time);

/// The first ground with objects to point at; null if there is none.
const Ground* first_scene(const Finish& finish);
/// From where a stand-in scene is looked at, at a moment in seconds.
Camera camera_of(const Ground& scene, double time);

}  // namespace lacquer
