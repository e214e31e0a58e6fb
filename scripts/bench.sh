#!/usr/bin/env bash
# Measures speed as ratios against a floor taken in the same run: offload, lineup, lists, bins, cards, log, map, handoff, words, assembly, player [MINUTES], screening [MINUTES], soak [MINUTES], scale [PRODUCTIONS]; memory:
# hours [HOURS]; and a line-up of very many clips: many [COUNT]. A missed bar ends with an error, after the other benches have run. `kills [COUNT] [SEED]` and `fuzz [COUNT] [SEED]` are no measures: they
# kill what is at work, or feed the readers broken files, and look whether anything is lost.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
which=${1:-all}
case $which in
    all | offload | lineup | hours | many | lists | bins | cards | log | map | handoff | words | assembly | player | screening | soak | scale | kills | fuzz) ;;
    *) fail "there is no bench '$which'. Benches: offload, lineup, hours, many, lists, bins, cards, log, map, handoff, words, assembly, player, screening, soak, scale, kills, fuzz." ;;
esac
use_profile bench
export APP_ENV=production CARTELLA_CARD_LIBRARY=$CARTELLA_ROOT/var/demo/cards
ensure_debian "${DEBIAN_PACKAGES[@]}" xxhash
ensure_composer dev
missed=()
wants() { [ "$which" = all ] || [ "$which" = "$1" ]; }
# bench NAME ARGUMENT…: one of scripts/bench, as the account that the desk runs as.
bench() {
    local name=$1
    shift
    as_desk php "${PHP_FLAGS[@]}" -d memory_limit=2G "scripts/bench/$name.php" "$@" || missed+=("$name")
}
fill() {
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    artisan cartella:bench-fill "$@"
}

if wants offload; then bench offload "$CARTELLA_VAR/offload"; fi
if wants lineup; then
    ensure_demo_cards
    bench lineup "$CARTELLA_ROOT/var/demo" "$CARTELLA_VAR/lineup"
fi
if wants hours; then
    as_desk mkdir -p "$CARTELLA_VAR/hours"
    bench hours "$CARTELLA_VAR/hours" "${2:-40}"
fi
# Twenty minutes by itself, so it is asked for by its name.
if [ "$which" = many ]; then
    as_desk mkdir -p "$CARTELLA_VAR/many"
    bench many "$CARTELLA_VAR/many" "${2:-2000}" "${3:-7}"
fi
if [ "$which" = fuzz ]; then bench fuzz "$CARTELLA_VAR/fuzz" "${2:-100000}" "${3:-1}"; fi
case $which in all | lists | bins | cards | log | map | handoff | words | assembly | player | screening | soak | scale | kills)
    ensure_ui
    if [ "$which" != lists ] && [ "$which" != cards ]; then ensure_debian "${TEST_PACKAGES[@]}"; fi
    trap services_down EXIT
    rm -rf "$CARTELLA_VAR"/{volumes,stores,proxies}
    as_desk mkdir -p "$CARTELLA_BENCH" "$CARTELLA_STORE_1" "$CARTELLA_STORE_2"
    services_up
    case $which in kills) fill --clips=30 ;; lists | cards) fill --clips=20000 ;; map) fill --map ;; bins) fill --clips=200000 --bins ;; player | screening | words | soak | scale) ;; *) fill --clips=60000 ;; esac
    supervise start watch > /dev/null
    wait_until 20 web_answers
    ;;
esac
if wants lists; then
    export BENCH_CUT
    BENCH_CUT=$(MYSQL_PWD=$DB_PASSWORD mariadb --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella "$DB_DATABASE" -N -e "SELECT ulid FROM sequences WHERE kind = 'cut' LIMIT 1")
    bench lists
fi
if wants cards; then bench cards; fi
if wants log; then bench log; fi
if wants assembly; then
    export BENCH_CUT
    BENCH_CUT=$(MYSQL_PWD=$DB_PASSWORD mariadb --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella "$DB_DATABASE" -N -e "SELECT ulid FROM sequences WHERE kind = 'string_out' LIMIT 1")
    bench assembly
fi
if wants handoff; then
    as_desk mkdir -p "$CARTELLA_VAR/handoff"
    MYSQL_PWD=$DB_PASSWORD mariadb --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella "$DB_DATABASE" -N \
        -e "SELECT name, start_ticks, duration_ticks FROM clips WHERE kind = 'picture' AND start_ticks IS NOT NULL ORDER BY CRC32(id) LIMIT 2000" \
        | as_desk tee "$CARTELLA_VAR/handoff/clips.tsv" > /dev/null
    bench handoff "$CARTELLA_VAR/handoff"
fi
if [ "$which" = all ]; then fill --clips=200000 --bins; fi
if wants bins; then bench bins; fi
if [ "$which" = all ]; then fill --map; fi
if wants map; then bench map; fi
if wants words; then
    ensure_demo_cards
    as_desk mkdir -p "$CARTELLA_VAR/words"
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    read -r _ BENCH_CLIP <<< "$(artisan cartella:bench-words "$CARTELLA_VAR/words" | tail -1)"
    export BENCH_CLIP
    bench words "$CARTELLA_ROOT/var/demo" "$CARTELLA_VAR/words"
fi
# Nine cameras with media of their own.
if wants assembly; then
    as_desk mkdir -p "$CARTELLA_VAR/wall"
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    artisan cartella:bench-wall "$CARTELLA_VAR/wall"
    bench angles
fi
if wants player; then
    as_desk mkdir -p "$CARTELLA_VAR/player"
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    read -r _ BENCH_MAKING _ BENCH_ALONE <<< "$(artisan cartella:bench-player "$CARTELLA_VAR/player" | tail -1)"
    export BENCH_MAKING BENCH_ALONE
    # All of them together is no evening: the memory of a long one is asked for by itself.
    if [ "$which" = all ]; then bench player 3; else bench player "${2:-30}"; fi
fi
if wants screening; then
    as_desk mkdir -p "$CARTELLA_VAR/screening"
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    read -r _ BENCH_REEL _ BENCH_BUILT <<< "$(artisan cartella:bench-screening "$CARTELLA_VAR/screening" | tail -1)"
    export BENCH_REEL BENCH_BUILT
    if [ "$which" = all ]; then bench screening 3; else bench screening "${2:-30}" ${3:+"$3"}; fi
fi
# As long as it is asked for, by its name.
if [ "$which" = soak ]; then
    fill --clips=60000
    supervise start 'copy:*' 'work:*' schedule > /dev/null
    bench soak "${2:-10}"
fi
if [ "$which" = scale ]; then
    fill --clips=60000
    supervise start 'copy:*' > /dev/null
    bench scale workers
    # What else asks the database would be counted as well.
    supervise stop 'copy:*' > /dev/null
    bench scale pages "${2:-50}"
fi
if [ "$which" = kills ]; then
    supervise start 'copy:*' > /dev/null
    bench kills "${2:-200}" "${3:-1}"
fi
if [ ${#missed[@]} -gt 0 ]; then fail "missed: ${missed[*]}"; fi
