#include "desktop/shell/help_card.h"

#include <QAction>
#include <QApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/document/document.h"
#include "desktop/kit/dial_text.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/row_lines.h"
#include "desktop/shell/actions.h"

namespace lacquer {

HelpCard::HelpCard(QWidget* window) : QFrame(window), label_(new QLabel), scroll_(new QScrollArea(this)) {
    setObjectName(QStringLiteral("help_card"));
    setAccessibleName(tr("Help"));
    setFocusPolicy(Qt::StrongFocus);
    setStyleSheet(QStringLiteral("#help_card { background: %1; border: 1px solid %2; border-radius: 3px; }")
                      .arg(theme::panel.name(), theme::edge.name()));
    label_->setWordWrap(true);
    label_->setTextFormat(Qt::RichText);
    label_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    label_->setMargin(10);
    scroll_->setWidget(label_);
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setFocusPolicy(Qt::NoFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2, 2, 2, 2);
    column->addWidget(scroll_);
    hide();
}

QString HelpCard::text() const { return label_->text(); }

void HelpCard::show_at(const QString& html, const QRect& area) {
    if (!isVisible()) before_ = QApplication::focusWidget();
    label_->setText(html);
    setGeometry(area);
    scroll_->verticalScrollBar()->setValue(0);
    show();
    raise();
    setFocus();
}

void HelpCard::show_beside(const QString& html, const QRect& area) {
    constexpr int width = 380;
    label_->setText(html);
    const int height = std::clamp(label_->heightForWidth(width - 24) + 28, 80, parentWidget()->height() - 80);
    const int x = std::clamp(area.right() - width - 12, 12, parentWidget()->width() - width - 12);
    const int y = std::clamp(area.top() + 40, 48, std::max(48, parentWidget()->height() - height - 12));
    show_at(html, QRect(x, y, width, height));
}

void HelpCard::show_sheet(const QString& html) {
    const QRect window = parentWidget()->rect();
    show_at(html, window.adjusted(40, 48, -40, -40));
}

bool HelpCard::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept();
        return true;
    }
    return QFrame::event(event);
}

void HelpCard::keyPressEvent(QKeyEvent* event) {
    QScrollBar* bar = scroll_->verticalScrollBar();
    switch (event->key()) {
        case Qt::Key_Up:
            return bar->setValue(bar->value() - 40);
        case Qt::Key_Down:
            return bar->setValue(bar->value() + 40);
        case Qt::Key_PageUp:
            return bar->setValue(bar->value() - bar->pageStep());
        case Qt::Key_PageDown:
            return bar->setValue(bar->value() + bar->pageStep());
        default:
            hide();
            if (before_ != nullptr && before_->isVisible()) before_->setFocus();
    }
}

void HelpCard::mousePressEvent(QMouseEvent*) { hide(); }

QString dial_help(const Document& document, const std::string& dial) {
    const Dial* found = find_dial(document.finish(), dial);
    if (found == nullptr) {
        return document.keyed(
            QObject::tr("<b>Dials</b><p>A dial is a number, switch or colour with a name and a range. Go to a number "
                        "in a formula and press {add_dial} to make it one.</p>"));
    }
    QString html = QStringLiteral("<b>%1</b>").arg(qs(shown_name(found->name)).toHtmlEscaped());
    if (!found->note.empty()) html += QStringLiteral("<p>%1</p>").arg(qs(found->note).toHtmlEscaped());
    html += QObject::tr("<p>%1 to %2%3, default %4. The game calls it <b>%5</b>.</p>")
                .arg(qs(plain_number(found->least, 4)), qs(plain_number(found->most, 4)),
                     found->unit.empty() ? QString() : QLatin1Char(' ') + qs(found->unit),
                     dial_value_text(*found, found->default_value), qs(found->code_name).toHtmlEscaped());
    if (!found->formula.empty())
        html += QObject::tr("<p>Driven by <code>%1</code>. Drag it to hold it still, {let_go} lets go.</p>")
                    .arg(qs(found->formula).toHtmlEscaped());
    const std::vector<std::string> users = users_of(document.finish(), dial);
    if (!users.empty()) html += QObject::tr("<p>Used by %1 ({dial_use} goes there).</p>").arg(joined_names(users));
    return document.keyed(html + QObject::tr("<p>Left and right change it, Shift finer, Ctrl coarser; {type_value} "
                                             "types; {reset_dial} resets; {dial_page} "
                                             "opens its page.</p>"));
}

QString stage_help(const Document& document) {
    return document.keyed(
        QObject::tr("<b>Stage</b><p>The finished picture, or the selected step ({show_selected}). The wheel zooms "
                    "about the mouse; from 40 times "
                    "on, pixels show their values.</p><p><b>{curtain}</b> parts it between before and after. "
                    "<b>{pin}</b> keeps the selected "
                    "step beside it. <b>{core_sample}</b> shows every step's value at the pixel under the mouse, "
                    "beside its row; a click holds "
                    "the place. <b>{transect}</b> plots values along a line; drag the guides to measure, or the edges "
                    "that are dials.</p>"
                    "<p><b>{frame_shape}</b> another frame shape, <b>{line_grid}</b> straight lines to see a warp, "
                    "<b>{mark_range}</b> marks what leaves "
                    "0..1, <b>{false_colours}</b> false colours for masks, <b>{darker}</b> and <b>{brighter}</b> "
                    "exposure for looking only.</p>"));
}

QString shortcut_sheet(const QHash<QString, QAction*>& actions) {
    QString html = QStringLiteral("<table width='100%'><tr><td valign='top' width='33%'>");
    QString menu;
    int lines = 0;
    int columns = 1;
    int all = 0;
    for (const ActionRow& row : action_rows()) all += *row.id != '\0' ? 1 : 0;
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0') continue;
        const QString title = QObject::tr(row.menu);
        if (title != menu) {
            if (!menu.isEmpty()) html += QStringLiteral("</table>");
            // Three columns, broken between menus.
            if (lines > all * columns / 3 && columns < 3) {
                html += QStringLiteral("</td><td valign='top' width='33%'>");
                ++columns;
            }
            html += QStringLiteral("<p><b>%1</b></p><table>").arg(title);
            menu = title;
        }
        const QAction* action = actions[QString::fromLatin1(row.id)];
        html += QStringLiteral("<tr><td style='color:%1; padding-right:12px'>%2</td><td>%3</td></tr>")
                    .arg(theme::gold.name(), action->shortcut().toString(QKeySequence::NativeText).toHtmlEscaped(),
                         QObject::tr(row.words).toHtmlEscaped());
        ++lines;
    }
    html += QObject::tr(
                "</table><p><b>On a number in a formula</b></p><table>"
                "<tr><td style='color:%1; padding-right:12px'>drag, wheel, + -</td><td>change it; Shift finer, "
                "Ctrl coarser</td></tr><tr><td style='color:%1'>← →</td><td>from word to word</td></tr>"
                "<tr><td style='color:%1'>Enter</td><td>edit the word; 0.3 * 2 is computed</td></tr></table>")
                .arg(theme::gold.name());
    return html + QStringLiteral("</td></tr></table>");
}

}  // namespace lacquer
