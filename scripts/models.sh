#!/usr/bin/env bash
# Writes the tables' columns and relations into the models' `@property` lines, for after a migration; a test says when that
# was forgotten. As whoever calls it, since the desk's account may not write into the project.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
alive "$RUN/supervisord.pid" || fail "start Cartella first: its database is asked."
php "${PHP_FLAGS[@]}" artisan cartella:describe-models
npx prettier --log-level warn --write 'app/Models/*.php'
