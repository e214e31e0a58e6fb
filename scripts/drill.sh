#!/usr/bin/env bash
# After a restore into the drill's own profile: its tables as a dump has them, a line each.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile drill
trap database_alone_down EXIT
database_alone_up
MYSQL_PWD=$DB_PASSWORD mariadb-dump --no-defaults -S "$RUN/mariadb.sock" -ucartella --single-transaction --quick --routines --triggers --hex-blob --default-character-set=utf8mb4 "$DB_DATABASE" |
    php scripts/dump-sums.php | sed 's/^/SUM /'
