#!/usr/bin/env bash
# Measures speed as ratios against a floor taken in the same run: offload, lineup, lists, cards, log, map. `kills [COUNT] [SEED]`
# is no measure: it kills what is at work and looks whether anything is lost.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
which=${1:-all}
case $which in
    all | offload | lineup | lists | cards | log | map | kills) ;;
    *) fail "there is no bench '$which'. Benches: offload, lineup, lists, cards, log, map, kills." ;;
esac
use_profile bench
export APP_ENV=production CARTELLA_CARD_LIBRARY=$CARTELLA_ROOT/var/demo/cards
ensure_debian "${DEBIAN_PACKAGES[@]}" xxhash
ensure_composer
if [ "$which" = all ] || [ "$which" = offload ]; then php scripts/bench/offload.php "$CARTELLA_VAR/offload"; fi
if [ "$which" = all ] || [ "$which" = lineup ]; then
    ensure_demo_cards
    php "${PHP_FLAGS[@]}" -d memory_limit=2G scripts/bench/lineup.php "$CARTELLA_ROOT/var/demo" "$CARTELLA_VAR/lineup"
fi
case $which in all | lists | cards | log | map | kills)
    ensure_ui
    trap services_down EXIT
    rm -rf "$CARTELLA_VAR"/{volumes,stores,proxies}
    mkdir -p "$CARTELLA_VAR"/volumes "$CARTELLA_VAR"/stores/{shuttle-1,nearline}
    services_up
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    case $which in kills) fill=--clips=30 ;; lists | cards) fill=--clips=20000 ;; map) fill=--map ;; *) fill=--clips=60000 ;; esac
    artisan cartella:bench-fill $fill
    supervise start watch > /dev/null
    wait_until 20 web_answers
    ;;
esac
if [ "$which" = all ] || [ "$which" = lists ]; then php scripts/bench/lists.php; fi
if [ "$which" = all ] || [ "$which" = cards ]; then php scripts/bench/cards.php; fi
if [ "$which" = all ] || [ "$which" = log ]; then
    ensure_debian "${TEST_PACKAGES[@]}"
    php scripts/bench/log.php
fi
if [ "$which" = all ] || [ "$which" = map ]; then
    ensure_debian "${TEST_PACKAGES[@]}"
    if [ "$which" = all ]; then
        artisan migrate:fresh --force > "$LOGS/migrate.log"
        artisan cartella:bench-fill --map
    fi
    php scripts/bench/map.php
fi
if [ "$which" = kills ]; then
    supervise start 'copy:*' > /dev/null
    php scripts/bench/kills.php "${2:-200}" "${3:-1}"
fi
