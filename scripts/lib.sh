# Shared by the scripts: settings, and steps that each look first whether they are needed.
# shellcheck shell=bash
set -Eeuo pipefail
trap 'printf "Cartella: stopped at line %s of %s, where nobody expected it.\n" "$LINENO" "${BASH_SOURCE[0]##*/}" >&2' ERR
: "${CARTELLA_ROOT:?run this through ./cartella}"
cd "$CARTELLA_ROOT"

# A value that the caller exported wins over .env, so that tests can use other ports beside a running desk.
if [ -f .env ]; then
    while IFS='=' read -r key value; do
        [[ $key =~ ^[A-Z][A-Z0-9_]*$ ]] && [ -z "${!key:-}" ] && export "$key=$value"
    done < .env
fi

# use_profile NAME: desk (the default), test, drill or bench. Each has its own folder under var/, ports and database.
use_profile() {
    export CARTELLA_PROFILE=$1
    local web db
    case $1 in
        desk) CARTELLA_VAR=$(readlink -f "$CARTELLA_ROOT/var") web=${CARTELLA_WEB_PORT:-8010} db=${CARTELLA_DB_PORT:-33306} ;;
        test) CARTELLA_VAR=$CARTELLA_ROOT/var/test web=${CARTELLA_TEST_WEB_PORT:-8020} db=${CARTELLA_TEST_DB_PORT:-33316} ;;
        drill) CARTELLA_VAR=$CARTELLA_ROOT/var/drill web=${CARTELLA_DRILL_WEB_PORT:-8040} db=${CARTELLA_DRILL_DB_PORT:-33336} ;;
        bench) CARTELLA_VAR=$CARTELLA_ROOT/var/bench web=${CARTELLA_BENCH_WEB_PORT:-8030} db=${CARTELLA_BENCH_DB_PORT:-33326} ;;
    esac
    # Only the desk itself works on real volumes; tests and benches fill and empty what they are given. It is said, not left
    # out: what is left out the application would look up in .env itself.
    [ "$1" = desk ] || export CARTELLA_BENCH=$CARTELLA_VAR/volumes CARTELLA_STORE_1=$CARTELLA_VAR/stores/shuttle-1 \
        CARTELLA_STORE_2=$CARTELLA_VAR/stores/nearline CARTELLA_INBOX=$CARTELLA_VAR/inbox CARTELLA_DB=$CARTELLA_VAR/db \
        CARTELLA_CHANGES= CARTELLA_MEDIA=local CARTELLA_PACKAGES=local CARTELLA_LIVE=database QUEUE_CONNECTION=database CACHE_STORE=database
    # The drill puts a moment back, for which changes are logged.
    [ "$1" != drill ] || CARTELLA_CHANGES=$CARTELLA_VAR/changes
    export CARTELLA_VAR WEB_PORT=$web DB_PORT=$db PANEL_PORT=${CARTELLA_PANEL_PORT:-$((web + 1))} TRANSCRIPTION_PORT=${CARTELLA_TRANSCRIPTION_PORT:-$((web + 2))}
    export WEB_HOST=${CARTELLA_WEB_HOST:-127.0.0.1} CARTELLA_DB=${CARTELLA_DB:-$CARTELLA_VAR/db} CARTELLA_INBOX=${CARTELLA_INBOX:-$CARTELLA_VAR/inbox}
    export APP_URL=http://$WEB_HOST:$WEB_PORT
    export APP_ENV=${APP_ENV:-production} APP_DEBUG=false APP_NAME=Cartella LOG_CHANNEL=daily LOG_DAILY_DAYS=14
    export DB_CONNECTION=mariadb DB_HOST=127.0.0.1 DB_DATABASE=cartella DB_USERNAME=cartella
    export RUN=$CARTELLA_VAR/run LOGS=$CARTELLA_VAR/logs
    export LARAVEL_STORAGE_PATH=$CARTELLA_VAR/storage
    # The project's own folder is read only to the desk; what the framework remembers lies with the rest.
    local name
    for name in SERVICES PACKAGES CONFIG ROUTES EVENTS; do export "APP_${name}_CACHE=$CARTELLA_VAR/cache/${name,,}.php"; done
    choose_account
    umask 022
    mkdir -p "$CARTELLA_ROOT/var/stamps" "$CARTELLA_VAR" "$RUN/tmp" "$LOGS" "$CARTELLA_VAR/cache" "$LARAVEL_STORAGE_PATH"/{framework/{cache/data,sessions,views},logs,app}
    hand_over
    secrets
}

