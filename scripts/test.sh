#!/usr/bin/env bash
# Every check, or one of them; `quick` is everything that needs no service. CI calls it without a name.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
suite=${1:-all}
[ $# -gt 0 ] && shift
# A machine of its own; asked for by its name, since that takes ten minutes.
if [ "$suite" = package ]; then exec scripts/package-try.sh; fi
use_profile test
export APP_ENV=testing BCRYPT_ROUNDS=4 CARTELLA_CARD_LIBRARY=$CARTELLA_ROOT/var/demo/cards
# The interface's packages come from another registry and need nothing of Debian's, so both are fetched at once.
fetch_interface() { ! wants_interface || ensure_npm; }
wants_interface() { case $suite in all | quick | app | browser | unit | style | types) true ;; *) false ;; esac; }
fetch_interface &
fetching=$!
if [ "$suite" = quick ]; then ensure_debian "${QUICK_PACKAGES[@]}"; else ensure_debian "${DEBIAN_PACKAGES[@]}" "${TEST_PACKAGES[@]}"; fi
ensure_composer dev
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
# What needs no server.
looks() { [ "$suite" = quick ] || wants "$1"; }

phpunit() { php "${PHP_FLAGS[@]}" vendor/bin/phpunit "$@"; }
style() { scripts/format.sh --check; }
static() { php -d memory_limit=1G vendor/bin/phpstan analyse --no-progress --no-ansi; }
wording() { [ ! -x ../shared/tools/wording ] || ../shared/tools/wording; }

# Known holes in what is installed, where the registry answers such a question; a registry that does not is no fault here.
audit() {
    local answer status=0
    answer=$(timeout 60 composer audit --no-interaction --format=plain 2>&1) || status=$?
    case $status:$answer in
        0:*) say 'composer: no advisory for what is installed.' ;;
        *'CVE-'* | *'Advisory ID'* | *'GHSA-'*)
            say "$answer"
            return 1
            ;;
        *) say 'composer: the registry answers no audit.' ;;
    esac
    [ -d node_modules ] || return 0
    answer=$(timeout 60 npm audit --omit=dev --json 2> /dev/null) || true
    case $answer in
        *'"auditReportVersion"'*)
            printf '%s' "$answer" | php -r '$found = json_decode(stream_get_contents(STDIN), true)["metadata"]["vulnerabilities"]; echo "npm: ", json_encode($found), "\n"; exit($found["high"] + $found["critical"] > 0 ? 1 : 0);'
            ;;
        *) say 'npm: the registry answers no audit.' ;;
    esac
}

# A backup of the desk that is running, put back beside it, holds the same rows.
drill() {
    local kept=$CARTELLA_VAR/drill-backup sums_before sums_after
    rm -rf "$kept"
    CARTELLA_PROFILE_FOR_BACKUP=test scripts/backup.sh "$kept" --proxies || return 1
    local one
    one=$(echo "$kept"/cartella-*)
    sums_before=$(table_sums "$one")
    (
        unset APP_KEY DB_PASSWORD CARTELLA_PANEL_TOKEN
        CARTELLA_PROFILE_FOR_BACKUP=drill scripts/restore.sh "$one" && scripts/drill.sh
    ) > "$LOGS/drill.log" 2>&1 || {
        cat "$LOGS/drill.log"
        return 1
    }
    sums_after=$(sed -n 's/^SUM //p' "$LOGS/drill.log")
    rm -rf "$kept"
    [ -n "$sums_after" ] && [ "$sums_before" = "$sums_after" ] || {
        diff <(echo "$sums_before") <(echo "$sums_after") || true
        return 1
    }
    say "$(echo "$sums_after" | wc -l) tables came back row for row."
}

# Checksums of the tables as the dump has them: work goes on meanwhile, so the running database may be farther already.
table_sums() { zcat "$1/database.sql.gz" | php scripts/dump-sums.php; }

# Browser tests that nothing may run beside.
ALONE='PlayerTest|EngineTest|RecoveryTest|ScreeningTest|ThreeCamerasTest'

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
    all | quick | core | app | browser | drill | fuzz | unit | static | style | types | boundaries | audit) ;;
    *) fail "there is no suite '$suite'. Suites: quick, core, app, browser, drill, fuzz, unit, static, style, types, boundaries, audit, package." ;;
esac

