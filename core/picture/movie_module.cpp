#include "core/picture/movie_module.h"

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavfilter/avfilter.h>
#include <libavfilter/buffersink.h>
#include <libavfilter/buffersrc.h>
#include <libavformat/avformat.h>
#include <libavutil/opt.h>
}

#include <algorithm>
#include <array>
#include <cstdint>
#include <cstring>
#include <exception>
#include <memory>
#include <stdexcept>

namespace lacquer {

namespace {

struct Free {
    void operator()(AVFilterGraph* graph) const { avfilter_graph_free(&graph); }
    void operator()(AVFilterInOut* ends) const { avfilter_inout_free(&ends); }
    void operator()(AVCodecContext* codec) const { avcodec_free_context(&codec); }
    void operator()(AVFormatContext* format) const { avformat_free_context(format); }
    void operator()(AVPacket* packet) const { av_packet_free(&packet); }
    void operator()(AVFrame* frame) const { av_frame_free(&frame); }
    void operator()(AVIOContext* io) const {
        av_freep(&io->buffer);
        avio_context_free(&io);
    }
};
template <class T>
using Held = std::unique_ptr<T, Free>;

// The library's own way: everything answers with a number, below 0 for trouble.
int checked(int answer) {
    if (answer >= 0) return answer;
    std::array<char, AV_ERROR_MAX_STRING_SIZE> words{};
    av_strerror(answer, words.data(), words.size());
    throw std::runtime_error(words.data());
}

struct Stopped : std::runtime_error {
    Stopped() : std::runtime_error("it was stopped") {}
};

// How a format is written: the library's names of its writer and file, what is done to frames before, and settings of
// the writer, which are its own.
struct Recipe {
    const char* file;
    const char* writer;
    const char* filters;
    std::array<std::array<const char*, 2>, 4> settings;
    const char* words;
};

const Recipe& recipe_of(MovieFormat format) {
    static const Recipe gif{
        "gif",
        "gif",
        "split[a][b];[a]palettegen=stats_mode=full[p];[b][p]paletteuse=dither=sierra2_4a:alpha_threshold=128",
        {},
        "GIF"};
    static const Recipe webp{"webp", "libwebp_anim", "format=bgra", {{{"lossless", "1"}}}, "moving WebP"};
    static const Recipe webm{"webm",
                             "libvpx-vp9",
                             "scale=out_color_matrix=bt709:out_range=tv,format=yuva420p",
                             {{{"crf", "18"}, {"b", "0"}, {"deadline", "good"}, {"cpu-used", "4"}}},
                             "VP9"};
    static const Recipe mp4{"mp4",
                            "libx264",
                            "format=gbrap,premultiply=inplace=1,format=gbrp,pad=ceil(iw/2)*2:ceil(ih/2)*2,"
                            "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p",
                            {{{"crf", "16"}, {"preset", "medium"}}},
                            "H.264"};
    switch (format) {
        case MovieFormat::gif:
            return gif;
        case MovieFormat::webp:
            return webp;
        case MovieFormat::webm:
            return webm;
        case MovieFormat::mp4:
            break;
    }
    return mp4;
}

// A file in memory that can be gone back in, as some formats note at their beginning what comes later.
class MemoryFile {
public:
    MemoryFile() {
        constexpr int buffer_size = 1 << 16;
        auto* buffer = static_cast<unsigned char*>(av_malloc(buffer_size));
        if (buffer != nullptr) io_.reset(avio_alloc_context(buffer, buffer_size, 1, this, nullptr, write, seek));
        if (io_ == nullptr) throw std::bad_alloc();
    }
    MemoryFile(const MemoryFile&) = delete;
    MemoryFile& operator=(const MemoryFile&) = delete;

