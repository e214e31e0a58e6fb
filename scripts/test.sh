#!/usr/bin/env bash
# Every check, or one: core, app, browser, unit, static, style, types, boundaries. CI calls it without a name.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
suite=${1:-all}
[ $# -gt 0 ] && shift
use_profile test
export APP_ENV=testing BCRYPT_ROUNDS=4 CARTELLA_CARD_LIBRARY=$CARTELLA_ROOT/var/demo/cards
# The interface's packages come from another registry and need nothing of Debian's, so both are fetched at once.
fetch_interface() { ! wants_interface || ensure_npm; }
wants_interface() { case $suite in all | browser | unit | style | types) true ;; *) false ;; esac; }
fetch_interface &
fetching=$!
ensure_debian "${DEBIAN_PACKAGES[@]}" "${TEST_PACKAGES[@]}"
ensure_composer
wait "$fetching" || exit 1

failed=()
step() {
    local name=$1 begin=$SECONDS
    shift
    say ''
    say "== $name"
    if "$@"; then say "== $name passed, $((SECONDS - begin)) s"; else
        failed+=("$name")
        say "== $name FAILED, $((SECONDS - begin)) s"
    fi
}
wants() { [ "$suite" = all ] || [ "$suite" = "$1" ]; }

phpunit() { php "${PHP_FLAGS[@]}" vendor/bin/phpunit "$@"; }
style() {
    vendor/bin/pint --test -q &
    local pint=$!
    npx eslint ui && wait "$pint"
}
static() { php -d memory_limit=1G vendor/bin/phpstan analyse --no-progress --no-ansi; }
wording() { [ ! -x ../shared/tools/wording ] || ../shared/tools/wording; }

# Browser tests that nothing may run beside.
ALONE='PlayerTest|RecoveryTest'

# finished PID LOG: what ran beside the others, with what it said.
finished() {
    local status=0
    wait "$1" || status=$?
    cat "$2"
    return "$status"
}

app_suite() {
    MYSQL_PWD=$DB_PASSWORD mariadb --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella \
        -e 'CREATE DATABASE IF NOT EXISTS cartella_app CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'
    DB_DATABASE=cartella_app phpunit --testsuite app "$@"
}

case $suite in
    all | core | app | browser | unit | static | style | types | boundaries) ;;
    *) fail "there is no suite '$suite'. Suites: core, app, browser, unit, static, style, types, boundaries." ;;
esac

checks() {
    if wants boundaries; then step boundaries php scripts/boundaries.php; fi
    if wants style; then step style style; fi
    if [ "$suite" = all ]; then step wording wording; fi
    if wants static; then step static static; fi
    if wants types; then step types npx vue-tsc --noEmit -p tsconfig.json; fi
    if wants unit; then step unit npx vitest run; fi
    if wants core; then step core phpunit --testsuite core "$@"; fi
    [ ${#failed[@]} -eq 0 ]
}
# Everything: what needs no server runs while the demo is made, on the core that leaves idle.
if [ "$suite" = all ]; then
    mkdir -p "$LOGS"
    checks > "$LOGS/checks.log" 2>&1 &
    checking=$!
else
    checks "$@" || true
fi

if wants app || wants browser; then
    trap 'trap - INT TERM; exit 130' INT TERM
    trap 'kill "${checking:-}" "${apart:-}" 2> /dev/null || true; services_down' EXIT
    # A server that an earlier, killed run of the tests left behind would hold the ports.
    if alive "$RUN/supervisord.pid" && grep -qa "$RUN/supervisord.conf" "/proc/$(cat "$RUN/supervisord.pid")/cmdline"; then
        kill -TERM "$(cat "$RUN/supervisord.pid")"
        wait_until 30 port_free "$DB_PORT" || true
    fi
    if wants browser; then
        ensure_ui
        ensure_demo_cards
    fi
    if [ "$suite" = all ] || wants browser; then
        app_up
        step demo artisan cartella:demo --again
        if [ "$suite" = all ]; then step checks finished "$checking" "$LOGS/checks.log"; fi
    else
        services_up
    fi
    if [ "$suite" = all ]; then
        # Side by side, on a database of its own; what plays against the clock, and what kills the database, runs alone.
        app_suite > "$LOGS/app-suite.log" 2>&1 &
        apart=$!
        step browser phpunit --testsuite browser --exclude-filter "$ALONE"
        step app finished "$apart" "$LOGS/app-suite.log"
        step 'browser, alone' phpunit --testsuite browser --filter "$ALONE"
    elif [ "$suite" = browser ]; then
        step browser phpunit --testsuite browser "$@"
    else
        step app app_suite "$@"
    fi
fi

say ''
if [ ${#failed[@]} -gt 0 ]; then
    say "Failed: ${failed[*]}"
    exit 1
fi
say 'Everything passed.'
