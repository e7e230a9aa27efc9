#include "desktop/pages/grounds/ground_pages.h"

#include "core/base/text.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/grounds/typed_numbers.h"

namespace lacquer {

using namespace forms;

namespace {

QString part_key(std::size_t part) { return QStringLiteral("part_%1").arg(part + 1); }

}  // namespace

QString kind_words(const SpriteGround&) { return tr("sprite"); }

QString facts_of(const SpriteGround& ground) {
    return QStringLiteral("%1 · %2").arg(kind_words(ground),
                                         tr("%n part(s)", nullptr, static_cast<int>(ground.parts.size())));
}

// A line for each part: its place, size and share.
std::vector<Field> fields_of(const SpriteGround& sprite, const Finish&) {
    std::vector<Field> fields{{"sprite_size", tr("Size"),
                               QStringLiteral("%1 x %2").arg(sprite.width).arg(sprite.height),
                               tr("pixels: across and down")}};
    for (std::size_t i = 0; i < sprite.parts.size(); ++i) {
        const SpritePart& part = sprite.parts[i];
        const auto number = [](double v) { return qs(plain_number(v, 4)); };
        fields.push_back(
            {part_key(i), qs(part.name.empty() ? "part " + std::to_string(i + 1) : part.name),
             QStringLiteral("%1, %2 x %3 share %4")
                     .arg(number(part.x), number(part.y), number(part.scale), number(part.share)) +
                 (part.turn != 0 ? QStringLiteral(" turn %1").arg(number(part.turn)) : QString()) +
                 (part.mirrored ? QStringLiteral(" mirrored") : QString()),
             tr("its middle in pixels, how many times as large, its share; also degrees clockwise, and left "
                "for right: 360, 240 x 1 share 0.8 turn 30 mirrored")});
    }
    return fields;
}

QString change_field(SpriteGround& sprite, const QString& key, const QString& text) {
    const std::vector<double> numbers = numbers_in(text);
    if (key == "sprite_size") {
        if (numbers.size() != 2 ||
            !is_drawable_size(static_cast<std::int64_t>(numbers[0]), static_cast<std::int64_t>(numbers[1])))
            return tr("Write two whole numbers, such as 512 x 512");
        sprite.width = static_cast<int>(numbers[0]);
        sprite.height = static_cast<int>(numbers[1]);
    }
    for (std::size_t i = 0; i < sprite.parts.size(); ++i) {
        if (key != part_key(i)) continue;
        const bool turned = text.contains(QStringLiteral("turn"));
        if (numbers.size() != (turned ? 5 : 4) || !(numbers[2] > 0 && numbers[2] <= largest_part_scale))
            return tr("Write it as 360, 240 x 1 share 0.8 turn 30 mirrored");
        SpritePart& part = sprite.parts[i];
        part.x = numbers[0];
        part.y = numbers[1];
        part.scale = numbers[2];
        part.share = numbers[3];
        part.turn = turned ? numbers[4] : 0;
        part.mirrored = text.contains(QStringLiteral("mirrored"));
    }
    return {};
}

}  // namespace lacquer