checks_of_pages() {
    if looks style; then step style style; fi
    if looks types; then step types npx vue-tsc --noEmit -p tsconfig.json; fi
    if looks unit; then step unit npx vitest run "$@"; fi
    [ ${#failed[@]} -eq 0 ]
}
checks_of_core() {
    if looks boundaries; then step boundaries php scripts/boundaries.php; fi
    if [ "$suite" = all ] || [ "$suite" = quick ]; then step wording wording; fi
    if wants audit; then step audit audit; fi
    if looks static; then step static static; fi
    if looks core; then step core phpunit --testsuite core "$@"; fi
    if looks fuzz; then step fuzz phpunit --testsuite fuzz; fi
    [ ${#failed[@]} -eq 0 ]
}
checks() {
    checks_of_pages "$@" || true
    checks_of_core "$@"
}
# Everything: what needs no server runs while the demo is made, on the core that leaves idle.
if [ "$suite" = all ]; then
    mkdir -p "$LOGS"
    (renice -n 7 -p "$BASHPID" > /dev/null && checks) > "$LOGS/checks.log" 2>&1 &
    checking=$!
elif [ "$suite" = quick ]; then
    # Side by side: neither half keeps two cores busy.
    mkdir -p "$LOGS"
    (checks_of_pages) > "$LOGS/pages.log" 2>&1 &
    pages=$!
    checks_of_core || true
    step 'what is of pages' finished "$pages" "$LOGS/pages.log"
else
    checks "$@" || true
fi

if wants app || wants browser || wants drill; then
    trap 'trap - INT TERM; exit 130' INT TERM
    trap 'kill "${checking:-}" "${apart:-}" 2> /dev/null || true; services_down' EXIT
    # Two runs in one folder would end each other's servers.
    other=$(cat "$RUN/tests.pid" 2> /dev/null || true)
    if [ -n "$other" ] && tr '\0' ' ' 2> /dev/null < "/proc/$other/cmdline" | grep -q 'scripts/test.sh'; then
        trap - EXIT
        fail "the tests run from this folder already, as process $other. Wait for them, or end them."
    fi
    echo $$ > "$RUN/tests.pid"
    # A server that an earlier, killed run of the tests left behind would hold the ports.
    if alive "$RUN/supervisord.pid" && grep -qa "$RUN/supervisord.conf" "/proc/$(cat "$RUN/supervisord.pid")/cmdline"; then
        kill -TERM "$(cat "$RUN/supervisord.pid")"
        wait_until 30 port_free "$DB_PORT" || true
    fi
    end_remains
    # A card that a killed run left in a reader would be a card of the next one.
    awk -v base="$CARTELLA_VAR/volumes/" 'index($2, base) == 1 { print $2 }' /proc/mounts | while read -r mounted; do as_root umount "$mounted"; done
    rm -rf "$CARTELLA_VAR/volumes"
    ensure_ui
    if wants browser || wants drill; then ensure_demo_cards; fi
    if wants browser || wants drill; then
        app_up
        step demo artisan cartella:demo --again
        if [ "$suite" = all ]; then step checks finished "$checking" "$LOGS/checks.log"; fi
    else
        services_up
    fi
    if [ "$suite" = all ]; then
        # Side by side, on a database of its own; what plays against the clock, and what kills the database, runs alone.
        # Workers of the desk under test run at such a priority, too; a browser that waits for one comes before what has time.
        (renice -n 7 -p "$BASHPID" > /dev/null && app_suite) > "$LOGS/app-suite.log" 2>&1 &
        apart=$!
        step browser phpunit --testsuite browser --exclude-filter "$ALONE"
        step app finished "$apart" "$LOGS/app-suite.log"
        step 'browser, alone' phpunit --testsuite browser --filter "$ALONE"
        step drill drill
    elif [ "$suite" = browser ]; then
        step browser phpunit --testsuite browser "$@"
    elif [ "$suite" = drill ]; then
        step drill drill
    else
        step app app_suite "$@"
    fi
fi

if wants app || wants browser || wants drill; then
    services_down
    # Nothing that a command started outlives it.
    if [ -n "$(remains)" ]; then failed+=("processes that outlived the tests: $(remains | tr '\n' ' ')"); fi
fi

say ''
if [ ${#failed[@]} -gt 0 ]; then
    say "Failed: ${failed[*]}"
    exit 1
fi
say 'Everything passed.'