    AVIOContext* io() { return io_.get(); }
    std::string take() { return std::move(bytes_); }

private:
    static int write(void* self, std::uint8_t* from, int count) {
        auto& file = *static_cast<MemoryFile*>(self);
        const auto size = static_cast<std::size_t>(count);
        if (file.bytes_.size() < file.at_ + size) file.bytes_.resize(file.at_ + size);
        std::memcpy(file.bytes_.data() + file.at_, from, size);
        file.at_ += size;
        return count;
    }
    static std::int64_t seek(void* self, std::int64_t offset, int from) {
        auto& file = *static_cast<MemoryFile*>(self);
        if (from == AVSEEK_SIZE) return static_cast<std::int64_t>(file.bytes_.size());
        std::int64_t base = 0;
        if (from == SEEK_CUR) base = static_cast<std::int64_t>(file.at_);
        if (from == SEEK_END) base = static_cast<std::int64_t>(file.bytes_.size());
        if (base + offset < 0) return AVERROR(EINVAL);
        file.at_ = static_cast<std::size_t>(base + offset);
        return base + offset;
    }

    std::string bytes_;
    std::size_t at_ = 0;
    Held<AVIOContext> io_;
};

class MovieWriter {
public:
    MovieWriter(const Recipe& recipe, int width, int height, double rate)
        : recipe_(recipe), tick_(av_inv_q(av_d2q(rate, 100'000))) {
        open_filters(width, height);
        open_writer();
    }

    void add(const Image8& image, std::int64_t number) {
        const Held<AVFrame> frame(av_frame_alloc());
        if (frame == nullptr) throw std::bad_alloc();
        frame->format = AV_PIX_FMT_RGBA;
        frame->width = image.width;
        frame->height = image.height;
        frame->pts = number;
        checked(av_frame_get_buffer(frame.get(), 0));
        const auto row = static_cast<std::size_t>(image.width) * 4;
        for (int y = 0; y < image.height; ++y)
            std::memcpy(frame->data[0] + static_cast<std::ptrdiff_t>(y) * frame->linesize[0],
                        image.data.data() + static_cast<std::size_t>(y) * row, row);
        checked(av_buffersrc_add_frame(source_, frame.get()));
        pass_on();
    }

    std::string finish() {
        checked(av_buffersrc_add_frame(source_, nullptr));
        pass_on();
        encode(nullptr);
        checked(av_write_trailer(format_.get()));
        avio_flush(file_.io());
        return file_.take();
    }

private:
    void open_filters(int width, int height) {
        graph_.reset(avfilter_graph_alloc());
        if (graph_ == nullptr) throw std::bad_alloc();
        const std::string about = "video_size=" + std::to_string(width) + "x" + std::to_string(height) +
                                  ":pix_fmt=rgba:time_base=" + std::to_string(tick_.num) + "/" +
                                  std::to_string(tick_.den) + ":pixel_aspect=1/1";
        checked(avfilter_graph_create_filter(&source_, avfilter_get_by_name("buffer"), "in", about.c_str(), nullptr,
                                             graph_.get()));
        checked(avfilter_graph_create_filter(&sink_, avfilter_get_by_name("buffersink"), "out", nullptr, nullptr,
                                             graph_.get()));
        AVFilterInOut* begins = end_named("in", source_);
        AVFilterInOut* ends = end_named("out", sink_);
        const int parsed = avfilter_graph_parse_ptr(graph_.get(), recipe_.filters, &ends, &begins, nullptr);
        const Held<AVFilterInOut> free_begins(begins);
        const Held<AVFilterInOut> free_ends(ends);
        checked(parsed);
        checked(avfilter_graph_config(graph_.get(), nullptr));
    }

    static AVFilterInOut* end_named(const char* name, AVFilterContext* filter) {
        AVFilterInOut* end = avfilter_inout_alloc();
        if (end == nullptr) throw std::bad_alloc();
        end->name = av_strdup(name);
        end->filter_ctx = filter;
        return end;
    }

    void open_writer() {
        const AVCodec* found = avcodec_find_encoder_by_name(recipe_.writer);
        if (found == nullptr) throw std::runtime_error("the libraries of this machine write no " + words());
        codec_.reset(avcodec_alloc_context3(found));
        AVFormatContext* format = nullptr;
        checked(avformat_alloc_output_context2(&format, nullptr, recipe_.file, nullptr));
        format_.reset(format);
        if (codec_ == nullptr) throw std::bad_alloc();
        codec_->width = av_buffersink_get_w(sink_);
        codec_->height = av_buffersink_get_h(sink_);
        codec_->pix_fmt = static_cast<AVPixelFormat>(av_buffersink_get_format(sink_));
        codec_->time_base = tick_;
        codec_->framerate = av_inv_q(tick_);
        codec_->color_primaries = AVCOL_PRI_BT709;
        // The frames' own curve: IEC 61966-2-1.
        codec_->color_trc = AVCOL_TRC_IEC61966_2_1;
        if (std::strstr(recipe_.filters, "bt709") != nullptr) {
            codec_->colorspace = AVCOL_SPC_BT709;
            codec_->color_range = AVCOL_RANGE_MPEG;
        }
        if ((format_->oformat->flags & AVFMT_GLOBALHEADER) != 0) codec_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
        AVDictionary* settings = nullptr;
        for (const auto& [name, value] : recipe_.settings) {
            if (name != nullptr) av_dict_set(&settings, name, value, 0);
        }
        const int opened = avcodec_open2(codec_.get(), found, &settings);
        av_dict_free(&settings);
        checked(opened);
        stream_ = avformat_new_stream(format_.get(), nullptr);
        if (stream_ == nullptr) throw std::bad_alloc();
        checked(avcodec_parameters_from_context(stream_->codecpar, codec_.get()));
        stream_->time_base = tick_;
        stream_->avg_frame_rate = codec_->framerate;
        format_->pb = file_.io();
        // Nothing in it tells of the library's version or of chance.
        format_->flags |= AVFMT_FLAG_CUSTOM_IO | AVFMT_FLAG_BITEXACT;
        AVDictionary* of_file = nullptr;
        av_dict_set(&of_file, "loop", "0", 0);
        const int begun = avformat_write_header(format_.get(), &of_file);
        av_dict_free(&of_file);
        checked(begun);
    }

    // What comes out of the filters goes to the writer.
    void pass_on() {
        while (true) {
            const Held<AVFrame> frame(av_frame_alloc());
            if (frame == nullptr) throw std::bad_alloc();
            const int got = av_buffersink_get_frame(sink_, frame.get());
            if (got == AVERROR(EAGAIN) || got == AVERROR_EOF) return;
            checked(got);
            frame->pts = av_rescale_q(frame->pts, av_buffersink_get_time_base(sink_), codec_->time_base);
            frame->pict_type = AV_PICTURE_TYPE_NONE;
            encode(frame.get());
        }
    }

    // A frame, or null for the end.
    void encode(const AVFrame* frame) {
        checked(avcodec_send_frame(codec_.get(), frame));
        while (true) {
            const Held<AVPacket> packet(av_packet_alloc());
            if (packet == nullptr) throw std::bad_alloc();
            const int got = avcodec_receive_packet(codec_.get(), packet.get());
            if (got == AVERROR(EAGAIN) || got == AVERROR_EOF) return;
            checked(got);
            if (packet->duration == 0) packet->duration = 1;
            av_packet_rescale_ts(packet.get(), codec_->time_base, stream_->time_base);
            packet->stream_index = stream_->index;
            checked(av_interleaved_write_frame(format_.get(), packet.get()));
        }
    }

    std::string words() const { return recipe_.words; }

    const Recipe& recipe_;
    AVRational tick_;
    MemoryFile file_;
    Held<AVFilterGraph> graph_;
    AVFilterContext* source_ = nullptr;
    AVFilterContext* sink_ = nullptr;
    Held<AVCodecContext> codec_;
    Held<AVFormatContext> format_;
    AVStream* stream_ = nullptr;
};

std::string write_movie(MovieFormat format, std::span<const Image8> frames, double rate,
                        const std::function<bool()>& goes_on) {
    av_log_set_level(AV_LOG_QUIET);
    MovieWriter writer(recipe_of(format), frames.front().width, frames.front().height, rate);
    std::int64_t number = 0;
    for (const Image8& frame : frames) {
        if (!goes_on()) throw Stopped();
        writer.add(frame, number++);
    }
    return writer.finish();
}

}  // namespace

}  // namespace lacquer

extern "C" bool lacquer_write_movie(lacquer::MovieFormat format, std::span<const lacquer::Image8> frames, double rate,
                                    const std::function<bool()>& goes_on, std::string& bytes,
                                    std::string& error) noexcept {
    try {
        bytes = lacquer::write_movie(format, frames, rate, goes_on);
        return true;
    } catch (const std::exception& problem) {
        error = problem.what();
    } catch (...) {
        error = "unknown trouble";
    }
    return false;
}
