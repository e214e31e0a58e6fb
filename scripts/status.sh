#!/usr/bin/env bash
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
if ! alive "$RUN/supervisord.pid"; then
    say 'Cartella does not run from this folder. ./cartella start starts it.'
    exit 1
fi
say "Cartella runs at $APP_URL as $RUN_AS"
supervise status || true
say ''
# What is amiss is printed; the status says so to a script.
artisan cartella:health || exit 1
