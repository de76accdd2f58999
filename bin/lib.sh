# Shared by bin/start, bin/test, bin/watch and bin/kybernet: what must be installed, the private database cluster, the
# web server. Every step looks first whether it is done already, so that an interrupted run can simply be run again.

# What is made here is readable for the server accounts, whatever the caller's umask; secrets are closed one by one.
umask 022
# Debian keeps servers where a user's PATH does not look.
PATH=$PATH:/usr/local/sbin:/usr/sbin:/sbin

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

# Settings of web servers are text with signs of their own; these cannot stand in them.
check_path() {
    case $ROOT in
        *[\"\'\\\$\`\;{}%#]* | *$'\n'*) die "the path $ROOT has signs that the servers' settings cannot hold; please move the project to a plainer one." ;;
    esac
    # A socket's name has 107 characters at the most; the longest one here is that of a test instance.
    [ "${#VAR}" -le 80 ] || die "the path $ROOT is too long for a server socket; please move the project to a shorter one."
}

# One folder is one account's: what root has made, a user cannot change, and what a user runs, root would run twice.
check_owner() {
    local owner
    owner=$(stat -c %u "$VAR" 2>/dev/null) || return 0
    [ "$owner" = "$(id -u)" ] || die "this folder was first started by the account '$(stat -c %U "$VAR")'; please run it as that account, or remove $VAR with all data in it."
}

# with_progress WHAT COMMAND …: says every quarter of a minute that it is still at it.
with_progress() {
    local what=$1 seconds=0 pid status=0
    shift
    "$@" &
    pid=$!
    while kill -0 "$pid" 2>/dev/null; do
        sleep 1
        seconds=$((seconds + 1))
        [ $((seconds % 15)) != 0 ] || say "  … $what, $seconds seconds so far"
    done
    wait "$pid" || status=$?
    return $status
}

# Servers never run as root. Where the project lies in a folder that only root may enter (root's own home, a private
# temporary folder), they get a view of the file system in which the way to the project is open, and nothing beside it.
as_account() { (as_account_here "$@"); }

# The same in place of this process.
as_account_here() {
    local account=$1 hidden become
    shift
    cd /
    if [ "$(id -u)" != 0 ]; then
        exec "$@"
    fi
    become=(setpriv --reuid="$account" --regid="$account" --clear-groups env HOME=/tmp)
    hidden=$(first_hidden_folder "$account")
    [ -n "$hidden" ] || exec "${become[@]}" "$@"
    exec unshare --mount --propagation private bash -c '
        set -e
        root=$1 hidden=$2
        mount --bind "$root" /mnt
        mount -t tmpfs -o mode=755 kybernet "$hidden"
        mkdir -p "$root"
        mount --move /mnt "$root"
        shift 2
        exec "$@"' kybernet "$ROOT" "$hidden" "${become[@]}" "$@"
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

# need_disk FOLDER MEGABYTES
need_disk() {
    local free
    free=$(df -Pm "$1" | awk 'NR == 2 { print $4 }')
    [ "$free" -ge "$2" ] || die "the disk that holds $1 has only $free MB left; about $2 MB are needed to install what is missing."
}

# Says so at once where the server account cannot read the code itself, such as after a clone with a closed umask.
check_readable() {
    as_account www-data test -r "$ROOT/public/index.php" 2>/dev/null ||
        die "the account www-data cannot read the files in $ROOT; 'chmod -R o+rX $ROOT' lets it."
}

lock() {
    # A part of bin/test, which holds it.
    [ -z "${KYBERNET_LOCKED:-}" ] || return 0
    mkdir -p "$VAR/log"
    check_owner
    exec 9>"$VAR/lock"
    flock -n 9 && return
    say "Another bin/start or bin/test of this folder is running; waiting for it …"
    with_progress "waiting" flock -w 600 9 || die "another bin/start or bin/test of this folder is still running."
}

installed() { dpkg-query -W -f '${db:Status-Status}' "$1" 2>/dev/null | grep -qx installed; }

# install_packages WITH_BROWSER
install_packages() {
    local wanted=() extension
    mkdir -p "$VAR/log"
    command -v dpkg-query >/dev/null || die "this is no Debian, so nothing can be installed here; docs/operations.md says what is needed."
    # Left by a run that was killed: services could never be started by their packages again.
    if [ -e "$VAR/policy-rc.d" ]; then allow_services; fi
    command -v php8.2 >/dev/null || wanted+=(php8.2-cli)
    for extension in mbstring xml intl curl pgsql zip gd; do
        ls /etc/php/8.2/cli/conf.d/*-"$extension".ini >/dev/null 2>&1 || wanted+=("php8.2-$extension")
    done
    command -v php-fpm8.2 >/dev/null || wanted+=(php8.2-fpm)
    command -v nginx >/dev/null || wanted+=(nginx-light)
    command -v setpriv >/dev/null || wanted+=(util-linux)
    command -v pkill >/dev/null || wanted+=(procps)
    command -v curl >/dev/null || wanted+=(curl)
    command -v composer >/dev/null || wanted+=(composer)
    command -v unzip >/dev/null || wanted+=(unzip)
    command -v node >/dev/null || wanted+=(nodejs)
    command -v npm >/dev/null || wanted+=(npm)
    [ -x "$PG_BIN/postgres" ] || wanted+=(postgresql-15)
    [ "$1" = no ] || command -v chromium >/dev/null || wanted+=(chromium)
    # What is printed is read again by other programs.
    [ "$1" = no ] || command -v pdftotext >/dev/null || wanted+=(poppler-utils)
    [ "$1" = no ] || command -v soffice >/dev/null || wanted+=(libreoffice-impress-nogui)
    local broken
    broken=$(dpkg --audit 2>/dev/null | head -1)
    if [ ${#wanted[@]} -gt 0 ] || [ -n "$broken" ]; then
        local list="${wanted[*]:-what an earlier installation has left half done}"
        [ "$(id -u)" = 0 ] || command -v sudo >/dev/null || die "these are missing, and installing them needs root or sudo: $list."
        [ "$(id -u)" = 0 ] || sudo -v 2>/dev/null || die "these are missing, and your account may not install them with sudo: $list."
        need_disk / 800
        need_disk "$ROOT" 800
        say "Installing $list …"
        # The packages' own services would take ports that nobody asked for; they are told not to start.
        trap allow_services EXIT
        forbid_services
        with_progress "installing Debian's packages" apt_install "${wanted[@]}" >"$VAR/log/apt.progress" 2>&1 &
        local job=$!
        tail -n +1 --pid=$job -q -f "$VAR/log/apt.progress" 2>/dev/null
        local failed=0
        wait $job || failed=1
        allow_services
        trap - EXIT
        [ "$failed" = 0 ] || die "Debian's packages could not be installed ($list); $VAR/log/apt.log says why."
    fi
    use_node
}

apt_install() {
    {
        # An installation that was killed leaves packages half configured, and every later one fails on them.
        as_root env DEBIAN_FRONTEND=noninteractive dpkg --configure -a &&
            as_root apt-get -o DPkg::Lock::Timeout=300 update &&
            as_root env DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -y --fix-broken --no-install-recommends "$@"
    } >"$VAR/log/apt.log" 2>&1
}

# Whether the policy is ours is remembered where a reboot keeps it.
forbid_services() {
    [ ! -e /usr/sbin/policy-rc.d ] || return 0
    touch "$VAR/policy-rc.d"
    as_root sh -c 'printf "#!/bin/sh\nexit 101\n" >/usr/sbin/policy-rc.d; chmod +x /usr/sbin/policy-rc.d'
}

allow_services() {
    [ -e "$VAR/policy-rc.d" ] || return 0
    as_root rm -f /usr/sbin/policy-rc.d && rm -f "$VAR/policy-rc.d"
}

# Debian 12 has an older Node than the front end builds with; the registry has the one that is needed.
use_node() {
    if [ -x "$VAR/node/bin/node" ] && "$VAR/node/bin/npm" --version >/dev/null 2>&1; then
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
        need_disk "$ROOT" 800
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

postgres_is_running() { [ -s "$VAR/pg.port" ] && "$PG_BIN/pg_isready" -q -h 127.0.0.1 -p "$(cat "$VAR/pg.port")"; }

start_postgres() {
    mkdir -p "$VAR/log"
    if [ ! -s "$VAR/pg.password" ]; then
        (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$VAR/pg.password")
    fi
    chmod 600 "$VAR/pg.password"
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
    if ! watch_is_running pg || ! postgres_is_running; then
        stop_watch pg
        # One that nobody watches: of a version before there was a watch, or of a watch that was killed.
        as_account postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -m fast -w -t 30 stop >/dev/null 2>&1 || true
        free_port 54320 >"$VAR/pg.port"
        start_watch pg
        local tried
        for tried in $(seq 300); do
            ! postgres_is_running || return 0
            [ "$tried" != 100 ] || say "  … the database is getting ready"
            sleep 0.1
        done
        die "the database did not start; $VAR/log/postgres.out says why."
    fi
}

stop_postgres() {
    stop_watch pg
    [ ! -e "$PG_DATA/postmaster.pid" ] || as_account postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -m fast -w -t 30 stop >/dev/null 2>&1 || true
}

# What is watched: a folder with the process ids of what runs. NAME is pg or an instance.
watch_folder() { if [ "$1" = pg ]; then printf '%s' "$VAR/pg.run"; else printf '%s' "$VAR/$1/run"; fi; }

# Whether anything of the session runs; what is dead and waits to be noticed does not.
is_alive() { pgrep -r R,S,D,I -s "$1" >/dev/null 2>&1; }

booted_at() { awk '$1 == "btime" { print $2 }' /proc/stat; }

# session_of NAME SERVICE: the session that was begun for it since this machine was booted.
session_of() {
    local file
    file=$(watch_folder "$1")/$2.pid
    [ -s "$file" ] && [ "$(stat -c %Y "$file")" -ge "$(booted_at)" ] && cat "$file"
}

# watch_is_running NAME
watch_is_running() {
    local pid
    pid=$(session_of "$1" watch) && is_alive "$pid"
}

# start_watch NAME: everything that belongs to it, watched and begun again where it dies.
start_watch() {
    mkdir -p "$(watch_folder "$1")"
    (cd / && exec setsid --fork "$ROOT/bin/watch" "$1" </dev/null >>"$VAR/log/watch-$1.log" 2>&1 9>&-)
}

# stop_watch NAME: ends it, and whatever it or an earlier one has left.
stop_watch() {
    local pid file session
    if watch_is_running "$1"; then
        pid=$(session_of "$1" watch)
        kill -TERM "$pid" 2>/dev/null || true
        for _ in $(seq 200); do is_alive "$pid" || break; sleep 0.1; done
    fi
    for file in "$(watch_folder "$1")"/*.pid; do
        [ -e "$file" ] || continue
        session=$(session_of "$1" "$(basename "$file" .pid)") || { rm -f "$file"; continue; }
        pkill -KILL -s "$session" 2>/dev/null || true
        for _ in $(seq 50); do is_alive "$session" || break; sleep 0.1; done
        rm -f "$file"
    done
}

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

# The same as the owner of the database, who makes its tables and may leave things out of the trail.
owner_artisan() {
    (cd "$ROOT" && APP_CONFIG_CACHE=$KYBERNET_HOME/cache/no-config.php DB_TIMEOUT=30 DB_USERNAME=kybernet DB_PASSWORD=$(cat "$VAR/pg.password") php8.2 artisan "$@")
}

# The application's own account at the database: it reads and writes rows, owns nothing, and only reads the trail.
grant_rows() {
    local role=${DATABASE}_app password
    [ -s "$KYBERNET_HOME/db.password" ] || (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$KYBERNET_HOME/db.password")
    password=$(cat "$KYBERNET_HOME/db.password")
    sql postgres "DO \$\$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '$role') THEN CREATE ROLE $role; END IF; END \$\$;
        ALTER ROLE $role LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOINHERIT NOREPLICATION PASSWORD '$password';
        REVOKE ALL ON DATABASE $DATABASE FROM PUBLIC; GRANT CONNECT ON DATABASE $DATABASE TO $role"
    sql "$DATABASE" "REVOKE CREATE ON SCHEMA public FROM PUBLIC; GRANT USAGE ON SCHEMA public TO $role;
        GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO $role;
        GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO $role; GRANT SELECT ON note_versions TO $role;
        REVOKE INSERT, UPDATE, DELETE ON audit_entries, migrations FROM $role;
        GRANT USAGE ON SCHEMA records TO $role;
        GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA records TO $role;
        ALTER DEFAULT PRIVILEGES IN SCHEMA records GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO $role"
}

# Stand-ins of the demonstration: a small service of field control, and a second database that an account can only read.
make_stand_ins() {
    local port ledger=${DATABASE}_ledger reader=${DATABASE}_reader
    port=$(cat "$KYBERNET_HOME/field.port" 2>/dev/null || true)
    [ -n "$port" ] || port=$(free_port 8300)
    printf '%s' "$port" >"$KYBERNET_HOME/field.port"
    if [ "$(sql postgres "SELECT count(*) FROM pg_database WHERE datname = '$ledger'")" = 0 ]; then
        sql postgres "CREATE DATABASE $ledger"
        sql postgres "DO \$\$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '$reader') THEN CREATE ROLE $reader; END IF; END \$\$; ALTER ROLE $reader LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION PASSWORD 'ledger'; REVOKE ALL ON DATABASE $ledger FROM PUBLIC; GRANT CONNECT ON DATABASE $ledger TO $reader"
        (export DB_DATABASE=$ledger && owner_artisan demo:ledger)
        sql "$ledger" "GRANT USAGE ON SCHEMA public TO $reader; GRANT SELECT ON ALL TABLES IN SCHEMA public TO $reader"
    fi
    {
        printf 'KYBERNET_ASKED_HOSTS=127.0.0.1:%s,127.0.0.1:%s\n' "$port" "$(cat "$VAR/pg.port")"
        printf "KYBERNET_STAND_IN='{\"url\":\"http://127.0.0.1:%s/jobs\",\"key\":\"field-key\",\"host\":\"127.0.0.1\",\"port\":%s,\"database\":\"%s\",\"user\":\"%s\",\"password\":\"ledger\",\"sql\":\"SELECT * FROM invoices\"}'\n" "$port" "$(cat "$VAR/pg.port")" "$ledger" "$reader"
    } >"$KYBERNET_HOME/stand-ins"
}

# prepare_instance URL: settings and secrets, an up-to-date schema, the demonstration where there is nothing yet.
prepare_instance() {
    [ -z "${KYBERNET_YEAR_START_MONTH:-}" ] || [ "$(sql "$DATABASE" "SELECT count(*) FROM installation" 2>/dev/null)" != 1 ] ||
        [ "$(sql "$DATABASE" "SELECT year_start_month FROM installation")" = "$KYBERNET_YEAR_START_MONTH" ] ||
        die "the financial year of the data here starts in another month than KYBERNET_YEAR_START_MONTH=$KYBERNET_YEAR_START_MONTH; the data say it (a workbook brings its own), no setting does."
    mkdir -p "$KYBERNET_HOME"/{cache,run,log} "$KYBERNET_HOME"/storage/framework/{sessions,views,cache/data} "$KYBERNET_HOME/storage/app"
    # Keys, passwords, sessions and uploads are for the server's account alone.
    chmod 700 "$KYBERNET_HOME"
    [ -s "$KYBERNET_HOME/key" ] || (umask 077 && head -c 32 /dev/urandom | base64 >"$KYBERNET_HOME/key")
    [ "$(sql postgres "SELECT count(*) FROM pg_database WHERE datname = '$DATABASE'")" = 1 ] || sql postgres "CREATE DATABASE $DATABASE"
    local code settings
    settings=$(fingerprint resources/views)
    code=$(fingerprint app bootstrap/app.php config core/src database routes composer.json)$settings$1$(cat "$VAR/pg.port")$({ cat "$KYBERNET_HOME/settings" 2>/dev/null || true; } | sha256sum | cut -c1-16)
    [ -s "$KYBERNET_HOME/db.password" ] || rm -f "$VAR/stamps/code-$INSTANCE"
    if ! is_fresh "code-$INSTANCE" "$code" || [ ! -e "$APP_CONFIG_CACHE" ] || [ "$(sql "$DATABASE" "SELECT to_regclass('installation') IS NULL")" = t ]; then
        rm -f "$KYBERNET_HOME"/cache/*.php
        [ "$INSTANCE" != app ] || [ "${KYBERNET_EMPTY:-no}" != no ] || make_stand_ins >"$VAR/log/stand-ins.log" 2>&1 || die "the stand-ins of the demonstration could not be made; $VAR/log/stand-ins.log says why."
        [ -s "$KYBERNET_HOME/db.password" ] || (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$KYBERNET_HOME/db.password")
        (
            umask 077
            # Settings of this place: address, proxies, mail. What stands there goes before what is made here.
            local settings_file=$KYBERNET_HOME/settings keys
            keys=$(sed -n 's/^\([A-Z_]*\)=.*/\1/p' "$settings_file" 2>/dev/null | paste -sd'|' || true)
            {
                cat <<ENV
APP_KEY=base64:$(cat "$KYBERNET_HOME/key")
APP_URL=$1
DB_PORT=$(cat "$VAR/pg.port")
DB_DATABASE=$DATABASE
DB_USERNAME=${DATABASE}_app
DB_PASSWORD=$(cat "$KYBERNET_HOME/db.password")
LOG_CHANNEL=stderr
LOG_STDERR_FORMATTER=Monolog\\Formatter\\JsonFormatter
ENV
            } | grep -vE "^(${keys:-NONE})=" >"$KYBERNET_HOME/.env"
            [ ! -e "$settings_file" ] || cat "$settings_file" >>"$KYBERNET_HOME/.env"
            # Those of the place go before what is made here.
            [ ! -e "$KYBERNET_HOME/stand-ins" ] || grep -vE "^(${keys:-NONE})=" "$KYBERNET_HOME/stand-ins" >>"$KYBERNET_HOME/.env" || true
        )
        { owner_artisan migrate --force && { [ "${KYBERNET_EMPTY:-no}" = no ] || owner_artisan begin --quiet; } && owner_artisan demo:load; } >"$VAR/log/migrate.log" 2>&1 ||
            die "the database could not be brought up to date; $VAR/log/migrate.log says why."
        grant_rows >"$VAR/log/grants.log" 2>&1 || die "the application's account at the database could not be made; $VAR/log/grants.log says why."
        (umask 077 && artisan config:cache && artisan route:cache && artisan event:cache && artisan view:cache) >"$VAR/log/artisan.log" 2>&1 ||
            die "the application could not be prepared; $VAR/log/artisan.log says why."
        mark_fresh "code-$INSTANCE" "$code"
        RESTART=yes
    fi
    artisan assessments:renew >"$VAR/log/renew.log" 2>&1 || die "kept assessments could not be looked through; $VAR/log/renew.log says why."
    own www-data "$KYBERNET_HOME"
}

# A demonstration that tests copy instead of loading it again: made once for each version of what makes it.
make_template() {
    local made
    use_instance template
    made=$(fingerprint app config core/src database composer.json)
    [ "$(cat "$VAR/stamps/template" 2>/dev/null)" != "$made" ] || return 0
    say "Loading the demonstration that tests start from …"
    rm -f "$VAR/stamps/template"
    drop_database
    prepare_instance http://127.0.0.1
    mark_fresh template "$made"
}
copy_template() { sql postgres "CREATE DATABASE $DATABASE TEMPLATE kybernet_template"; }
drop_database() { sql postgres "DROP DATABASE IF EXISTS $DATABASE WITH (FORCE)" && rm -f "$VAR/stamps/code-$INSTANCE"; }

# Whether any other place is being served: they share the database server.
others_run() {
    local place
    for place in "$VAR"/app "$VAR"/site_*; do
        if [ "$place" != "$KYBERNET_HOME" ] && [ -d "$place/run" ] && watch_is_running "$(basename "$place")"; then return 0; fi
    done
    return 1
}

web_is_running() {
    watch_is_running "$INSTANCE" && [ -s "$KYBERNET_HOME/run/port" ] &&
        curl -fsS -o /dev/null -m 5 "http://127.0.0.1:$(cat "$KYBERNET_HOME/run/port")/api/session" 2>/dev/null
}

stop_web() { stop_watch "$INSTANCE"; }

# start_web PORT: web server, PHP, a worker for what takes long, and the scheduler.
start_web() {
    local socket=$KYBERNET_HOME/run/fpm.sock workers=${QUEUE_WORKERS:-1}
    [[ $workers =~ ^[1-9]$ ]] || die "QUEUE_WORKERS is a number from 1 to 9, not '$workers'."
    cat >"$KYBERNET_HOME/fpm.conf" <<CONF
[global]
pid = "$KYBERNET_HOME/run/fpm.self"
error_log = "$KYBERNET_HOME/log/fpm.log"
daemonize = no
[kybernet]
listen = "$socket"
pm = static
pm.max_children = 4
pm.max_requests = 2000
catch_workers_output = yes
decorate_workers_output = no
env[KYBERNET_HOME] = "$KYBERNET_HOME"
env[APP_CONFIG_CACHE] = "$APP_CONFIG_CACHE"
env[APP_ROUTES_CACHE] = "$APP_ROUTES_CACHE"
env[APP_EVENTS_CACHE] = "$APP_EVENTS_CACHE"
env[APP_SERVICES_CACHE] = "$APP_SERVICES_CACHE"
env[APP_PACKAGES_CACHE] = "$APP_PACKAGES_CACHE"
php_admin_value[memory_limit] = 256M
php_admin_value[upload_max_filesize] = 201M
php_admin_value[post_max_size] = 202M
php_admin_value[realpath_cache_size] = 4M
php_admin_value[expose_php] = off
CONF
    cat >"$KYBERNET_HOME/nginx.conf" <<CONF
pid "$KYBERNET_HOME/run/nginx.self";
error_log "$KYBERNET_HOME/log/nginx.log" warn;
worker_processes 1;
daemon off;
events { worker_connections 256; }
http {
    include /etc/nginx/mime.types;
    default_type application/octet-stream;
    access_log off;
    server_tokens off;
    sendfile on;
    client_max_body_size 32m;
    client_body_temp_path "$KYBERNET_HOME/run/body";
    proxy_temp_path "$KYBERNET_HOME/run/proxy";
    fastcgi_temp_path "$KYBERNET_HOME/run/fastcgi";
    uwsgi_temp_path "$KYBERNET_HOME/run/uwsgi";
    scgi_temp_path "$KYBERNET_HOME/run/scgi";
    gzip on;
    gzip_min_length 1000;
    gzip_types text/css application/javascript application/json application/problem+json image/svg+xml;
    server {
        listen 127.0.0.1:$1;
        root "$ROOT/public";
        # The front end reads problems, never a web server's own page.
        error_page 400 /problems/refused;
        error_page 413 = @large;
        error_page 502 503 504 = @away;
        location /build/ {
            # The names of built files change with their content.
            add_header Cache-Control "public, max-age=31536000, immutable";
            add_header X-Content-Type-Options nosniff;
            try_files \$uri =404;
        }
        location = /icon.svg { try_files \$uri =404; }
        fastcgi_connect_timeout 2s;
        fastcgi_read_timeout 120s;
        fastcgi_buffers 32 32k;
        fastcgi_buffer_size 32k;
        include /etc/nginx/fastcgi_params;
        # With its port: pages of another port are another site.
        fastcgi_param HTTP_HOST \$host:\$server_port;
        fastcgi_param SCRIPT_FILENAME "$ROOT/public/index.php";
        fastcgi_param SCRIPT_NAME /index.php;
        location / { fastcgi_pass "unix:$socket"; }
        # Records come by the hundred megabytes; they are read from disk, never held.
        location ~ ^/api/record-sets/[^/]+/(loads|records)\$ {
            client_max_body_size 202m;
            error_page 413 = @larger;
            fastcgi_pass "unix:$socket";
        }
        location @away {
            internal;
            default_type application/problem+json;
            add_header Retry-After 2 always;
            add_header Cache-Control "no-store" always;
            return 503 '{"type":"/problems/away","title":"The server cannot be reached just now","status":503,"detail":"What you typed is kept here and is sent when it is back.","errors":[],"current":null}';
        }
        location @large {
            internal;
            default_type application/problem+json;
            return 413 '{"type":"/problems/too-large","title":"Too large","status":413,"detail":"The file is larger than 30 MB. Split it and send the parts.","errors":[],"current":null}';
        }
        location @larger {
            internal;
            default_type application/problem+json;
            return 413 '{"type":"/problems/too-large","title":"Too large","status":413,"detail":"The file is larger than 200 MB. Put it into the watched folder, or split it.","errors":[],"current":null}';
        }
        location = /problems/refused {
            internal;
            default_type application/problem+json;
            return 400 '{"type":"/problems/refused","title":"The request was refused","status":400,"detail":"The server did not understand this request.","errors":[],"current":null}';
        }
    }
}
CONF
    printf '%s' "$workers" >"$KYBERNET_HOME/run/workers"
    own www-data "$KYBERNET_HOME"
    start_watch "$INSTANCE"
    local tried
    for tried in $(seq 200); do
        ! curl -fsS -o /dev/null -m 5 "http://127.0.0.1:$1/api/session" 2>/dev/null || return 0
        sleep 0.1
    done
    die "the web server does not answer on port $1; $KYBERNET_HOME/log/nginx.log and $VAR/log/watch-$INSTANCE.log may say why."
}
