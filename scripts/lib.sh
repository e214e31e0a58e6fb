# Shared by the scripts: settings, and steps that each look first whether they are needed.
# shellcheck shell=bash
set -euo pipefail
: "${CARTELLA_ROOT:?run this through ./cartella}"
cd "$CARTELLA_ROOT"

# A value that the caller exported wins over .env, so that tests can use other ports beside a running desk.
if [ -f .env ]; then
    while IFS='=' read -r key value; do
        [[ $key =~ ^[A-Z][A-Z0-9_]*$ ]] && [ -z "${!key:-}" ] && export "$key=$value"
    done < .env
fi

# use_profile NAME: desk (the default), test or bench. Each has its own folder under var/, ports and database.
use_profile() {
    export CARTELLA_PROFILE=$1
    local web db
    case $1 in
        desk) CARTELLA_VAR=$CARTELLA_ROOT/var web=${CARTELLA_WEB_PORT:-8010} db=${CARTELLA_DB_PORT:-33306} ;;
        test) CARTELLA_VAR=$CARTELLA_ROOT/var/test web=${CARTELLA_TEST_WEB_PORT:-8020} db=${CARTELLA_TEST_DB_PORT:-33316} ;;
        bench) CARTELLA_VAR=$CARTELLA_ROOT/var/bench web=${CARTELLA_BENCH_WEB_PORT:-8030} db=${CARTELLA_BENCH_DB_PORT:-33326} ;;
    esac
    export CARTELLA_VAR WEB_PORT=$web DB_PORT=$db PANEL_PORT=${CARTELLA_PANEL_PORT:-$((web + 1))}
    export WEB_HOST=${CARTELLA_WEB_HOST:-127.0.0.1}
    export APP_URL=http://$WEB_HOST:$WEB_PORT
    export APP_ENV=${APP_ENV:-production} APP_DEBUG=false APP_NAME=Cartella LOG_CHANNEL=single
    export DB_CONNECTION=mariadb DB_HOST=127.0.0.1 DB_DATABASE=cartella DB_USERNAME=cartella
    export RUN=$CARTELLA_VAR/run LOGS=$CARTELLA_VAR/logs
    export LARAVEL_STORAGE_PATH=$CARTELLA_VAR/storage
    mkdir -p "$RUN" "$LOGS" "$CARTELLA_ROOT/var/stamps" "$CARTELLA_ROOT/bootstrap/cache" \
        "$LARAVEL_STORAGE_PATH"/{framework/{cache/data,sessions,views},logs,app}
    secrets
}

# Keys are made once, never committed, and readable by the owner only.
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

PHP_FLAGS=(-d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M -d memory_limit=512M)
artisan() { php "${PHP_FLAGS[@]}" artisan "$@"; }

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo -n "$@"; fi; }

DEBIAN_PACKAGES=(
    mariadb-server-core mariadb-client-core nginx-light supervisor
    php8.2-fpm php8.2-cli php8.2-mysql php8.2-xml php8.2-mbstring php8.2-intl php8.2-curl php8.2-zip php8.2-gd php8.2-bcmath
    ffmpeg espeak-ng unzip fonts-dejavu-core
    squashfs-tools squashfuse fuse3
)
TEST_PACKAGES=(chromium chromium-driver xxhash procps)

