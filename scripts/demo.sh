#!/usr/bin/env bash
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
alive "$RUN/supervisord.pid" || fail "start Cartella first: the demo is built by its own workers."
ensure_demo_cards
# A demo that may not be built says why itself.
alone demo artisan cartella:demo --again || exit $?
