#include "core/picture/moving.h"

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/imgutils.h>
#include <libavutil/pixdesc.h>
}

#include <algorithm>
#include <array>
#include <cstdint>
#include <memory>
#include <utility>

#include "core/picture/moving_format.h"
#include "core/picture/rows.h"

namespace lacquer {

namespace {

constexpr int most_frames = 4096;
constexpr double shortest_seconds = 0.02;
constexpr double usual_seconds = 0.1;

struct Free {
    void operator()(AVFormatContext* format) const { avformat_close_input(&format); }
    void operator()(AVCodecContext* codec) const { avcodec_free_context(&codec); }
    void operator()(AVPacket* packet) const { av_packet_free(&packet); }
    void operator()(AVFrame* frame) const { av_frame_free(&frame); }
};
template <class T>
using Held = std::unique_ptr<T, Free>;

std::string words_of(int problem) {
    std::array<char, AV_ERROR_MAX_STRING_SIZE> words{};
    av_strerror(problem, words.data(), words.size());
    return words.data();
}

// Opened as this format by name: no other reader of the library gets to see the file.
Held<AVFormatContext> open_as(const std::string& path, const char* name, std::string& error) {
    av_log_set_level(AV_LOG_QUIET);
    AVDictionary* options = nullptr;
    av_dict_set(&options, "protocol_whitelist", "file", 0);
    av_dict_set(&options, "format_whitelist", name, 0);
    av_dict_set(&options, "codec_whitelist", name, 0);
    AVFormatContext* opened = nullptr;
    const int done = avformat_open_input(&opened, ("file:" + path).c_str(), av_find_input_format(name), &options);
    av_dict_free(&options);
    if (done < 0) {
        error = words_of(done);
        return nullptr;
    }
    Held<AVFormatContext> format(opened);
    if (format->nb_streams != 1 || format->streams[0]->codecpar->codec_type != AVMEDIA_TYPE_VIDEO) {
        error = "it holds no pictures";
        return nullptr;
    }
    return format;
}

Held<AVCodecContext> decoder_for(const AVFormatContext& format, std::string& error) {
    const AVCodecParameters* is = format.streams[0]->codecpar;
    const AVCodec* found = avcodec_find_decoder(is->codec_id);
    Held<AVCodecContext> codec(avcodec_alloc_context3(found));
    if (found == nullptr || codec == nullptr || avcodec_parameters_to_context(codec.get(), is) < 0) {
        error = "there is no reader for it";
        return nullptr;
    }
    codec->thread_count = 1;
    codec->max_pixels = max_picture_pixels;
    // What is broken is said, not guessed.
    codec->err_recognition = AV_EF_CRCCHECK | AV_EF_EXPLODE;
    if (const int done = avcodec_open2(codec.get(), found, nullptr); done < 0) {
        error = words_of(done);
        return nullptr;
    }
    return codec;
}

// The numbers as shares of the largest whole number; `bits` says how many each had. Whatever the file's layout of
// bytes: read by the library channel by channel.
bool take(const AVFrame& frame, Picture& picture, int& bits) {
    const AVPixFmtDescriptor* layout = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
    if (layout == nullptr) return false;
    const bool palette = (layout->flags & AV_PIX_FMT_FLAG_PAL) != 0;
    const bool opacity = palette || (layout->flags & AV_PIX_FMT_FLAG_ALPHA) != 0;
    const int channels = palette ? 4 : layout->nb_components;
    const int colours = channels - (opacity ? 1 : 0);
    bits = palette ? 8 : layout->comp[0].depth;
    const float most = static_cast<float>((1 << bits) - 1);
    picture = Picture(frame.width, frame.height, 4);
    std::vector<std::uint16_t> row(static_cast<std::size_t>(frame.width));
    std::array<const std::uint8_t*, 4> data{};
    std::copy_n(frame.data, data.size(), data.begin());
    for (int y = 0; y < frame.height; ++y) {
        for (int c = 0; c < 4; ++c) {
            const bool missing = c == 3 && !opacity;
            const int from = c == 3 ? channels - 1 : std::min(c, colours - 1);
            if (!missing)
                av_read_image_line2(row.data(), data.data(), frame.linesize, layout, 0, y, from, frame.width,
                                    palette ? 1 : 0, sizeof(std::uint16_t));
            float* to = picture.at(0, y) + c;
            for (const std::uint16_t level : row) {
                *to = missing ? 1.0F : static_cast<float>(level) / most;
                to += 4;
            }
        }
    }
    return true;
}

// The decoder's next picture; `done` 0 when there is one, else the library's word.
int next_frame(AVFormatContext& format, AVCodecContext& codec, AVPacket& packet, AVFrame& frame) {
    int done = avcodec_receive_frame(&codec, &frame);
    while (done == AVERROR(EAGAIN)) {
        const int read = av_read_frame(&format, &packet);
        const int sent = avcodec_send_packet(&codec, read < 0 ? nullptr : &packet);
        av_packet_unref(&packet);
        if (sent < 0) return sent;
        done = avcodec_receive_frame(&codec, &frame);
    }
    return done;
}

// What lies decoded is the picture before `next_`.
class Sequence final : public PictureSequence {
public:
    explicit Sequence(std::string path) : path_(std::move(path)) {}

