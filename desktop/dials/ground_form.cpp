// The page of a picture, a gradient or a curve.
#include "core/finish/kinds.h"
#include "core/finish/stops_text.h"
#include "desktop/dials/form_changes.h"
#include "desktop/dials/forms.h"
#include "desktop/dials/stops_editor.h"

namespace lacquer {

using namespace forms;

namespace {

std::vector<Field> ground_fields(const Ground& ground) {
    const QString name = qs(shown_name(ground.name));
    if (ground.kind != GroundKind::picture) {
        const bool curve = ground.kind == GroundKind::curve;
        return {{"name", tr("Name"), name, tr("read by at(%1, t), t from 0 to 1").arg(qs(ground.name))},
                {"stops", tr("Stops"), qs(stops_text(ground.kind, ground.stops)),
                 curve ? tr("places and heights: 0 0, 0.5 1, 1 0")
                       : tr("places and colours: 0 #101820 opacity 0, 1 #FFCC88 x 2")}};
    }
    const QStringList meanings{"colour", "data"};
    const QStringList wraps{"clamp", "repeat", "mirror"};
    const QStringList filters{"linear", "nearest"};
    return {{"name", tr("Name"), name, {}},
            {"path", tr("File"), qs(ground.path), tr("as seen from the finish's own file")},
            {"meaning", tr("Holds"), meanings[ground.data ? 1 : 0],
             tr("data is taken as it is, colour is turned into linear light"), meanings},
            {"wrap", tr("Beyond its borders"), sv(wrap_name(ground.sampling.wrap)),
             tr("the outermost pixels, the picture again, or its mirror image"), wraps},
            {"filter", tr("Between pixels"), sv(filter_name(ground.sampling.filter)), tr("mixed, or the nearest one"),
             filters}};
}

QString ground_changed(Ground& ground, const QString& key, const QString& text) {
    const std::string typed = text.toStdString();
    if (key == "path") ground.path = typed;
    if (key == "meaning") ground.data = typed == "data";
    if (key == "wrap") ground.sampling.wrap = wrap_named(typed).value_or(ground.sampling.wrap);
    if (key == "filter") ground.sampling.filter = filter_named(typed).value_or(ground.sampling.filter);
    if (key == "stops") {
        Result<std::vector<Stop>> stops = parse_stops(ground.kind, typed);
        if (!stops) return qs(stops.fault().message + " - " + stops.fault().mend);
        ground.stops = std::move(*stops);
    }
    return {};
}

}  // namespace

void show_ground_form(FieldForm& form, Session& session, std::size_t ground) {
    if (ground >= session.finish().grounds.size()) return;
    const Ground& found = session.finish().grounds[ground];
    const QString title = found.kind == GroundKind::picture    ? tr("Picture %1")
                          : found.kind == GroundKind::gradient ? tr("Gradient %1")
                                                               : tr("Curve %1");
    const Name name = std::make_shared<std::string>(found.name);
    form.show_fields(title.arg(qs(shown_name(found.name))), ground_fields(found),
                     [&session, &form, name, ground](const QString& key, const QString& text) {
                         if (key == "name") {
                             const QString complaint = rename_to(session, name, text);
                             if (complaint.isEmpty())
                                 show_again(form,
                                            [&form, &session, ground] { show_ground_form(form, session, ground); });
                             return complaint;
                         }
                         return change_named(session, &Finish::grounds, *name,
                                             [&](Ground& g) { return ground_changed(g, key, text); });
                     });
    if (found.kind == GroundKind::picture) return;
    auto* stops = new StopsEditor(session, found.name, &form);
    QObject::connect(stops, &StopsEditor::wants_colour, &form, &FieldForm::wants_stop_colour);
    form.set_top(stops);
}

}  // namespace lacquer
