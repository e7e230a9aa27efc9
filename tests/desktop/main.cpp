// The window's tests need one application for all; it must be made before any of them.
#include <QApplication>
#include <QStandardPaths>
#include <cstdlib>

#include "desktop/kit/plurals.h"
#include "desktop/kit/theme.h"
#include "tests/support/run_tests.h"
#include "tests/support/temporary.h"

int main(int argc, char** argv) {
    const lacquer::test::TemporaryFolder state;
    setenv("XDG_STATE_HOME", state.path().c_str(), 1);
    setenv("XDG_RUNTIME_DIR", state.path().c_str(), 1);
    lacquer::theme::prepare_fonts();
    QApplication application(argc, argv);
    lacquer::theme::apply(application);
    lacquer::EnglishPlurals plurals;
    QCoreApplication::installTranslator(&plurals);
    return lacquer::test::run_tests(argc, argv);
}
