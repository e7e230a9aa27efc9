#include "desktop/formulas/completion_choice.h"

#include <QObject>

#include "core/base/text.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/text.h"

namespace lacquer {

namespace {

QString kind_words(CompletionKind kind) {
    switch (kind) {
        case CompletionKind::step:
            return QObject::tr("step");
        case CompletionKind::picture:
            return QObject::tr("picture");
        case CompletionKind::gradient:
            return QObject::tr("gradient or curve");
        case CompletionKind::dial:
            return QObject::tr("dial");
        case CompletionKind::response:
            return QObject::tr("response");
        case CompletionKind::known:
            return QObject::tr("known");
        case CompletionKind::variable:
            return QObject::tr("variable");
        case CompletionKind::function:
        case CompletionKind::operation:
        case CompletionKind::type:
            break;
    }
    return {};
}

}  // namespace

bool is_called(CompletionKind kind) {
    return kind == CompletionKind::function || kind == CompletionKind::operation || kind == CompletionKind::type;
}

Choice choice_of(const Completion& completion) {
    Choice choice{is_called(completion.kind) ? qs(completion.signature) : qs(shown_name(completion.name))};
    choice.words = core_words(completion.words);
    const QString kind = kind_words(completion.kind);
    choice.key = kind;
    choice.fits = completion.fits;
    choice.is_code = is_called(completion.kind);
    const bool is_shown = completion.kind != CompletionKind::variable && !is_called(completion.kind);
    choice.has_picture = is_shown || completion.kind == CompletionKind::operation;
    return choice;
}

}  // namespace lacquer
