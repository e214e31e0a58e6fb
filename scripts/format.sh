#!/usr/bin/env bash
# Sets every file as the formatters want it: Prettier for PHP and the interface, then Pint for what Prettier leaves open.
# `./cartella format --check` only says which files are not so, and which lines are too long; the tests do that.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile "${CARTELLA_PROFILE:-desk}"
ensure_composer dev
ensure_npm
FILES=('**/*.php' 'ui/**/*.{ts,vue,css}' '*.ts' '*.js')
if [ "${1:-}" != --check ]; then
    php scripts/answer-types.php
    npx prettier --log-level warn --write "${FILES[@]}"
    vendor/bin/pint --quiet
    npx eslint --fix ui
    php scripts/line-lengths.php
    exit
fi
status=0
vendor/bin/pint --test --quiet || {
    say 'Pint would change these:'
    vendor/bin/pint --test | grep '⨯' || true
    status=1
}
npx prettier --log-level warn --check "${FILES[@]}" || status=1
npx eslint ui || status=1
php scripts/line-lengths.php || status=1
php scripts/answer-types.php --check || status=1
[ "$status" -eq 0 ] || say "'./cartella format' sets them right; a line that is still too long is broken by hand."
exit "$status"
