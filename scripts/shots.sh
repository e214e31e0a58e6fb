#!/usr/bin/env bash
# Makes the pictures in docs/screenshots/ from the demo production of a running desk. They leave a few cards in it:
# ./cartella demo builds it anew, before and afterwards.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
ensure_debian "${TEST_PACKAGES[@]}"
ensure_composer dev
alive "$RUN/supervisord.pid" || fail 'start Cartella first: the pictures are taken of it.'
php "${PHP_FLAGS[@]}" scripts/shots.php
