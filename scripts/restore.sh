#!/usr/bin/env bash
# Puts back what `./cartella backup` kept; with --until, and what was done after it up to a moment, by the log of changes
# (CARTELLA_CHANGES). The database that is there is moved aside, never deleted.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
from= until=
while [ $# -gt 0 ]; do
    case $1 in
        --until) until=$(date -u -d "${2:-}" '+%F %T' 2> /dev/null) && [ -n "${2:-}" ] || fail "--until needs a moment, such as '2026-11-30 14:05:00 UTC'." && shift ;;
        -*) fail "restore knows a folder and --until, not '$1'." ;;
        *) from=$1 ;;
    esac
    shift
done
[ -n "$from" ] && [ -d "$from" ] || fail 'say which backup: ./cartella restore FOLDER'
from=$(cd "$from" && pwd)
[ -f "$from/SHA256SUMS" ] || fail "$from is no backup of Cartella: it has no list of checksums."
(cd "$from" && sha256sum --quiet -c SHA256SUMS) > /dev/null 2>&1 || fail "$from is not as it was kept: a file is missing or altered. Take another backup."
use_profile "${CARTELLA_PROFILE_FOR_BACKUP:-desk}"
ensure_debian "${DEBIAN_PACKAGES[@]}"
if [ -n "$until" ]; then
    # mariadb-dump wrote down at which place of the log it stood.
    place=$(zcat "$from/database.sql.gz" 2> /dev/null | head -n 60 | sed -n "s/^-- CHANGE MASTER TO MASTER_LOG_FILE='\([^']*\)', MASTER_LOG_POS=\([0-9]*\);.*/\1 \2/p" | head -n 1 || true)
    [ -n "$place" ] || fail "$from was kept without a log of changes. Restore it without --until, or set CARTELLA_CHANGES before the next backup."
    [ -n "${CARTELLA_CHANGES:-}" ] && [ -f "$CARTELLA_CHANGES/${place% *}" ] || fail "the log of changes ${place% *} is not in ${CARTELLA_CHANGES:-any folder}; a week of it is kept. Restore without --until."
fi
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
if [ -n "$until" ]; then
    mapfile -t logs < <(find "$CARTELLA_CHANGES" -maxdepth 1 -name 'changes.[0-9]*' | sort | sed -n "\\|/${place% *}\$|,\$p")
    TZ=UTC mariadb-binlog --no-defaults --database="$DB_DATABASE" --start-position="${place#* }" --stop-datetime="$until" "${logs[@]}" 2> "$LOGS/changes.log" |
        as_desk mariadb --no-defaults -S "$RUN/mariadb.sock" -u"$RUN_AS" --max-allowed-packet=64M --binary-mode 2>> "$LOGS/changes.log" ||
        fail "the changes could not be done again. See $LOGS/changes.log; what was there before is kept."
    say "What was done up to $until UTC is done again. Keep a new backup next: the old ones end where this one began."
fi
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
