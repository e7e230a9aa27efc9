#include "desktop/formulas/function_help.h"

#include <QBuffer>
#include <QImage>
#include <QObject>
#include <algorithm>

#include "core/finish/checked.h"
#include "core/finish/function_shown.h"
#include "core/finish/shown.h"
#include "core/render/renderer.h"
#include "core/render/view.h"
#include "core/shader/prelude.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/text.h"

namespace lacquer {

namespace {

constexpr int picture_width = 224;
constexpr int picture_height = 126;
constexpr double shown_at = 1;  // seconds; what goes on from tick to tick has begun by then

// The picture as the text of an image; empty where nothing is to be seen.
QString picture_of(const std::string& formula) {
    if (formula.empty()) return {};
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish_on_samples(formula))));
    request.frame_width = picture_width;
    request.frame_height = picture_height;
    request.steps = {"shown"};
    request.time = shown_at;
    request.seen = ViewStyle();
    const Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame || frame->steps.empty()) return {};
    const Image8& drawn = frame->steps.front().image;
    const QImage image(drawn.data.data(), drawn.width, drawn.height, drawn.width * 4, QImage::Format_RGBA8888);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return QStringLiteral("<p><img src='data:image/png;base64,%1'></p>").arg(QString::fromLatin1(bytes.toBase64()));
}

}  // namespace

QString function_help(const std::string& name) {
    const std::optional<ShownFunction> shown = shown_function(name);
    if (!shown) return {};
    QString html;
    for (const ShownCall& row : shown->rows) {
        html += QStringLiteral("<p><code>%1</code><br>%2</p>")
                    .arg(qs(row.head).toHtmlEscaped(), core_words(row.words).toHtmlEscaped());
    }
    const QString from = is_glsl_function(name) ? QObject::tr("A function of GLSL ES 3.00.")
                                                : QObject::tr("A function of Lacquer's own.");
    return QStringLiteral("<b>%1</b>%2%3<p>%4</p>").arg(qs(name), picture_of(shown->formula), html, from);
}

}  // namespace lacquer