# Root only installs packages: everything that runs, runs as an account of its own. Where that account cannot reach the
# project's folder, the desk says what to do, and tests run as whoever owns the folder.
choose_account() {
    if [ "$(id -u)" != 0 ]; then
        RUN_AS=$(id -un)
    elif desk_account_reaches; then
        RUN_AS=cartella
    elif [ "$CARTELLA_PROFILE" = desk ]; then
        fail "the account 'cartella', which the desk runs as, cannot enter $(first_closed). Move the project to a folder that others may enter, such as /srv/cartella, or open that one: chmod o+x $(first_closed)"
    else
        RUN_AS=$(stat -c %U "$CARTELLA_ROOT")
    fi
    export RUN_AS
}

desk_account_reaches() {
    getent passwd cartella > /dev/null ||
        useradd --system --user-group --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin cartella > /dev/null 2>&1 || return 1
    setpriv --reuid cartella --regid cartella --clear-groups -- test -r "$CARTELLA_ROOT/artisan" -a -x "$CARTELLA_ROOT"
}

# The first folder on the way to the project that the desk's account may not enter.
first_closed() {
    local folder= part
    local IFS=/
    for part in ${CARTELLA_ROOT#/}; do
        folder=$folder/$part
        setpriv --reuid cartella --regid cartella --clear-groups -- test -x "$folder" 2> /dev/null || break
    done
    printf '%s' "$folder"
}

# as_desk COMMAND…: as the account that the desk runs as, with nothing of root's left.
as_desk() {
    if [ "$(id -un)" = "$RUN_AS" ]; then "$@"; else
        setpriv --reuid "$RUN_AS" --regid "$(id -gn "$RUN_AS")" --clear-groups --inh-caps=-all -- env HOME="$CARTELLA_VAR" "$@"
    fi
}

# Gives what root has made to the desk's account; all of it when the folder is somebody else's still.
hand_over() {
    chmod 0750 "$CARTELLA_VAR"
    chmod 0700 "$RUN"
    [ "$(id -u)" = 0 ] || return 0
    local group
    group=$(id -gn "$RUN_AS")
    if [ "$(stat -c %U "$CARTELLA_VAR")" != "$RUN_AS" ] || [ "$(stat -c %U "$LARAVEL_STORAGE_PATH")" != "$RUN_AS" ]; then
        find "$CARTELLA_VAR" -xdev \( -path "$CARTELLA_ROOT/var/stamps" -o -path "$CARTELLA_VAR/volumes/*" -o -path "$CARTELLA_VAR/stores/*" \) -prune -o -exec chown -h "$RUN_AS:$group" {} +
    fi
    chown "$RUN_AS:$group" "$CARTELLA_ROOT/var" "$CARTELLA_VAR" "$RUN" "$RUN/tmp" "$LOGS" "$CARTELLA_VAR/cache"
    [ "$CARTELLA_PROFILE" = desk ] || chmod o+x "$CARTELLA_ROOT/var"
}

# Keys are made once, never committed, and readable by the desk's account only.
secrets() {
    local file=$CARTELLA_VAR/secrets.env
    if [ ! -s "$file" ]; then
        (
            umask 077
            printf 'APP_KEY=base64:%s\nDB_PASSWORD=%s\n' \
                "$(head -c 32 /dev/urandom | base64 -w0)" "$(head -c 18 /dev/urandom | base64 -w0 | tr '+/' 'ab')" > "$file.new"
            mv "$file.new" "$file"
        )
    fi
    grep -q '^CARTELLA_PANEL_TOKEN=' "$file" ||
        printf 'CARTELLA_PANEL_TOKEN=%s\n' "$(head -c 18 /dev/urandom | base64 -w0 | tr '+/' 'ab')" >> "$file"
    [ "$(id -u)" != 0 ] || chown "$RUN_AS:$(id -gn "$RUN_AS")" "$file"
    set -a
    # shellcheck disable=SC1090
    . "$file"
    set +a
}

say() { printf '%s\n' "$*"; }
fail() {
    printf 'Cartella: %s\n' "$*" >&2
    exit 1
}

PHP_FLAGS=(-d opcache.enable_cli=1 -d opcache.jit=function -d opcache.jit_buffer_size=64M -d memory_limit=512M)
artisan() { as_desk php "${PHP_FLAGS[@]}" artisan "$@"; }

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo -n "$@"; fi; }