    PictureRead begin(std::string& error) {
        const char* name = moving_format(path_);
        format_ = name != nullptr ? open_as(path_, name, error) : nullptr;
        if (format_ == nullptr) return PictureRead::unreadable;
        const AVCodecParameters* is = format_->streams[0]->codecpar;
        if (!is_drawable_size(is->width, is->height)) {
            error = std::to_string(is->width) + " x " + std::to_string(is->height);
            return PictureRead::too_large;
        }
        codec_ = decoder_for(*format_, error);
        next_ = 0;
        return codec_ != nullptr ? PictureRead::done : PictureRead::unreadable;
    }

    PictureRead read(int frame, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error) override {
        if (frame < next_ - 1) {
            if (const PictureRead again = begin(error); again != PictureRead::done) return again;
        }
        const AVCodecParameters* is = format_->streams[0]->codecpar;
        if (!watch.admits(is->width, is->height)) return PictureRead::unreadable;
        for (const int from = next_; next_ <= frame; ++next_) {
            if (!watch(static_cast<double>(next_ - from) / (frame + 1 - from))) return PictureRead::unreadable;
            av_frame_unref(shown_.get());
            if (const int done = next_frame(*format_, *codec_, *packet_, *shown_); done < 0) {
                error = done == AVERROR_EOF ? "it has fewer pictures" : words_of(done);
                return PictureRead::unreadable;
            }
            if (!is_drawable_size(shown_->width, shown_->height)) return PictureRead::too_large;
        }
        Rows rows;
        rows.meaning = meaning;
        int bits = 8;
        if (!take(*shown_, picture, bits)) {
            error = "it is laid out in a way that is not known";
            return PictureRead::unreadable;
        }
        rows.eight_bits = bits == 8;
        rows.channels.assign(picture.data.begin(), picture.data.end());
        put_rows(rows, picture, 0);
        return PictureRead::done;
    }

private:
    std::string path_;
    Held<AVFormatContext> format_;
    Held<AVCodecContext> codec_;
    Held<AVPacket> packet_{av_packet_alloc()};
    Held<AVFrame> shown_{av_frame_alloc()};
    int next_ = 0;
};

}  // namespace

bool is_moving(const std::string& path) { return moving_format(path) != nullptr; }

PictureRead read_moving_frames(const std::string& path, PictureFrames& frames, std::string& error) {
    const char* name = moving_format(path);
    const Held<AVFormatContext> format = name != nullptr ? open_as(path, name, error) : nullptr;
    if (format == nullptr) return PictureRead::unreadable;
    const AVRational unit = format->streams[0]->time_base;
    const Held<AVPacket> packet(av_packet_alloc());
    double seconds = 0;
    frames.ends.clear();
    while (frames.ends.size() < most_frames && av_read_frame(format.get(), packet.get()) >= 0) {
        const double shown = static_cast<double>(packet->duration) * av_q2d(unit);
        seconds += shown >= shortest_seconds ? shown : usual_seconds;
        frames.ends.push_back(seconds);
        av_packet_unref(packet.get());
    }
    frames.count = std::max(1, static_cast<int>(frames.ends.size()));
    return PictureRead::done;
}

PictureRead open_moving(const std::string& path, std::shared_ptr<PictureSequence>& opened, std::string& error) {
    auto sequence = std::make_shared<Sequence>(path);
    const PictureRead done = sequence->begin(error);
    if (done == PictureRead::done) opened = std::move(sequence);
    return done;
}

}  // namespace lacquer
