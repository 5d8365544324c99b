#include "drawing/canvas_reader.h"

#include <QAccessibleWidget>
#include <QPointer>
#include <map>
#include <optional>

#include "drawing/canvas.h"

namespace echappe {
namespace {

/// One readable of a canvas. What it says is what was painted last: it is asked anew each time.
class ReadablePlace : public QAccessibleInterface, public QAccessibleActionInterface {
public:
    ReadablePlace(Canvas* canvas, int index) : m_canvas(canvas), m_index(index) {}

    bool isValid() const override { return m_canvas && now(); }
    QObject* object() const override { return nullptr; }
    QWindow* window() const override { return m_canvas ? m_canvas->window()->windowHandle() : nullptr; }
    QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(m_canvas); }
    QAccessibleInterface* child(int) const override { return nullptr; }
    QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    int childCount() const override { return 0; }
    int indexOfChild(const QAccessibleInterface*) const override { return -1; }

    QString text(QAccessible::Text kind) const override {
        const auto one = now();
        if (!one) return {};
        switch (kind) {
            case QAccessible::Name:
                return one->value.isEmpty() ? one->name : one->name + ": " + one->value;
            case QAccessible::Value:
                return one->value;
            case QAccessible::Description:
                return one->hint;
            default:
                return {};
        }
    }
    void setText(QAccessible::Text, const QString&) override {}
    QRect rect() const override {
        const auto one = now();
        if (!one) return {};
        const QRect at = m_canvas->on_widget(one->at).toRect();
        return {m_canvas->mapToGlobal(at.topLeft()), at.size()};
    }
    QAccessible::Role role() const override {
        const auto one = now();
        return one && one->acts ? QAccessible::Button : QAccessible::StaticText;
    }
    QAccessible::State state() const override {
        QAccessible::State state;
        const auto one = now();
        if (!one) return state.invalid = true, state;
        state.readOnly = !one->acts;
        state.focusable = one->acts;
        state.focused = !one->tag.isEmpty() && m_canvas->hasFocus() && m_canvas->stands_on() == one->tag;
        state.selectable = state.selected = one->chosen;
        return state;
    }
    void* interface_cast(QAccessible::InterfaceType type) override {
        return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
    }

    QStringList actionNames() const override {
        const auto one = now();
        return one && one->acts ? QStringList{pressAction(), setFocusAction()} : QStringList();
    }
    void doAction(const QString& action) override {
        const auto one = now();
        if (!one || one->tag.isEmpty()) return;
        m_canvas->setFocus();
        if (action == pressAction()) m_canvas->act(one->tag);
        else if (action == setFocusAction()) m_canvas->stand_on(one->tag);
    }
    QStringList keyBindingsForAction(const QString&) const override { return {}; }

private:
    std::optional<Canvas::Readable> now() const {
        if (!m_canvas) return {};
        const auto& all = m_canvas->readables();
        if (m_index >= static_cast<int>(all.size())) return {};
        return all[static_cast<size_t>(m_index)];
    }
    QPointer<Canvas> m_canvas;
    int m_index;
};

/// The canvas: first what is painted on it, then what lies over it.
class CanvasReader : public QAccessibleWidget {
public:
    explicit CanvasReader(Canvas* canvas) : QAccessibleWidget(canvas, QAccessible::Pane, canvas->accessibleName()), m_canvas(canvas) {}
    ~CanvasReader() override {
        for (const auto& [index, id] : m_ids) QAccessible::deleteAccessibleInterface(id);
    }

    int childCount() const override { return painted() + QAccessibleWidget::childCount(); }
    QAccessibleInterface* child(int index) const override {
        if (index < 0) return nullptr;
        if (index >= painted()) return QAccessibleWidget::child(index - painted());
        auto known = m_ids.find(index);
        if (known == m_ids.end())
            known = m_ids.emplace(index, QAccessible::registerAccessibleInterface(new ReadablePlace(m_canvas, index))).first;
        return QAccessible::accessibleInterface(known->second);
    }
    int indexOfChild(const QAccessibleInterface* child) const override {
        for (const auto& [index, id] : m_ids)
            if (QAccessible::accessibleInterface(id) == child) return index;
        const int over = QAccessibleWidget::indexOfChild(child);
        return over < 0 ? over : over + painted();
    }
    QAccessibleInterface* childAt(int x, int y) const override {
        if (QAccessibleInterface* over = QAccessibleWidget::childAt(x, y)) return over;
        for (int i = 0; i < painted(); ++i)
            if (QAccessibleInterface* one = child(i); one->rect().contains(x, y)) return one;
        return nullptr;
    }
    QAccessibleInterface* focusChild() const override {
        if (m_canvas->hasFocus())
            for (int i = 0; i < painted(); ++i)
                if (QAccessibleInterface* one = child(i); one->state().focused) return one;
        return QAccessibleWidget::focusChild();
    }

private:
    int painted() const { return static_cast<int>(m_canvas->readables().size()); }
    Canvas* m_canvas;
    mutable std::map<int, QAccessible::Id> m_ids;
};

QAccessibleInterface* reader_of(const QString&, QObject* object) {
    auto* canvas = qobject_cast<Canvas*>(object);
    return canvas ? new CanvasReader(canvas) : nullptr;
}

}  // namespace

void read_canvases_aloud() {
    static const bool installed = [] {
        QAccessible::installFactory(reader_of);
        return true;
    }();
    static_cast<void>(installed);
}

}  // namespace echappe