DEBIAN_PACKAGES=(
    mariadb-server-core mariadb-client nginx-light supervisor
    php8.2-fpm php8.2-cli php8.2-mysql php8.2-xml php8.2-mbstring php8.2-intl php8.2-curl php8.2-zip php8.2-gd php8.2-bcmath php8.2-gmp
    ffmpeg espeak-ng pocketsphinx pocketsphinx-en-us unzip fonts-dejavu-core openssl curl util-linux
    squashfs-tools squashfuse fuse3
)
# For the checks that need no service.
QUICK_PACKAGES=(php8.2-cli php8.2-xml php8.2-mbstring php8.2-intl php8.2-curl php8.2-zip php8.2-gd php8.2-bcmath php8.2-gmp php8.2-mysql ffmpeg espeak-ng pocketsphinx pocketsphinx-en-us xxhash libgsf-bin)
TEST_PACKAGES=(chromium chromium-driver xxhash procps libgsf-bin redis-server)

# ensure_debian PACKAGE…: installs those that dpkg does not know as installed. Services are kept from starting:
# Cartella runs its own, on loopback and from its own folder.
ensure_debian() {
    # An installed package has what it needs: dpkg saw to that, and the rest is built in.
    [ ! -f .package ] || return 0
    local missing=() name
    local known
    known=$(dpkg-query -W -f='${db:Status-Status} ${Package}\n' 2> /dev/null | sed -n 's/^installed //p')
    for name in "$@"; do
        grep -qxF "$name" <<< "$known" || missing+=("$name")
    done
    [ ${#missing[@]} -eq 0 ] && return
    say "Installing from Debian: ${missing[*]}"
    local policy=/usr/sbin/policy-rc.d made=
    if [ ! -e "$policy" ]; then
        printf '#!/bin/sh\nexit 101\n' | as_root tee "$policy" > /dev/null
        as_root chmod 755 "$policy"
        made=1
    fi
    local status=0
    {
        as_root apt-get update -q &&
            as_root env DEBIAN_FRONTEND=noninteractive apt-get install -q -y --no-install-recommends "${missing[@]}"
    } > "$LOGS/apt.log" 2>&1 < /dev/null || status=$?
    [ -z "$made" ] || as_root rm -f "$policy"
    [ "$status" -eq 0 ] || fail "Debian packages could not be installed (${missing[*]}). See $LOGS/apt.log, then run the command again."
}

# alone WORK COMMAND…: two commands of one folder that install, or build the demo, at once would write into each other's
# files. What COMMAND leaves running (a mounted card) does not hold the lock.
alone() {
    (
        flock 9
        "${@:2}" 9>&-
    ) 9> "var/stamps/$1"
}

# stamped NAME HASH: true when NAME was last finished with HASH.
stamped() { [ "$(cat "var/stamps/$1" 2> /dev/null)" = "$2" ]; }
stamp() { printf '%s' "$2" > "var/stamps/$1"; }

# ensure_composer [dev]: what the desk needs, or with what tests and checks need as well.
ensure_composer() { alone installing install_composer "$@"; }
install_composer() {
    [ ! -f .package ] || return 0
    local hash dev=(--no-dev)
    hash=$(cat composer.json compat/*.php compat/*/*.php | sha256sum | cut -c1-32)
    # Where tests have run, what they need stays; it does no harm to a desk of the same folder.
    [ "${1:-}" = dev ] || ! stamped composer-dev "$hash" || return 0
    [ "${1:-}" = dev ] && dev=()
    stamped "composer${1:+-$1}" "$hash" && [ -f vendor/autoload.php ] && return
    say 'Installing PHP packages.'
    COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress --no-scripts --ignore-platform-req=php+ "${dev[@]}" > "$LOGS/composer.log" 2>&1 < /dev/null ||
        fail "PHP packages could not be installed. See $LOGS/composer.log."
    # Some archives carry modes that only their owner may read by.
    chmod -R u+rwX,go+rX vendor
    stamp "composer${1:+-$1}" "$hash"
}

ensure_npm() { alone installing install_npm; }
install_npm() {
    local hash
    hash=$(cat package.json package-lock.json 2> /dev/null | sha256sum | cut -c1-32)
    stamped npm "$hash" && [ -d node_modules ] && return
    say 'Installing interface packages.'
    npm ci --no-audit --no-fund > "$LOGS/npm.log" 2>&1 < /dev/null ||
        fail "Interface packages could not be installed. See $LOGS/npm.log."
    stamp npm "$hash"
}

ensure_ui() {
    [ ! -f .package ] || return 0
    local hash
    hash=$({ find ui -type f -print0 | sort -z | xargs -0 sha256sum; cat package.json package-lock.json vite.config.ts tsconfig.json; } | sha256sum | cut -c1-32)
    stamped ui "$hash" && [ -f public/build/manifest.json ] && return
    ensure_npm
    say 'Building the interface.'
    npx vite build > "$LOGS/vite.log" 2>&1 < /dev/null || fail "The interface could not be built. See $LOGS/vite.log."
    chmod -R go+rX public/build
    stamp ui "$hash"
}

# The certificate of .env (CARTELLA_CERT, CARTELLA_KEY), or one of its own that is made once.
ensure_certificate() {
    export TLS_CERT=${CARTELLA_CERT:-$CARTELLA_VAR/tls/desk.crt} TLS_KEY=${CARTELLA_KEY:-$CARTELLA_VAR/tls/desk.key}
    export CARTELLA_SHARE=1 SESSION_SECURE_COOKIE=true APP_URL=https://$(hostname -f 2> /dev/null || hostname):$WEB_PORT
    if [ -n "${CARTELLA_CERT:-}" ]; then
        as_desk test -r "$TLS_CERT" -a -r "$TLS_KEY" || fail "the certificate of .env ($TLS_CERT, $TLS_KEY) cannot be read by the account $RUN_AS."
        return
    fi
    [ ! -s "$TLS_CERT" ] || openssl x509 -in "$TLS_CERT" -noout -checkend 604800 > /dev/null && [ -s "$TLS_KEY" ] && return
    as_desk mkdir -p -m 0700 "$CARTELLA_VAR/tls"
    local names address
    names="DNS:localhost,DNS:$(hostname),IP:127.0.0.1"
    for address in $(hostname -I 2> /dev/null); do names+=",IP:$address"; done
    (
        umask 077
        as_desk openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -days 397 -subj "/CN=$(hostname)" -addext "subjectAltName=$names" \
            -keyout "$TLS_KEY" -out "$TLS_CERT" > "$LOGS/openssl.log" 2>&1
    ) || fail "the certificate could not be made. See $LOGS/openssl.log."
}

alive() { [ -s "$1" ] && kill -0 "$(cat "$1")" 2> /dev/null; }

port_free() { ! (exec 3<> "/dev/tcp/127.0.0.1/$1") 2> /dev/null; }

# A database folder without the mark that its first start finished is of a killed first start, or of something that nobody
# knows here: it is never deleted.
ensure_database_files() {
    if [ -d "$CARTELLA_DB" ] && [ ! -f "$CARTELLA_DB/.cartella-ready" ] && [ -n "$(ls -A "$CARTELLA_DB")" ]; then
        local aside
        aside=$CARTELLA_DB.aside-$(date -u +%Y%m%d-%H%M%S)
        say "Found a database that was never finished, or whose marker is missing. It was moved aside to $aside; a new one is made. To go on with the old one, stop Cartella and put it back with an empty file .cartella-ready in it."
        mv "$CARTELLA_DB" "$aside"
    fi
    [ -f "$CARTELLA_DB/.cartella-ready" ] && return
    make_database_files
}

make_database_files() {
    mkdir -p "$CARTELLA_DB"
    chmod 0700 "$CARTELLA_DB"
    [ "$(id -u)" != 0 ] || chown "$RUN_AS:$(id -gn "$RUN_AS")" "$CARTELLA_DB"
    # Root of the database is whoever owns its socket, and nobody else.
    as_desk mariadb-install-db --no-defaults --datadir="$CARTELLA_DB" --auth-root-authentication-method=socket --auth-root-socket-user="$RUN_AS" --force \
        --skip-test-db > "$LOGS/mariadb-install.log" 2>&1 ||
        fail "The database could not be made. See $LOGS/mariadb-install.log."
    # Sets the account before the server ever listens.
    as_desk mariadbd --no-defaults --bootstrap --datadir="$CARTELLA_DB" --tmpdir="$RUN/tmp" > "$LOGS/mariadb-bootstrap.log" 2>&1 << SQL ||
CREATE DATABASE IF NOT EXISTS cartella CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
FLUSH PRIVILEGES;
CREATE USER IF NOT EXISTS 'cartella'@'127.0.0.1' IDENTIFIED BY '$DB_PASSWORD';
CREATE USER IF NOT EXISTS 'cartella'@'localhost' IDENTIFIED BY '$DB_PASSWORD';
GRANT ALL ON \`cartella%\`.* TO 'cartella'@'127.0.0.1';
GRANT ALL ON \`cartella%\`.* TO 'cartella'@'localhost';
DROP USER IF EXISTS 'root'@'$(hostname)', 'root'@'127.0.0.1', 'root'@'::1', ''@'localhost', ''@'$(hostname)';
SQL
        fail "The database account could not be made. See $LOGS/mariadb-bootstrap.log."
    as_desk touch "$CARTELLA_DB/.cartella-ready"
}

# database_alone_up: the database by itself, for a dump to be read into; only the desk's account reaches it.
database_alone_up() {
    # Supervisor writes on in it later, as the desk's account.
    rm -f "$LOGS/mariadb.out"
    as_desk touch "$LOGS/mariadb.out"
    as_desk mariadbd --no-defaults --datadir="$CARTELLA_DB" --tmpdir="$RUN/tmp" --skip-networking --socket="$RUN/mariadb.sock" --pid-file="$RUN/mariadb.pid" --log-error="$LOGS/mariadb.err" \
        --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --max-allowed-packet=64M --skip-log-bin --innodb-ft-min-token-size=2 \
        --innodb-ft-enable-stopword=OFF > "$LOGS/mariadb.out" 2>&1 < /dev/null &
    DATABASE_ALONE=$!
    wait_until 60 socket_answers || fail "the database did not start. See $LOGS/mariadb.err."
}
database_alone_down() {
    [ -n "${DATABASE_ALONE:-}" ] || return 0
    ! alive "$RUN/mariadb.pid" || kill -TERM "$(cat "$RUN/mariadb.pid")" 2> /dev/null || true
    wait "$DATABASE_ALONE" 2> /dev/null || true
    DATABASE_ALONE=
}
# By its socket the server knows the desk's account by the account of the system, and another owner by the password.
socket_answers() { MYSQL_PWD=$DB_PASSWORD as_desk mariadb --no-defaults -S "$RUN/mariadb.sock" -ucartella cartella -e 'SELECT 1' > /dev/null 2>&1; }

# dump FILE: the whole database at one moment, while work goes on; written under another name first. Where changes are logged, it
# says at which place of the log that moment is.
dump() {
    local from=(mariadb-dump --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella)
    # That place is asked for by the account that owns the server.
    [ -z "${CARTELLA_CHANGES:-}" ] || from=(as_desk mariadb-dump --no-defaults -S "$RUN/mariadb.sock" -u"$RUN_AS" --master-data=2)
    (
        umask 077
        set -o pipefail
        MYSQL_PWD=$DB_PASSWORD "${from[@]}" --single-transaction --quick --routines --triggers --hex-blob --default-character-set=utf8mb4 "$DB_DATABASE" |
            gzip -1 > "$1.part" && gzip -t "$1.part" && mv "$1.part" "$1"
    ) || {
        rm -f "$1.part"
        return 1
    }
}

# read_dump FILE CLIENT-OPTION…: in place of everything the database holds.
read_dump() {
    local file=$1
    shift
    (
        set -o pipefail
        {
            echo "DROP DATABASE IF EXISTS \`$DB_DATABASE\`; CREATE DATABASE \`$DB_DATABASE\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci; USE \`$DB_DATABASE\`;"
            gzip -dc "$file"
        } | MYSQL_PWD=$DB_PASSWORD as_desk mariadb --no-defaults "$@" -ucartella --max-allowed-packet=64M
    )
}

# Bytes of the database's tables, and what is free below a folder.
database_bytes() { du -sb "$CARTELLA_DB" | cut -f1; }
free_bytes() { df -B1 --output=avail "$1" | tail -n1 | tr -d ' '; }

# wait_until SECONDS COMMAND…: polls, and gives up with status 1.
wait_until() {
    local left=$(($1 * 10))
    shift
    until "$@"; do
        left=$((left - 1))
        [ "$left" -gt 0 ] || return 1
        sleep 0.1
    done
}

database_answers() {
    MYSQL_PWD=$DB_PASSWORD mariadb --no-defaults -h127.0.0.1 -P"$DB_PORT" -ucartella cartella -e 'SELECT 1' > /dev/null 2>&1
}
web_answers() { (exec 3<> "/dev/tcp/127.0.0.1/$WEB_PORT") 2> /dev/null; }

# Processes of this profile that outlived what started them: an orphan of a killed php-fpm keeps its socket and its memory.
# Told by the variable that only services carry, or by a file of this profile that they hold open.
remains() {
    local pid name sockets
    # An orphan of php-fpm may hold nothing but the socket that it listens on.
    sockets=$(awk -v run="$RUN/" 'index($8, run) == 1 { print "socket:[" $7 "]" }' /proc/net/unix)
    for pid in $(pgrep -x 'supervisord|mariadbd|nginx|php-fpm8.2|php|php8.2|ffmpeg|ffprobe' 2> /dev/null || true); do
        [ "$pid" != "$$" ] || continue
        if tr '\0' '\n' 2> /dev/null < "/proc/$pid/environ" | grep -qxF "CARTELLA_SERVICE=$RUN"; then
            echo "$pid"
            continue
        fi
        name=$(cat "/proc/$pid/comm" 2> /dev/null || true)
        case $name in
            php-fpm* | nginx | mariadbd)
                # An open log or table: php-fpm and nginx write over their environment.
                if find "/proc/$pid/fd" \( -lname "$LOGS/*" -o -lname "$CARTELLA_DB/*" \) 2> /dev/null | grep -q .; then
                    echo "$pid"
                elif [ -n "$sockets" ] && find "/proc/$pid/fd" -printf '%l\n' 2> /dev/null | grep -qxF "$sockets"; then
                    echo "$pid"
                fi
                ;;
        esac
    done
}

end_remains() {
    local pids
    pids=$(remains)
    [ -n "$pids" ] || return 0
    # shellcheck disable=SC2086
    kill -TERM $pids 2> /dev/null || true
    local none
    none() { [ -z "$(remains)" ]; }
    wait_until 10 none && return 0
    # shellcheck disable=SC2046
    kill -KILL $(remains) 2> /dev/null || true
}

# services_up: database, web and workers of the profile, under one supervisor that restarts what dies.
services_up() {
    if alive "$RUN/supervisord.pid" && grep -qa supervisord "/proc/$(cat "$RUN/supervisord.pid")/cmdline"; then
        fail "it already runs from this folder at $APP_URL. './cartella stop' ends it."
    fi
    end_remains
    rm -f "$RUN"/*.pid "$RUN"/*.sock "$RUN/hot"
    local port
    for port in "$WEB_PORT" "$DB_PORT"; do
        port_free "$port" || fail "port $port is in use by another program. Stop that program, or set another port in .env (see .env.example)."
    done
    look_for_room
    ensure_database_files
    [ -z "${CARTELLA_CHANGES:-}" ] || as_desk mkdir -p -m 0700 "$CARTELLA_CHANGES" || fail "the folder $CARTELLA_CHANGES, for the log of changes, cannot be made."
    as_desk php scripts/write-config.php
    # 150 routes are a sixth of a short answer. A failure costs only that: without the file they are read as they are written.
    rm -f "$APP_ROUTES_CACHE"
    artisan route:cache > "$LOGS/routes.log" 2>&1 || rm -f "$APP_ROUTES_CACHE"
    # The settings, read once: for the web alone, since what is run by hand or by a test may bring others.
    rm -f "$CARTELLA_VAR/cache/config-web.php"
    (
        umask 077
        APP_CONFIG_CACHE=$CARTELLA_VAR/cache/config-web.php artisan config:cache
    ) > "$LOGS/config.log" 2>&1 || rm -f "$CARTELLA_VAR/cache/config-web.php"
    # Classes that are linked once are not linked in each answer. The same holds: without the list each answer links its own.
    rm -f "$CARTELLA_VAR/cache/classes.txt"
    [ -n "${CARTELLA_DEV:-}" ] || as_desk php "${PHP_FLAGS[@]}" scripts/classes.php > "$CARTELLA_VAR/cache/classes.txt" 2> "$LOGS/classes.log" || rm -f "$CARTELLA_VAR/cache/classes.txt"
    (
        umask 027
        exec_as_desk supervisord -n -c "$RUN/supervisord.conf"
    ) > "$LOGS/supervisord.out" 2>&1 < /dev/null &
    SUPERVISOR=$!
    wait_until 60 database_answers || fail "the database did not start. See $LOGS/mariadb.err."
}

exec_as_desk() {
    if [ "$(id -un)" = "$RUN_AS" ]; then exec "$@"; else
        exec setpriv --reuid "$RUN_AS" --regid "$(id -gn "$RUN_AS")" --clear-groups --inh-caps=-all -- env HOME="$CARTELLA_VAR" "$@"
    fi
}

# A database that finds no room stops in the middle of a statement; better not to begin.
look_for_room() {
    local above=$CARTELLA_DB
    while [ ! -e "$above" ]; do above=$(dirname "$above"); done
    [ "$(free_bytes "$above")" -gt 268435456 ] || fail "less than 256 MB are free where the database lies ($above). Make room, then start again."
}

services_down() {
    [ -n "${SUPERVISOR:-}" ] || return 0
    kill -TERM "$SUPERVISOR" 2> /dev/null || true
    wait "$SUPERVISOR" 2> /dev/null || true
    SUPERVISOR=
    end_remains
}

supervise() { as_desk supervisorctl -c "$RUN/supervisord.conf" "$@"; }

# ensure_demo_cards: the cards of the demo production, made again when their generator changes.
ensure_demo_cards() {
    local hash
    hash=$(find demo -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-32)
    stamped demo-cards "$hash" && [ -f var/demo/truth.json ] && return
    say 'Making the cards of the demo production Low Water (a minute or two).'
    mkdir -p var/demo
    [ "$(id -u)" != 0 ] || chown -R "$RUN_AS:$(id -gn "$RUN_AS")" var/demo
    as_desk php "${PHP_FLAGS[@]}" demo/generate.php "$CARTELLA_ROOT/var/demo" > "$LOGS/demo.log" 2>&1 || fail "The demo cards could not be made. See $LOGS/demo.log."
    stamp demo-cards "$hash"
}

# migrate_safely: a dump comes before tables are changed; a run that was killed is taken back from it and done again.
migrate_safely() {
    local marker=$CARTELLA_VAR/migrating kept pending
    if [ -s "$marker" ]; then
        kept=$(cat "$marker")
        if [ "$kept" = fresh ]; then
            say 'The tables were half made when it was stopped; they are made again.'
            artisan migrate:fresh --force > "$LOGS/migrate.log" 2>&1 || fail "the database tables could not be made. See $LOGS/migrate.log."
        else
            say "A change of the tables was stopped half-way; the database is put back as it was before it (from $kept)."
            read_dump "$kept" -h127.0.0.1 -P"$DB_PORT" || fail "the dump $kept could not be read back."
        fi
    fi
    pending=$(artisan cartella:pending 2>> "$LOGS/migrate.log") || fail "the database cannot be asked. See $LOGS/migrate.log."
    case $pending in
        none) ;;
        fresh) echo fresh | as_desk tee "$marker" > /dev/null ;;
        *)
            as_desk mkdir -p "$CARTELLA_VAR/backups"
            kept=$CARTELLA_VAR/backups/before-$pending-$(date -u +%Y%m%d-%H%M%S).sql.gz
            say "Tables change with this version; keeping the database as it is in $kept"
            [ "$(free_bytes "$CARTELLA_VAR")" -gt "$(database_bytes)" ] || fail "there is no room for the copy that comes before a change of the tables. Make room below $CARTELLA_VAR, then start again."
            dump "$kept" || fail "the copy that comes before a change of the tables could not be written to $kept."
            [ "$(id -u)" != 0 ] || chown "$RUN_AS" "$kept"
            printf '%s' "$kept" | as_desk tee "$marker" > /dev/null
            ;;
    esac
    artisan migrate --force > "$LOGS/migrate.log" 2>&1 || fail "the database tables could not be made. See $LOGS/migrate.log. What was there before is kept."
    rm -f "$marker"
    # The last five are enough; the oldest go first.
    [ ! -d "$CARTELLA_VAR/backups" ] || find "$CARTELLA_VAR/backups" -maxdepth 1 -name 'before-*.sql.gz' -printf '%T@ %p\n' 2> /dev/null | sort -rn | tail -n +6 | cut -d' ' -f2- | xargs -r -d '\n' rm -f
}

# app_up: services, tables, workers.
app_up() {
    local clean=()
    [ ! -e "$CARTELLA_VAR/stopped-on-purpose" ] || clean=(--clean)
    rm -f "$CARTELLA_VAR/stopped-on-purpose"
    # The volumes that copies go to by default lie below the desk's own folder, and have to be there before they are marked.
    local folder
    for folder in "${CARTELLA_STORE_1:-$CARTELLA_VAR/stores/shuttle-1}" "${CARTELLA_STORE_2:-$CARTELLA_VAR/stores/nearline}" "${CARTELLA_BENCH:-$CARTELLA_VAR/volumes}"; do
        [[ $folder != "$CARTELLA_VAR"/* ]] || as_desk mkdir -p "$folder"
    done
    services_up
    migrate_safely
    artisan cartella:recover --all "${clean[@]}" >> "$LOGS/migrate.log" 2>&1 || true
    supervise start 'copy:*' 'work:*' words schedule watch > /dev/null
    wait_until 20 web_answers || fail "the web server did not start. See $LOGS/nginx.log."
}
