#include "desktop/kit/accessible_cells.h"

#include <QAbstractScrollArea>
#include <QAccessibleWidget>
#include <QWidget>
#include <map>

namespace lacquer {

namespace {

class CellInterface : public QAccessibleInterface, public QAccessibleActionInterface {
public:
    CellInterface(QWidget* view, CellSource* source, int index) : view_(view), source_(source), index_(index) {}

    bool isValid() const override { return index_ < source_->cell_count(); }
    QObject* object() const override { return nullptr; }
    QWindow* window() const override { return view_->window()->windowHandle(); }
    QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(view_); }
    QAccessibleInterface* child(int) const override { return nullptr; }
    int childCount() const override { return 0; }
    int indexOfChild(const QAccessibleInterface*) const override { return -1; }
    QString text(QAccessible::Text kind) const override {
        if (!isValid()) return {};
        if (kind == QAccessible::Name) return source_->cell(index_).name;
        return kind == QAccessible::Value ? source_->cell(index_).value : QString();
    }
    void setText(QAccessible::Text, const QString&) override {}
    QRect rect() const override {
        const QRect area = isValid() ? source_->cell(index_).area : QRect();
        if (area.isNull()) return {};
        const auto* scrolled = qobject_cast<QAbstractScrollArea*>(view_);
        const QWidget* within = scrolled != nullptr ? scrolled->viewport() : view_;
        return {within->mapToGlobal(area.topLeft()), area.size()};
    }
    QAccessible::Role role() const override { return isValid() ? source_->cell(index_).role : QAccessible::NoRole; }
    QAccessible::State state() const override {
        QAccessible::State state;
        if (!isValid()) {
            state.invalid = true;
            return state;
        }
        const AccessibleCell cell = source_->cell(index_);
        state.selectable = true;
        state.focusable = true;
        state.selected = cell.chosen;
        state.focused = cell.chosen && view_->hasFocus();
        state.offscreen = cell.area.isNull();
        return state;
    }
    void* interface_cast(QAccessible::InterfaceType type) override {
        return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
    }
    QStringList actionNames() const override { return isValid() ? source_->cell(index_).actions : QStringList(); }
    void doAction(const QString& action) override {
        if (isValid()) source_->act_on_cell(index_, action);
    }
    QStringList keyBindingsForAction(const QString&) const override { return {}; }

private:
    QWidget* view_;
    CellSource* source_;
    int index_;
};

class ViewInterface : public QAccessibleWidget {
public:
    ViewInterface(QWidget* view, CellSource* source) : QAccessibleWidget(view, QAccessible::List), source_(source) {}
    ~ViewInterface() override {
        for (const auto& [index, id] : cells_) QAccessible::deleteAccessibleInterface(id);
    }

    int childCount() const override { return source_->cell_count(); }
    QAccessibleInterface* child(int index) const override {
        if (index < 0 || index >= source_->cell_count()) return nullptr;
        const auto found = cells_.find(index);
        if (found != cells_.end()) return QAccessible::accessibleInterface(found->second);
        auto* made = new CellInterface(widget(), source_, index);
        cells_[index] = QAccessible::registerAccessibleInterface(made);
        return made;
    }
    int indexOfChild(const QAccessibleInterface* child) const override {
        for (const auto& [index, id] : cells_) {
            if (QAccessible::accessibleInterface(id) == child) return index;
        }
        return -1;
    }
    QAccessibleInterface* childAt(int x, int y) const override {
        for (int i = 0; i < childCount(); ++i) {
            if (child(i)->rect().contains(x, y)) return child(i);
        }
        return nullptr;
    }

private:
    CellSource* source_;
    mutable std::map<int, QAccessible::Id> cells_;
};

QAccessibleInterface* view_interface(const QString&, QObject* object) {
    auto* source = dynamic_cast<CellSource*>(object);
    auto* view = qobject_cast<QWidget*>(object);
    return source != nullptr && view != nullptr ? new ViewInterface(view, source) : nullptr;
}

}  // namespace

void install_accessible_cells() { QAccessible::installFactory(view_interface); }

}  // namespace lacquer
