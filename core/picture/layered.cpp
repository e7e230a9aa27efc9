#include "core/picture/layered.h"

#include <algorithm>
#include <cctype>
#include <memory>

#include "core/picture/opened_file.h"

namespace lacquer {

namespace {

constexpr int most_parts = 64;

struct FoundLayer {
    PictureLayer layer;
    int part = 0;
    std::vector<int> channels;  // numbers within the part
};

std::string last_name(const std::string& channel) { return channel.substr(channel.rfind('.') + 1); }

// Colours and coordinates in their usual order, whatever it is in the file.
int rank_of(const std::string& channel) {
    static const std::string order = "RGBXYZUVA";
    std::string name = last_name(channel);
    if (name.size() != 1) return 100;
    const auto at = order.find(static_cast<char>(std::toupper(static_cast<unsigned char>(name[0]))));
    return at == std::string::npos ? 100 : static_cast<int>(at);
}

// The layer that a channel belongs to: what stands before its last point; depth and ids stand alone.
std::string layer_of(const std::string& channel, const std::string& part_name) {
    const std::size_t point = channel.rfind('.');
    if (point != std::string::npos) return channel.substr(0, point);
    const bool plain = rank_of(channel) < 3 || channel == "A" || channel == "a" || channel == "Y";
    if (!part_name.empty()) return part_name;
    return plain ? std::string() : channel;
}

PictureRead find_layers(const std::string& path, std::vector<FoundLayer>& found, std::string& error) {
    std::unique_ptr<OIIO::ImageInput> input;
    if (const PictureRead opened = open_at(path, 0, input, error); opened != PictureRead::done) return opened;
    for (int part = 0; part < most_parts && (part == 0 || input->seek_subimage(part, 0)); ++part) {
        const OIIO::ImageSpec& spec = input->spec();
        if (spec.nchannels < 1 || spec.nchannels > most_channels) continue;
        // The first part of most files is called something that says nothing; a second shows that names matter.
        const bool several = part > 0 || input->seek_subimage(1, 0);
        if (!input->seek_subimage(part, 0)) break;
        const std::string part_name = several ? spec.get_string_attribute("oiio:subimagename").c_str() : std::string();
        for (int c = 0; c < spec.nchannels; ++c) {
            const std::string& channel = spec.channelnames[static_cast<std::size_t>(c)];
            const std::string name = layer_of(channel, part_name);
            auto own = std::find_if(found.begin(), found.end(),
                                    [&](const FoundLayer& f) { return f.part == part && f.layer.name == name; });
            if (own == found.end()) {
                found.push_back({{name, {}, spec.full_width, spec.full_height}, part, {}});
                own = found.end() - 1;
            }
            own->channels.push_back(c);
        }
        for (FoundLayer& layer : found) {
            if (layer.part != part) continue;
            const auto full_name = [&](int c) { return spec.channelnames[static_cast<std::size_t>(c)]; };
            std::stable_sort(layer.channels.begin(), layer.channels.end(),
                             [&](int a, int b) { return rank_of(full_name(a)) < rank_of(full_name(b)); });
            for (const int c : layer.channels) layer.layer.channels.push_back(full_name(c));
        }
    }
    return PictureRead::done;
}

// Some rows of one channel. Whole numbers such as ids stay what they are; the library's own conversion would make them
// shares of the largest.
bool read_rows(OIIO::ImageInput& input, int part, int channel, int y, int end, std::vector<float>& to) {
    const OIIO::ImageSpec& spec = input.spec();
    const OIIO::TypeDesc type =
        spec.channelformat(channel) == OIIO::TypeDesc::UINT32 ? OIIO::TypeDesc::UINT32 : OIIO::TypeDesc::FLOAT;
    std::vector<std::uint32_t> whole(type == OIIO::TypeDesc::UINT32 ? to.size() : 0);
    void* into = whole.empty() ? static_cast<void*>(to.data()) : whole.data();
    const bool done = spec.tile_width > 0 ? input.read_image(part, 0, channel, channel + 1, type, into)
                                          : input.read_scanlines(part, 0, spec.y + y, spec.y + end, 0, channel,
                                                                 channel + 1, type, into);
    if (done)
        std::transform(whole.begin(), whole.end(), to.begin(), [](std::uint32_t n) { return static_cast<float>(n); });
    return done;
}

// One channel into one of a picture's, a few rows at a time.
bool read_channel(OIIO::ImageInput& input, int part, int channel, std::size_t into, const ReadWatch& watch,
                  Picture& picture) {
    const OIIO::ImageSpec& spec = input.spec();
    const int at_once = spec.tile_width > 0 ? spec.height : rows_at_once;
    std::vector<float> rows;
    for (int y = 0; y < spec.height; y += at_once) {
        const int end = std::min(spec.height, y + at_once);
        rows.resize(static_cast<std::size_t>(spec.width) * static_cast<std::size_t>(end - y));
        if (!watch(static_cast<double>(y) / spec.height) || !read_rows(input, part, channel, y, end, rows))
            return false;
        float* to = picture.at(0, y) + into;
        for (std::size_t i = 0; i < rows.size(); ++i) to[i * 4] = rows[i];
    }
    return true;
}

}  // namespace

PictureRead layers_in(const std::string& path, std::vector<PictureLayer>& named, std::string& error) {
    std::vector<FoundLayer> found;
    const PictureRead done = find_layers(path, found, error);
    for (FoundLayer& layer : found) named.push_back(std::move(layer.layer));
    return done;
}

PictureRead read_one_layer(const std::string& path, const std::string& name, PictureMeaning meaning,
                           const ReadWatch& watch, Picture& picture, std::string& error) {
    std::vector<FoundLayer> found;
    if (const PictureRead done = find_layers(path, found, error); done != PictureRead::done) return done;
    const auto own =
        std::find_if(found.begin(), found.end(), [&](const FoundLayer& f) { return f.layer.name == name; });
    if (own == found.end()) return PictureRead::done;
    std::unique_ptr<OIIO::ImageInput> input;
    if (const PictureRead opened = open_at(path, own->part, input, error); opened != PictureRead::done) return opened;
    const OIIO::ImageSpec spec = input->spec();
    if (!watch.admits(spec.width, spec.height)) return PictureRead::unreadable;
    picture = Picture(spec.width, spec.height, 4);
    for (std::size_t i = 0; i < picture.data.size(); i += 4) {
        for (std::size_t c = 0; c < 3; ++c) picture.data[i + c] = 0;
        picture.data[i + 3] = 1;
    }
    std::size_t to = 0;
    bool has_opacity = false;
    for (std::size_t k = 0; k < own->channels.size(); ++k) {
        const int c = own->channels[k];
        const std::string last = last_name(own->layer.channels[k]);
        const bool opacity = (last == "A" || last == "a") && k > 0;
        if (!opacity && to == 3) continue;
        const double channels = static_cast<double>(own->channels.size());
        const auto of_all = [&, k](double share) { return watch((static_cast<double>(k) + share) / channels); };
        if (!read_channel(*input, own->part, c, opacity ? 3 : to++, of_all, picture)) {
            error = input->geterror();
            picture = Picture();
            return PictureRead::unreadable;
        }
        has_opacity = has_opacity || opacity;
    }
    if (has_opacity && is_multiplied(spec, meaning)) to_straight(picture);
    picture = in_display_window(std::move(picture), spec);
    return PictureRead::done;
}

}  // namespace lacquer