# ensure_debian PACKAGE…: installs those that dpkg does not know as installed. Services are kept from starting:
# Cartella runs its own, on loopback and from its own folder.
ensure_debian() {
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

# stamped NAME HASH: true when NAME was last finished with HASH.
stamped() { [ "$(cat "var/stamps/$1" 2> /dev/null)" = "$2" ]; }
stamp() { printf '%s' "$2" > "var/stamps/$1"; }

ensure_composer() {
    local hash
    hash=$(cat composer.json compat/*.php compat/*/*.php | sha256sum | cut -c1-32)
    stamped composer "$hash" && [ -f vendor/autoload.php ] && return
    say 'Installing PHP packages.'
    COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress --ignore-platform-req=php+ > "$LOGS/composer.log" 2>&1 < /dev/null ||
        fail "PHP packages could not be installed. See $LOGS/composer.log."
    stamp composer "$hash"
}

ensure_npm() {
    local hash
    hash=$(cat package.json package-lock.json 2> /dev/null | sha256sum | cut -c1-32)
    stamped npm "$hash" && [ -d node_modules ] && return
    say 'Installing interface packages.'
    npm ci --no-audit --no-fund > "$LOGS/npm.log" 2>&1 < /dev/null ||
        fail "Interface packages could not be installed. See $LOGS/npm.log."
    stamp npm "$hash"
}

ensure_ui() {
    local hash
    hash=$({ find ui -type f -print0 | sort -z | xargs -0 sha256sum; cat package.json package-lock.json vite.config.ts tsconfig.json; } | sha256sum | cut -c1-32)
    stamped ui "$hash" && [ -f public/build/manifest.json ] && return
    ensure_npm
    say 'Building the interface.'
    npx vite build > "$LOGS/vite.log" 2>&1 < /dev/null || fail "The interface could not be built. See $LOGS/vite.log."
    stamp ui "$hash"
}

alive() { [ -s "$1" ] && kill -0 "$(cat "$1")" 2> /dev/null; }

port_free() { ! (exec 3<> "/dev/tcp/127.0.0.1/$1") 2> /dev/null; }

# A database folder without the mark that its first start finished is from a killed first start, and holds nothing yet.
ensure_database_files() {
    if [ -d "$CARTELLA_VAR/db" ] && [ ! -f "$CARTELLA_VAR/db/.cartella-ready" ]; then
        say 'Found a half-made database from a first start that was stopped; making it again.'
        rm -rf "$CARTELLA_VAR/db"
    fi
    [ -d "$CARTELLA_VAR/db" ] && return
    mkdir -p "$CARTELLA_VAR/db"
    mariadb-install-db --no-defaults --datadir="$CARTELLA_VAR/db" --auth-root-authentication-method=normal \
        --skip-test-db --user="$(id -un)" > "$LOGS/mariadb-install.log" 2>&1 ||
        fail "The database could not be made. See $LOGS/mariadb-install.log."
    # Sets the account before the server ever listens, so that no passwordless root is reachable.
    mariadbd --no-defaults --bootstrap --datadir="$CARTELLA_VAR/db" --user="$(id -un)" > "$LOGS/mariadb-bootstrap.log" 2>&1 << SQL ||
CREATE DATABASE IF NOT EXISTS cartella CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
FLUSH PRIVILEGES;
CREATE USER IF NOT EXISTS 'cartella'@'127.0.0.1' IDENTIFIED BY '$DB_PASSWORD';
CREATE USER IF NOT EXISTS 'cartella'@'localhost' IDENTIFIED BY '$DB_PASSWORD';
GRANT ALL ON \`cartella%\`.* TO 'cartella'@'127.0.0.1';
GRANT ALL ON \`cartella%\`.* TO 'cartella'@'localhost';
DROP USER IF EXISTS 'root'@'$(hostname)', 'root'@'127.0.0.1', 'root'@'::1', ''@'localhost', ''@'$(hostname)';
SQL
        fail "The database account could not be made. See $LOGS/mariadb-bootstrap.log."
    touch "$CARTELLA_VAR/db/.cartella-ready"
}

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

# services_up: database, web and workers of the profile, under one supervisor that restarts what dies.
services_up() {
    if alive "$RUN/supervisord.pid" && grep -qa supervisord "/proc/$(cat "$RUN/supervisord.pid")/cmdline"; then
        fail "it already runs from this folder at $APP_URL. './cartella stop' ends it."
    fi
    rm -f "$RUN/supervisord.pid" "$RUN/supervisor.sock"
    local port
    for port in "$WEB_PORT" "$DB_PORT"; do
        port_free "$port" || fail "port $port is in use by another program. Stop that program, or set another port in .env (see .env.example)."
    done
    ensure_database_files
    php scripts/write-config.php
    supervisord -n -c "$RUN/supervisord.conf" > "$LOGS/supervisord.out" 2>&1 < /dev/null &
    SUPERVISOR=$!
    wait_until 60 database_answers || fail "the database did not start. See $LOGS/mariadb.err."
}

services_down() {
    [ -n "${SUPERVISOR:-}" ] || return 0
    kill -TERM "$SUPERVISOR" 2> /dev/null || true
    wait "$SUPERVISOR" 2> /dev/null || true
    SUPERVISOR=
}

supervise() { supervisorctl -c "$RUN/supervisord.conf" "$@"; }

# ensure_demo_cards: the cards of the demo production, made again when their generator changes.
ensure_demo_cards() {
    local hash
    hash=$(find demo -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-32)
    stamped demo-cards "$hash" && [ -f var/demo/truth.json ] && return
    say 'Making the cards of the demo production Low Water (a minute or two).'
    php "${PHP_FLAGS[@]}" demo/generate.php "$CARTELLA_ROOT/var/demo" > "$LOGS/demo.log" 2>&1 || fail "The demo cards could not be made. See $LOGS/demo.log."
    stamp demo-cards "$hash"
}

# app_up: services, tables, workers.
app_up() {
    services_up
    artisan migrate --force > "$LOGS/migrate.log" 2>&1 || fail "the database tables could not be made. See $LOGS/migrate.log."
    artisan cartella:recover --all >> "$LOGS/migrate.log" 2>&1 || true
    supervise start 'copy:*' 'work:*' schedule watch > /dev/null
    wait_until 20 web_answers || fail "the web server did not start. See $LOGS/nginx.log."
}
