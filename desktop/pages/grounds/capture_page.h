// What a capture's page does when its file has been looked through.
#pragma once

namespace lacquer {

class FieldForm;
class LayerPictures;

/// The file's layers become the choices of the page's fields.
void show_layers(FieldForm& form, const LayerPictures& pictures);

}  // namespace lacquer
