// A small page of named fields: type, and it holds at once.
#pragma once

#include <QLineEdit>
#include <QPointer>
#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

class QGridLayout;
class QHBoxLayout;
class QLabel;

namespace lacquer {

/// One field. With choices it is a list to choose from, else a line to type in.
struct Field {
    /// A number that may lie anywhere from one value to another: it has a track with two handles beside its line.
    struct Span {
        double least = 0;  ///< of the track
        double most = 1;
        double from = 0;
        double to = 0;
    };

    QString key;
    QString label;
    QString value;
    QString hint;
    QStringList choices = {};
    bool typed_too = false;  ///< something else than the choices can be typed
    QString group = {};      ///< fields of one group are shown at a time; those of none always
    std::optional<Span> span = {};
};

class FieldForm : public QWidget {
    Q_OBJECT

public:
    /// What a changed field does; the text that it gives back says what was wrong, empty if nothing was.
    using Change = std::function<QString(const QString& key, const QString& value)>;

    /// A narrow one has the words about its fields below its title, and not beside it.
    explicit FieldForm(QWidget* parent = nullptr, bool narrow = false);
    /// Shows these fields instead of others. A field that had the focus keeps it.
    void show_fields(const QString& title, const std::vector<Field>& fields, Change change);
    /// What the fields hold now, so that they follow what is changed elsewhere; until other fields are shown.
    void follow(std::function<std::vector<Field>()> fields) { now_ = std::move(fields); }
    /// Takes up what `follow` gives. What is being typed stays.
    void refresh();
    /// Other choices for a field that has some, and which of them holds now.
    void set_choices(const QString& key, const QStringList& choices, const QString& now);
    /// Puts the keys on the first field.
    void focus_first();
    /// Makes a widget that stands beside the groups' tabs, until other fields are shown.
    void set_beside(std::function<QWidget*(QWidget* parent)> make);
    /// Puts a widget of its own above the fields that are shown; it goes with them.
    void set_top(QWidget* top);

Q_SIGNALS:
    void closed();
    /// A number is dragged by its label, or let go.
    void dragging(bool on);
    /// A gradient's stop wants another colour.
    void wants_stop_colour(const QString& ground, std::size_t stop, const QRect& at);

protected:
    void keyPressEvent(QKeyEvent* event) override;
    /// The field with the focus says what it is for. Letters typed into a list choose from it; they are no shortcuts
    /// then.
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void build();
    void add_tabs(const QStringList& groups);
    QWidget* line_of(const Field& field);
    QWidget* box_of(const Field& field);
    QWidget* with_track(const Field& field, QLineEdit* line);
    void apply(const QString& key, const QString& value);
    void take(QLineEdit* line, const QString& key);
    bool drag_label(QObject* label, QEvent* event);
    void tell(const QString& words, bool wrong);
    QLabel* title_;
    QLabel* words_;  ///< what the field is for, or what is wrong
    bool wrong_ = false;
    QGridLayout* grid_;
    QWidget* fields_ = nullptr;
    QWidget* first_ = nullptr;
    int first_row_ = 1;  ///< of the column, below title and words
    QWidget* top_ = nullptr;
    std::function<QWidget*(QWidget*)> beside_;
    QHBoxLayout* tabs_ = nullptr;  ///< of the fields that are shown
    std::function<std::vector<Field>()> now_;
    std::vector<Field> all_;
    QString group_;  ///< that is shown
    Change change_;
    int drag_x_ = 0;
    double dragged_ = 0;
    QPointer<QLineEdit> drag_line_;
    QString drag_text_;     ///< of the line, before
    double drag_step_ = 0;  ///< of a pixel; 0 while nothing is dragged
};

}  // namespace lacquer
