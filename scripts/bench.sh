#!/usr/bin/env bash
# Measures speed as ratios against a floor taken in the same run: offload, lineup, lists.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
which=${1:-all}
case $which in
    all | offload | lineup | lists) ;;
    *) fail "there is no bench '$which'. Benches: offload, lineup, lists." ;;
esac
use_profile bench
export APP_ENV=production CARTELLA_CARD_LIBRARY=$CARTELLA_ROOT/var/demo/cards
ensure_debian "${DEBIAN_PACKAGES[@]}" xxhash
ensure_composer
if [ "$which" = all ] || [ "$which" = offload ]; then php scripts/bench/offload.php "$CARTELLA_VAR/offload"; fi
if [ "$which" = all ] || [ "$which" = lineup ]; then
    ensure_demo_cards
    php scripts/bench/lineup.php "$CARTELLA_ROOT/var/demo"
fi
if [ "$which" = all ] || [ "$which" = lists ]; then
    ensure_ui
    trap services_down EXIT
    services_up
    artisan migrate:fresh --force > "$LOGS/migrate.log"
    artisan cartella:bench-fill
    wait_until 20 web_answers
    php scripts/bench/lists.php
fi
