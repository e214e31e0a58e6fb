#!/usr/bin/env bash
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
demo=1
for word in "$@"; do
    case $word in
        --empty) demo= ;;
        *) fail "start knows only --empty, not '$word'." ;;
    esac
done
use_profile desk
ensure_debian "${DEBIAN_PACKAGES[@]}"
ensure_composer
ensure_ui
[ -z "$demo" ] || ensure_demo_cards

trap 'trap - INT TERM; echo; say "Stopping Cartella."; exit 0' INT TERM
trap services_down EXIT
# Stand-in card readers come with the demo only.
[ -z "$demo" ] || export CARTELLA_CARD_PANEL=http://127.0.0.1:$PANEL_PORT
app_up
[ -z "$demo" ] || supervise start panel > /dev/null
if [ -n "$demo" ]; then
    artisan cartella:demo || fail "the demo production could not be built. See $LARAVEL_STORAGE_PATH/logs/laravel.log, then run ./cartella demo."
fi
say ''
say "Cartella is at $APP_URL"
[ -n "$demo" ] || artisan cartella:person admin@cartella.test 'First Admin' admin --first
if [ -n "$demo" ]; then
    say ''
    say '  rosa@lowwater.test     assistant'
    say '  ines@lowwater.test     editor'
    say '  tom@lowwater.test      reviewer'
    say '  adaeze@lowwater.test   admin'
    say '  password for all: tide-mill'
    say ''
    say "Simulated cards are inserted at $CARTELLA_CARD_PANEL"
fi
say ''
say 'Ctrl-C stops it.'
wait "$SUPERVISOR" || true
if [ -e "$RUN/asked-to-stop" ]; then
    rm -f "$RUN/asked-to-stop"
    say 'Stopped.'
    exit 0
fi
fail "the services stopped by themselves. See $LOGS/supervisord.log."
