#!/usr/bin/env bash
# The desk for whoever changes it: the interface with hot reload, workers that start again when PHP files change. The page
# comes from Vite's address, which hands everything but the interface on to the desk, so the content policy stays as it is.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
export CARTELLA_DEV=1
ensure_debian "${DEBIAN_PACKAGES[@]}"
ensure_composer dev
ensure_npm
ensure_ui
export DEV_PORT=${CARTELLA_DEV_PORT:-$((WEB_PORT + 2))}
port_free "$DEV_PORT" || fail "port $DEV_PORT is in use by another program. Set CARTELLA_DEV_PORT in .env."
SEEN=$RUN/dev-seen
VITE= WATCHER=
down() {
    rm -f "$RUN/hot"
    [ -z "$WATCHER" ] || kill "$WATCHER" 2> /dev/null || true
    [ -z "$VITE" ] || kill "$VITE" 2> /dev/null || true
    services_down
}
trap 'trap - INT TERM; exit 0' INT TERM
trap down EXIT
app_up
rm -f "$APP_ROUTES_CACHE" "$CARTELLA_VAR/cache/config-web.php" # a route that is added is there at once, and a setting
printf 'http://127.0.0.1:%s/build' "$DEV_PORT" | as_desk tee "$RUN/hot" > /dev/null
npx vite --config vite.config.ts > "$LOGS/vite-dev.log" 2>&1 < /dev/null &
VITE=$!
touch "$SEEN"
watch_php() {
    while sleep 1; do
        [ -n "$(find app core/src demo/src standins/src config routes database -name '*.php' -newer "$SEEN" -print -quit)" ] || continue
        touch "$SEEN"
        supervise restart 'copy:*' 'work:*' words schedule watch > /dev/null && say "$(date +%H:%M:%S) PHP changed; the workers were started again."
    done
}
watch_php &
WATCHER=$!
vite_answers() { ! port_free "$DEV_PORT"; }
wait_until 30 vite_answers || fail "Vite did not start. See $LOGS/vite-dev.log."
say "Cartella for its makers is at http://127.0.0.1:$DEV_PORT; what you save shows up there. Ctrl-C stops it."
wait "$VITE" || true
fail "Vite stopped by itself. See $LOGS/vite-dev.log."
