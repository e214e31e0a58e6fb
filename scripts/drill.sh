#!/usr/bin/env bash
# After a restore into the drill's own profile: its tables as a dump has them, a line each. Then what an accident does to
# it: a change of the tables that was killed half-way, and a database without its mark.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile drill
trap database_alone_down EXIT
# What an earlier drill, or the restore of this one, moved aside here.
rm -rf "$CARTELLA_DB".aside-* "$CARTELLA_VAR"/{secrets.env,proxies}.aside-*
sums() {
    MYSQL_PWD=$DB_PASSWORD as_desk mariadb-dump --no-defaults -S "$RUN/mariadb.sock" -ucartella --single-transaction --quick --routines --triggers --hex-blob --default-character-set=utf8mb4 "$DB_DATABASE" |
        php scripts/dump-sums.php
}
database_alone_up
before=$(sums)
echo "$before" | sed 's/^/SUM /'
database_alone_down

trap services_down EXIT
services_up
dump "$CARTELLA_VAR/before-change.sql.gz"
echo "$CARTELLA_VAR/before-change.sql.gz" > "$CARTELLA_VAR/migrating"
MYSQL_PWD=$DB_PASSWORD as_desk mariadb --no-defaults -S "$RUN/mariadb.sock" -ucartella "$DB_DATABASE" -e 'ALTER TABLE takes DROP COLUMN notes; DELETE FROM migrations ORDER BY id DESC LIMIT 1'
migrate_safely
[ "$(sums)" = "$before" ] || fail 'a change of the tables that was killed half-way lost something.'
[ ! -e "$CARTELLA_VAR/migrating" ] || fail 'the change of the tables is not over.'

# A backup, an hour's work, and then the mistake of somebody who deletes it: put back to the moment before.
kept=$CARTELLA_VAR/moment
rm -rf "$kept"
CARTELLA_PROFILE_FOR_BACKUP=drill scripts/backup.sh "$kept" > /dev/null
now=$(date +%s)
count() { MYSQL_PWD=$DB_PASSWORD as_desk mariadb --no-defaults -S "$RUN/mariadb.sock" -ucartella "$DB_DATABASE" -N -e "SELECT COUNT(*), SUM(notes = 'after the backup') FROM takes"; }
takes=$(count | cut -f1)
MYSQL_PWD=$DB_PASSWORD as_desk mariadb --no-defaults -S "$RUN/mariadb.sock" -ucartella "$DB_DATABASE" \
    -e "SET timestamp = $((now + 3600)); UPDATE takes SET notes = 'after the backup'; SET timestamp = $((now + 7200)); SET foreign_key_checks = 0; DELETE FROM takes"
[ "$(count | cut -f1)" = 0 ] || fail 'nothing was deleted, so that nothing is proved.'
services_down
CARTELLA_PROFILE_FOR_BACKUP=drill scripts/restore.sh "$kept"/cartella-* --until "@$((now + 5400))" > /dev/null
trap database_alone_down EXIT
database_alone_up
[ "$(count)" = "$takes	$takes" ] || fail "put back to a moment, of $takes takes with their notes there are: $(count)."
database_alone_down
# The rest goes on with what was there before it.
CARTELLA_PROFILE_FOR_BACKUP=drill scripts/restore.sh "$kept"/cartella-* > /dev/null
rm -rf "$kept" "$CARTELLA_DB".aside-*

rm -f "$CARTELLA_DB/.cartella-ready"
ensure_database_files
aside=$(echo "$CARTELLA_DB".aside-*)
[ -f "$aside/ibdata1" ] && [ -d "$aside/cartella" ] || fail 'a database without its mark was not kept.'
rm -rf "$CARTELLA_DB"
mv "$aside" "$CARTELLA_DB"
touch "$CARTELLA_DB/.cartella-ready"
trap database_alone_down EXIT
database_alone_up
[ "$(sums)" = "$before" ] || fail 'a database that was moved aside and put back lost something.'
