#!/usr/bin/env bash
# Puts back what `./cartella backup` kept. The database that is there is moved aside, never deleted.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
from=${1:-}
[ -n "$from" ] && [ -d "$from" ] || fail 'say which backup: ./cartella restore FOLDER'
from=$(cd "$from" && pwd)
[ -f "$from/SHA256SUMS" ] || fail "$from is no backup of Cartella: it has no list of checksums."
(cd "$from" && sha256sum --quiet -c SHA256SUMS) > /dev/null 2>&1 || fail "$from is not as it was kept: a file is missing or altered. Take another backup."
use_profile "${CARTELLA_PROFILE_FOR_BACKUP:-desk}"
ensure_debian "${DEBIAN_PACKAGES[@]}"
! alive "$RUN/supervisord.pid" || fail 'Cartella runs. Stop it first: ./cartella stop'
end_remains
rm -f "$RUN"/*.pid "$RUN"/*.sock
look_for_room
stamp=$(date -u +%Y%m%d-%H%M%S)
if [ -e "$CARTELLA_DB" ]; then
    mv "$CARTELLA_DB" "$CARTELLA_DB.aside-$stamp"
    say "The database that was there is kept in $CARTELLA_DB.aside-$stamp"
fi
# The keys belong to what is encrypted in the database.
[ ! -f "$CARTELLA_VAR/secrets.env" ] || cp -p "$CARTELLA_VAR/secrets.env" "$CARTELLA_VAR/secrets.env.aside-$stamp"
install -m 0600 "$from/secrets.env" "$CARTELLA_VAR/secrets.env"
unset APP_KEY DB_PASSWORD CARTELLA_PANEL_TOKEN
secrets
make_database_files
trap database_alone_down EXIT
database_alone_up
read_dump "$from/database.sql.gz" -S "$RUN/mariadb.sock" || fail 'the database could not be read back.'
database_alone_down
rm -f "$CARTELLA_VAR/migrating"
if [ -d "$from/proxies" ]; then
    [ ! -e "$CARTELLA_VAR/proxies" ] || mv "$CARTELLA_VAR/proxies" "$CARTELLA_VAR/proxies.aside-$stamp"
    cp -a --reflink=auto "$from/proxies" "$CARTELLA_VAR/proxies"
    [ "$(id -u)" != 0 ] || chown -R "$RUN_AS:$(id -gn "$RUN_AS")" "$CARTELLA_VAR/proxies"
fi
if [ -f "$from/settings.env" ] && ! cmp -s "$from/settings.env" .env && [ "$CARTELLA_PROFILE" = desk ]; then
    install -m 0600 "$from/settings.env" ".env.restored-$stamp"
    say "Its settings differ from those of .env and lie in .env.restored-$stamp; compare them."
fi
say 'Restored. ./cartella start goes on with it.'
