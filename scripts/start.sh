#!/usr/bin/env bash
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
demo=1 share=
for word in "$@"; do
    case $word in
        --empty) demo= ;;
        --share) share=1 ;;
        *) fail "start knows --empty and --share, not '$word'." ;;
    esac
done
if [ -n "$share" ]; then
    export CARTELLA_WEB_HOST=${CARTELLA_SHARE_HOST:-0.0.0.0}
    demo=
fi
case ${CARTELLA_WEB_HOST:-127.0.0.1} in
    127.* | localhost | ::1) ;;
    *) [ -n "$share" ] || fail "CARTELLA_WEB_HOST=$CARTELLA_WEB_HOST can be reached from other machines, and passwords would cross the network in the clear. Start it with --share, which serves https." ;;
esac
use_profile desk
ensure_debian "${DEBIAN_PACKAGES[@]}"
ensure_composer
ensure_ui
[ -z "$share" ] || ensure_certificate
[ -z "$demo" ] || ensure_demo_cards

trap 'trap - INT TERM; echo; say "Stopping Cartella."; touch "$CARTELLA_VAR/stopped-on-purpose"; exit 0' INT TERM
trap services_down EXIT
# Stand-in card readers come with the demo only.
[ -z "$demo" ] || export CARTELLA_TRANSCRIPTION="http://127.0.0.1:$TRANSCRIPTION_PORT"
[ -z "$demo" ] || export CARTELLA_CARD_PANEL="http://127.0.0.1:$PANEL_PORT/?token=$CARTELLA_PANEL_TOKEN"
app_up
if [ -n "$demo" ]; then
    status=0
    alone demo artisan cartella:demo || status=$?
    case $status in
        0) supervise start panel transcription > /dev/null ;;
        3) demo= ;; # it said why
        *) fail "the demo production could not be built. See $LARAVEL_STORAGE_PATH/logs, then run ./cartella demo." ;;
    esac
fi
say ''
say "Cartella is at $APP_URL"
[ -z "$share" ] || say "Its certificate has the SHA-256 fingerprint $(openssl x509 -in "$TLS_CERT" -noout -fingerprint -sha256 | cut -d= -f2). Compare it before you trust it."
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
