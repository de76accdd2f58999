# Shared by bin/start, bin/test and bin/kybernet: what must be installed, the private database cluster, the web
# server. Every step looks first whether it is done already, so that an interrupted run can simply be run again.

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
VAR=$ROOT/var
PG_BIN=/usr/lib/postgresql/15/bin
PG_DATA=$VAR/pg
NODE_VERSION=20.20.2
# Judging is arithmetic: compiled to machine code it takes a third less time. These are read when PHP starts, so they
# cannot stand in the pool's settings.
ENGINE=(
    -d opcache.enable=1 -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M
    -d opcache.memory_consumption=128 -d opcache.interned_strings_buffer=16 -d opcache.max_accelerated_files=20000
)
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1

say() { printf '%s\n' "$*"; }
die() {
    printf 'Kybernet: %s\n' "$*" >&2
    exit 1
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

# Servers never run as root. Where the project lies in a folder that only root may enter (root's own home, a private
# temporary folder), they get a view of the file system in which the way to the project is open, and nothing beside it.
as_account() {
    local account=$1
    shift
    if [ "$(id -u)" != 0 ]; then
        "$@"
        return
    fi
    local become=(setpriv --reuid="$account" --regid="$account" --clear-groups env HOME=/tmp) hidden
    hidden=$(first_hidden_folder "$account")
    if [ -z "$hidden" ]; then
        (cd / && exec "${become[@]}" "$@")
    else
        (cd / && exec unshare --mount --propagation private bash -c '
            set -e
            root=$1 hidden=$2
            mount --bind "$root" /mnt
            mount -t tmpfs -o mode=755 kybernet "$hidden"
            mkdir -p "$root"
            mount --move /mnt "$root"
            shift 2
            exec "$@"' kybernet "$ROOT" "$hidden" "${become[@]}" "$@")
    fi
}

# The topmost folder on the way to the project that the account may not pass; nothing when it may pass all.
first_hidden_folder() {
    local path='' part parts
    IFS=/ read -ra parts <<<"${ROOT#/}"
    for part in "${parts[@]}"; do
        path=$path/$part
        if ! setpriv --reuid="$1" --regid="$1" --clear-groups test -x "$path"; then
            if [ "$path" = "$ROOT" ]; then
                chmod o+x "$ROOT"
            else
                printf '%s' "$path"
                return
            fi
        fi
    done
}
own() { if [ "$(id -u)" = 0 ]; then chown -R "$1:$1" "${@:2}"; fi; }

# The content of the files below the paths given, as one short text.
fingerprint() { (cd "$ROOT" && find "$@" -type f -print0 2>/dev/null | LC_ALL=C sort -z | xargs -0 sha1sum | sha1sum | cut -c1-40); }
is_fresh() { [ "$(cat "$VAR/stamps/$1" 2>/dev/null)" = "$2" ]; }
mark_fresh() { mkdir -p "$VAR/stamps" && printf '%s' "$2" >"$VAR/stamps/$1"; }

port_is_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
free_port() {
    local port
    for port in $(seq "$1" $(($1 + 200))); do
        port_is_taken "$port" || { printf '%s' "$port"; return; }
    done
    die "no port from $1 to $(($1 + 200)) is free on 127.0.0.1."
}

check_disk() {
    local free
    free=$(df -Pm "$ROOT" | awk 'NR == 2 { print $4 }')
    [ "$free" -ge 800 ] || die "the disk that holds $ROOT has only $free MB left; about 800 MB are needed."
}

# Says so at once where the server account cannot read the code itself, such as after a clone with a closed umask.
check_readable() {
    as_account www-data test -r "$ROOT/public/index.php" 2>/dev/null ||
        die "the account www-data cannot read the files in $ROOT; 'chmod -R o+rX $ROOT' lets it."
}

lock() {
    mkdir -p "$VAR"
    exec 9>"$VAR/lock"
    flock -w 300 9 || die "another bin/start or bin/test of this folder is still running."
}

# install_packages WITH_BROWSER
install_packages() {
    local wanted=() extension
    command -v php8.2 >/dev/null || wanted+=(php8.2-cli)
    for extension in mbstring xml intl curl pgsql zip gd; do
        [ -e "/etc/php/8.2/cli/conf.d/20-$extension.ini" ] || [ -n "$(ls /etc/php/8.2/cli/conf.d/*-"$extension".ini 2>/dev/null)" ] || wanted+=("php8.2-$extension")
    done
    command -v php-fpm8.2 >/dev/null || wanted+=(php8.2-fpm)
    command -v nginx >/dev/null || wanted+=(nginx-light)
    command -v setpriv >/dev/null || wanted+=(util-linux)
    command -v composer >/dev/null || wanted+=(composer)
    command -v unzip >/dev/null || wanted+=(unzip)
    command -v node >/dev/null || wanted+=(nodejs)
    command -v npm >/dev/null || wanted+=(npm)
    [ -x "$PG_BIN/postgres" ] || wanted+=(postgresql-15)
    [ "$1" = no ] || command -v chromium >/dev/null || wanted+=(chromium)
    if [ ${#wanted[@]} -gt 0 ]; then
        command -v apt-get >/dev/null || die "these are missing and this is no Debian to install them: ${wanted[*]}."
        [ "$(id -u)" = 0 ] || command -v sudo >/dev/null || die "these are missing, and installing them needs root or sudo: ${wanted[*]}."
        say "Installing ${wanted[*]} …"
        mkdir -p "$VAR/log"
        # The packages' own services would take ports that nobody asked for; they are told not to start.
        as_root sh -c 'test -e /usr/sbin/policy-rc.d || { printf "#!/bin/sh\nexit 101\n" >/usr/sbin/policy-rc.d; chmod +x /usr/sbin/policy-rc.d; touch /run/kybernet-policy; }'
        local failed=0
        { as_root apt-get update && as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${wanted[@]}"; } >"$VAR/log/apt.log" 2>&1 || failed=1
        as_root sh -c 'if test -e /run/kybernet-policy; then rm -f /usr/sbin/policy-rc.d /run/kybernet-policy; fi'
        [ "$failed" = 0 ] || die "Debian's packages could not be installed (${wanted[*]}); $VAR/log/apt.log says why."
    fi
    use_node
}

# Debian 12 has an older Node than the front end builds with; the registry has the one that is needed.
use_node() {
    if [ -x "$VAR/node/bin/node" ]; then
        PATH=$VAR/node/bin:$PATH
    elif ! node -e 'const [a, b] = process.versions.node.split("."); process.exit(a > 20 || (a == 20 && b >= 19) ? 0 : 1)' 2>/dev/null; then
        say "Installing Node $NODE_VERSION …"
        mkdir -p "$VAR/node/bin"
        npm install --prefix "$VAR/node" --no-save --no-package-lock "node-linux-$(uname -m | sed 's/x86_64/x64/; s/aarch64/arm64/')@$NODE_VERSION" npm@11 >"$VAR/log/node.log" 2>&1 ||
            die "Node $NODE_VERSION could not be installed; $VAR/log/node.log says why."
        ln -sf "$VAR"/node/node_modules/node-linux-*/bin/node "$VAR/node/bin/node"
        ln -sf "$VAR/node/node_modules/npm/bin/npm-cli.js" "$VAR/node/bin/npm"
        PATH=$VAR/node/bin:$PATH
    fi
    export PATH
}

install_libraries() {
    local stamp
    mkdir -p "$VAR/log"
    stamp=$(fingerprint composer.json compat)
    if ! is_fresh composer "$stamp" || [ ! -e "$ROOT/vendor/autoload.php" ]; then
        say "Installing the PHP libraries …"
        (cd "$ROOT" && composer update --no-progress --no-scripts) >"$VAR/log/composer.log" 2>&1 ||
            die "the PHP libraries could not be installed; $VAR/log/composer.log says why."
        # Some archives carry files that only their owner may read; the server runs as somebody else.
        chmod -R a+rX "$ROOT/vendor"
        mark_fresh composer "$stamp"
    fi
    stamp=$(fingerprint package.json package-lock.json .npmrc)
    if ! is_fresh npm "$stamp" || [ ! -d "$ROOT/node_modules" ]; then
        say "Installing the front-end libraries …"
        (cd "$ROOT" && npm ci) >"$VAR/log/npm.log" 2>&1 ||
            die "the front-end libraries could not be installed; $VAR/log/npm.log says why."
        mark_fresh npm "$stamp"
    fi
}

build_front_end() {
    local stamp
    stamp=$(fingerprint resources package.json package-lock.json vite.config.ts tsconfig.json)
    if ! is_fresh build "$stamp" || [ ! -e "$ROOT/public/build/manifest.json" ]; then
        say "Building the front end …"
        (cd "$ROOT" && npx vite build) >"$VAR/log/build.log" 2>&1 || die "the front end could not be built; $VAR/log/build.log says why."
        chmod -R a+rX "$ROOT/public/build"
        mark_fresh build "$stamp"
    fi
}

postgres_is_running() { [ -s "$PG_DATA/postmaster.pid" ] && as_account postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" status >/dev/null 2>&1; }

start_postgres() {
    mkdir -p "$VAR/log"
    if [ ! -s "$VAR/pg.password" ]; then
        (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$VAR/pg.password")
    fi
    if [ ! -e "$PG_DATA/kybernet.ready" ]; then
        say "Making the database cluster …"
        rm -rf "$PG_DATA"
        mkdir -p "$PG_DATA"
        chmod 700 "$PG_DATA"
        (umask 077 && cp "$VAR/pg.password" "$VAR/pg.pwfile")
        own postgres "$PG_DATA" "$VAR/pg.pwfile"
        as_account postgres "$PG_BIN/initdb" -D "$PG_DATA" --username=kybernet --auth=scram-sha-256 --pwfile="$VAR/pg.pwfile" \
            --encoding=UTF8 --locale=C.UTF-8 >"$VAR/log/initdb.log" 2>&1 ||
            die "the database cluster could not be made; $VAR/log/initdb.log says why."
        rm -f "$VAR/pg.pwfile"
        # TCP on loopback only, and no just-in-time compiler: it costs more than it gives on queries this small.
        printf "listen_addresses = '127.0.0.1'\nunix_socket_directories = ''\njit = off\nlogging_collector = off\n" |
            as_account postgres tee -a "$PG_DATA/postgresql.conf" >/dev/null
        as_account postgres touch "$PG_DATA/kybernet.ready"
    fi
    if ! postgres_is_running; then
        free_port 54320 >"$VAR/pg.port"
        as_account postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -o "-p $(cat "$VAR/pg.port")" -w -t 30 start >"$VAR/log/postgres.log" 2>&1 9>&- ||
            die "the database did not start; $VAR/log/postgres.log says why."
    fi
}

stop_postgres() { if postgres_is_running; then as_account postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -m fast -w stop >/dev/null; fi; }

# sql DATABASE STATEMENT
sql() {
    PGPASSWORD=$(cat "$VAR/pg.password") "$PG_BIN/psql" -h 127.0.0.1 -p "$(cat "$VAR/pg.port")" -U kybernet -qtAX -v ON_ERROR_STOP=1 -d "$1" -c "$2"
}

# use_instance NAME: the application or one of its test instances; each has its own database, settings and caches.
use_instance() {
    INSTANCE=$1
    DATABASE=kybernet
    [ "$INSTANCE" = app ] || DATABASE=kybernet_$INSTANCE
    export KYBERNET_HOME=$VAR/$INSTANCE
    export APP_CONFIG_CACHE=$KYBERNET_HOME/cache/config.php APP_ROUTES_CACHE=$KYBERNET_HOME/cache/routes.php
    export APP_EVENTS_CACHE=$KYBERNET_HOME/cache/events.php APP_SERVICES_CACHE=$KYBERNET_HOME/cache/services.php
    export APP_PACKAGES_CACHE=$KYBERNET_HOME/cache/packages.php
}

artisan() { (cd "$ROOT" && php8.2 artisan "$@"); }

# prepare_instance URL: settings and secrets, an up-to-date schema, the demonstration where there is nothing yet.
prepare_instance() {
    mkdir -p "$KYBERNET_HOME"/{cache,run,log} "$KYBERNET_HOME"/storage/framework/{sessions,views,cache/data} "$KYBERNET_HOME/storage/app"
    [ -s "$KYBERNET_HOME/key" ] || (umask 077 && head -c 32 /dev/urandom | base64 >"$KYBERNET_HOME/key")
    (
        umask 077
        cat >"$KYBERNET_HOME/.env" <<ENV
APP_KEY=base64:$(cat "$KYBERNET_HOME/key")
APP_URL=$1
DB_PORT=$(cat "$VAR/pg.port")
DB_DATABASE=$DATABASE
DB_PASSWORD=$(cat "$VAR/pg.password")
LOG_CHANNEL=stderr
KYBERNET_DEMO=true
ENV
    )
    [ "$(sql postgres "SELECT count(*) FROM pg_database WHERE datname = '$DATABASE'")" = 1 ] || sql postgres "CREATE DATABASE $DATABASE"
    local code settings
    code=$(fingerprint app bootstrap/app.php config core/src database routes composer.json "$KYBERNET_HOME/.env")
    settings=$(fingerprint resources/views)
    if ! is_fresh "code-$INSTANCE" "$code$settings" || [ ! -e "$APP_CONFIG_CACHE" ]; then
        rm -f "$KYBERNET_HOME"/cache/*.php
        { artisan config:cache && artisan route:cache && artisan event:cache && artisan view:cache; } >"$VAR/log/artisan.log" 2>&1 ||
            die "the application could not be prepared; $VAR/log/artisan.log says why."
    fi
    if ! is_fresh "code-$INSTANCE" "$code$settings" || [ "$(sql "$DATABASE" "SELECT to_regclass('units') IS NULL")" = t ]; then
        { artisan migrate --force && artisan demo:load; } >"$VAR/log/migrate.log" 2>&1 ||
            die "the database could not be brought up to date; $VAR/log/migrate.log says why."
    fi
    mark_fresh "code-$INSTANCE" "$code$settings"
    own www-data "$KYBERNET_HOME"
}

drop_database() { sql postgres "DROP DATABASE IF EXISTS $DATABASE WITH (FORCE)" && rm -f "$VAR/stamps/code-$INSTANCE"; }

# pid_of NAME: the process that this instance started as NAME, if it still runs.
pid_of() {
    local pid
    pid=$(cat "$KYBERNET_HOME/run/$1.pid" 2>/dev/null) || return 1
    [ -n "$pid" ] && tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -qF "$KYBERNET_HOME/" && printf '%s' "$pid"
}

web_is_running() { pid_of fpm >/dev/null && pid_of nginx >/dev/null; }

stop_web() {
    local name pid
    for name in nginx fpm; do
        pid=$(pid_of "$name") || continue
        kill -QUIT "$pid" 2>/dev/null || true
        for _ in $(seq 50); do [ -d "/proc/$pid" ] || break; sleep 0.1; done
        kill -KILL "$pid" 2>/dev/null || true
    done
}

# start_web PORT
start_web() {
    local socket=$KYBERNET_HOME/run/fpm.sock
    [ ${#socket} -le 100 ] || die "the path $ROOT is too long for a server socket; please move the project to a shorter one."
    cat >"$KYBERNET_HOME/fpm.conf" <<CONF
[global]
pid = $KYBERNET_HOME/run/fpm.pid
error_log = $KYBERNET_HOME/log/fpm.log
daemonize = yes
[kybernet]
listen = $socket
pm = static
pm.max_children = 4
pm.max_requests = 2000
catch_workers_output = yes
decorate_workers_output = no
env[KYBERNET_HOME] = $KYBERNET_HOME
env[APP_CONFIG_CACHE] = $APP_CONFIG_CACHE
env[APP_ROUTES_CACHE] = $APP_ROUTES_CACHE
env[APP_EVENTS_CACHE] = $APP_EVENTS_CACHE
env[APP_SERVICES_CACHE] = $APP_SERVICES_CACHE
env[APP_PACKAGES_CACHE] = $APP_PACKAGES_CACHE
php_admin_value[memory_limit] = 256M
php_admin_value[upload_max_filesize] = 31M
php_admin_value[post_max_size] = 32M
php_admin_value[realpath_cache_size] = 4M
php_admin_value[expose_php] = off
CONF
    cat >"$KYBERNET_HOME/nginx.conf" <<CONF
pid $KYBERNET_HOME/run/nginx.pid;
error_log $KYBERNET_HOME/log/nginx.log warn;
worker_processes 1;
events { worker_connections 256; }
http {
    include /etc/nginx/mime.types;
    default_type application/octet-stream;
    access_log off;
    server_tokens off;
    sendfile on;
    client_max_body_size 32m;
    client_body_temp_path $KYBERNET_HOME/run/body;
    proxy_temp_path $KYBERNET_HOME/run/proxy;
    fastcgi_temp_path $KYBERNET_HOME/run/fastcgi;
    uwsgi_temp_path $KYBERNET_HOME/run/uwsgi;
    scgi_temp_path $KYBERNET_HOME/run/scgi;
    gzip on;
    gzip_min_length 1000;
    gzip_types text/css application/javascript application/json application/problem+json image/svg+xml;
    server {
        listen 127.0.0.1:$1;
        root $ROOT/public;
        location /build/ {
            # The names of built files change with their content.
            add_header Cache-Control "public, max-age=31536000, immutable";
            add_header X-Content-Type-Options nosniff;
            try_files \$uri =404;
        }
        location = /icon.svg { try_files \$uri =404; }
        location / {
            fastcgi_pass unix:$socket;
            fastcgi_buffers 32 32k;
            fastcgi_buffer_size 32k;
            include /etc/nginx/fastcgi_params;
            fastcgi_param SCRIPT_FILENAME $ROOT/public/index.php;
            fastcgi_param SCRIPT_NAME /index.php;
        }
    }
}
CONF
    own www-data "$KYBERNET_HOME"
    as_account www-data "$(command -v php-fpm8.2)" -y "$KYBERNET_HOME/fpm.conf" -c /etc/php/8.2/fpm/php.ini \
        "${ENGINE[@]}" 9>&- ||
        die "the PHP server did not start; $KYBERNET_HOME/log/fpm.log says why."
    as_account www-data "$(command -v nginx)" -c "$KYBERNET_HOME/nginx.conf" -p "$KYBERNET_HOME/" -e "$KYBERNET_HOME/log/nginx.log" 9>&- ||
        die "the web server did not start; $KYBERNET_HOME/log/nginx.log says why."
    local tried
    for tried in $(seq 50); do
        port_is_taken "$1" && return
        sleep 0.1
    done
    die "the web server does not answer on port $1; $KYBERNET_HOME/log/nginx.log may say why."
}
