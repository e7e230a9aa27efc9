#include "desktop/pages/grounds/ground_pages.h"

#include "desktop/pages/form_changes.h"

namespace lacquer {

using namespace forms;

QString kind_words(const TableGround&) { return tr("table"); }

QString facts_of(const TableGround& ground) { return kind_words(ground); }

std::vector<Field> fields_of(const TableGround&, const Finish&) { return {}; }

QString change_field(TableGround&, const QString&, const QString&) { return {}; }

}  // namespace lacquer
