#include "cli/lettering.h"

#include <ft2build.h>
#include FT_FREETYPE_H

#include <algorithm>
#include <memory>

#include "cli/font.h"

namespace lacquer::cli {

namespace {

struct EndLibrary {
    void operator()(FT_Library library) const { FT_Done_FreeType(library); }
};
struct EndFace {
    void operator()(FT_Face face) const { FT_Done_Face(face); }
};

// Lays a glyph's coverage over the picture.
void blend(Image8& image, const FT_Bitmap& bitmap, int left, int top, std::uint8_t grey) {
    for (int row = 0; row < static_cast<int>(bitmap.rows); ++row) {
        for (int column = 0; column < static_cast<int>(bitmap.width); ++column) {
            const int x = left + column;
            const int y = top + row;
            if (x < 0 || y < 0 || x >= image.width || y >= image.height) continue;
            const int share = bitmap.buffer[row * bitmap.pitch + column];
            std::uint8_t* pixel = image.data.data() + (static_cast<std::ptrdiff_t>(y) * image.width + x) * 4;
            for (int c = 0; c < 3; ++c)
                pixel[c] = static_cast<std::uint8_t>((pixel[c] * (255 - share) + grey * share) / 255);
            pixel[3] = 255;
        }
    }
}

}  // namespace

Result<Done> write_words(Image8& image, std::string_view words, int x, int base_line, int size, std::uint8_t grey) {
    const auto fault = [] {
        return Fault{"cli.font", "the font cannot be read", "build Lacquer again", {}, Severity::fault};
    };
    FT_Library made = nullptr;
    if (FT_Init_FreeType(&made) != 0) return fault();
    const std::unique_ptr<FT_LibraryRec_, EndLibrary> library(made);
    FT_Face opened = nullptr;
    const std::span<const unsigned char> font = font_file();
    if (FT_New_Memory_Face(library.get(), font.data(), static_cast<FT_Long>(font.size()), 0, &opened) != 0)
        return fault();
    const std::unique_ptr<FT_FaceRec_, EndFace> face(opened);
    if (FT_Set_Pixel_Sizes(face.get(), 0, static_cast<FT_UInt>(size)) != 0) return fault();
    FT_Pos at = FT_Pos{x} * 64;
    for (const char letter : words) {
        if (letter < ' ' || letter > '~') continue;
        if (FT_Load_Char(face.get(), static_cast<FT_ULong>(letter), FT_LOAD_RENDER) != 0) return fault();
        const FT_GlyphSlot glyph = face->glyph;
        blend(image, glyph->bitmap, static_cast<int>(at / 64) + glyph->bitmap_left, base_line - glyph->bitmap_top,
              grey);
        at += glyph->advance.x;
    }
    return Done{};
}

}  // namespace lacquer::cli
