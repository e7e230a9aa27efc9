// Code in the theme's colours: words of the language, remarks, directives, and what the finish knows by name.
#pragma once

#include <QSyntaxHighlighter>
#include <memory>

#include "core/finish/finish.h"

namespace lacquer {

class CodeColours : public QSyntaxHighlighter {
    Q_OBJECT

public:
    explicit CodeColours(QTextDocument* document);
    /// Names are those of this finish from now on.
    void use(std::shared_ptr<const Finish> finish);

protected:
    void highlightBlock(const QString& line) override;

private:
    enum State { in_code = 0, in_remark = 1 };
    qsizetype remark(const QString& line, qsizetype from);
    qsizetype word(const QString& line, qsizetype from);

    std::shared_ptr<const Finish> finish_;
};

}  // namespace lacquer
