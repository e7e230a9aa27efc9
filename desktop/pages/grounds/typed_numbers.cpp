#include "desktop/pages/grounds/typed_numbers.h"

#include <QRegularExpression>

#include "core/base/text.h"

namespace lacquer {

std::vector<double> numbers_in(const QString& text) {
    static const QRegularExpression pattern(QStringLiteral("-?\\d+(\\.\\d+)?"));
    std::vector<double> numbers;
    for (auto match = pattern.globalMatch(text); match.hasNext();)
        numbers.push_back(match.next().captured().toDouble());
    return numbers;
}

std::optional<Vec3> point_from(const QString& text) {
    const QStringList parts = text.split(QRegularExpression(QStringLiteral("[,;\\s]+")), Qt::SkipEmptyParts);
    std::vector<double> numbers;
    for (const QString& part : parts) {
        if (const auto number = parse_number(part.toStdString())) numbers.push_back(*number);
    }
    if (numbers.size() != 3 || parts.size() != 3) return std::nullopt;
    return Vec3{numbers[0], numbers[1], numbers[2]};
}

}  // namespace lacquer
