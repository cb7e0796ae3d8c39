# shellcheck shell=bash
# What both commands need: packages, libraries, the front end, and an instance's folder. Sourced, not run.

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
tools="$root/var/tools"
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1

say() { printf '%s\n' "$*"; }
die() { printf '%s\n' "$*" >&2; exit 1; }

# Installs Debian packages that are not there yet.
need_debian() {
    local missing=() name
    for name in "$@"; do
        [ "$(dpkg-query -W -f '${db:Status-Status}' "$name" 2>/dev/null)" = installed ] || missing+=("$name")
    done
    [ ${#missing[@]} -gt 0 ] || return 0
    local as=()
    if [ "$(id -u)" -ne 0 ]; then
        command -v sudo >/dev/null && { [ -t 0 ] || sudo -n true 2>/dev/null; } \
            || die "These Debian packages are missing, and there are no rights to install them: ${missing[*]}." \
                'Run this once as root or with sudo, or install them by hand.'
        as=(sudo)
    fi
    say "Installing Debian packages: ${missing[*]}"
    mkdir -p "$root/var"
    {
        "${as[@]}" apt-get update -qq && "${as[@]}" env DEBIAN_FRONTEND=noninteractive \
            apt-get install -y -qq --no-install-recommends "${missing[@]}"
    } >"$root/var/apt.log" 2>&1 \
        || die "The Debian packages could not be installed. The last lines of var/apt.log:" \
            "$(tail -n 3 "$root/var/apt.log")"
}

# Runs a command only when the files it depends on have changed since it last went well.
when_changed() {
    local name=$1 digest=$2
    shift 2
    local stamp="$root/var/stamps/$name"
    [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$digest" ] && return 0
    mkdir -p "$root/var/stamps"
    "$@" || return 1
    printf '%s' "$digest" >"$stamp"
}

digest_of() {
    (cd "$root" && find "$@" -type f ! -name schema.d.ts -print0 2>/dev/null | sort -z | xargs -0 sha256sum) \
        | sha256sum | cut -d' ' -f1
}

need_php() {
    need_debian php8.2-cli php8.2-mysql php8.2-zip php8.2-curl php8.2-gd php8.2-bcmath \
        php8.2-mbstring php8.2-intl php8.2-xml composer unzip git openssl gnupg libarchive-tools mariadb-server
    install_composer() {
        say 'Installing PHP libraries'
        (cd "$root" && composer install --no-progress --quiet 2>"$root/var/composer.log") \
            || die "The PHP libraries could not be installed. The last lines of var/composer.log:" \
                "$(tail -n 5 "$root/var/composer.log")"
    }
    mkdir -p "$root/var"
    [ -f "$root/vendor/autoload.php" ] || rm -f "$root/var/stamps/composer"
    when_changed composer "$(digest_of composer.json compat)" install_composer
}

# Vite wants Node 20.19 or newer. Where the machine's is older, one comes as a package from the npm registry.
need_node() {
    local node_ok='const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'
    if ! { command -v node && command -v npm; } >/dev/null || ! node -e "$node_ok"; then
        if [ ! -x "$tools/bin/node" ]; then
            command -v npm >/dev/null || need_debian nodejs npm
            local arch
            case $(uname -m) in
                x86_64) arch=x64 ;;
                aarch64) arch=arm64 ;;
                *) die "No Node 20.19 or newer here, and none is known for $(uname -m): install one." ;;
            esac
            say 'Installing a newer Node into var/tools'
            mkdir -p "$tools/bin"
            npm install --silent --no-fund --no-audit --prefix "$tools" "node-linux-$arch@22" npm@11 \
                >"$root/var/node.log" 2>&1 \
                || die "Node could not be installed: $(tail -n 3 "$root/var/node.log")"
            ln -sf "../node_modules/node-linux-$arch/bin/node" "$tools/bin/node"
            ln -sf ../node_modules/npm/bin/npm-cli.js "$tools/bin/npm"
        fi
        PATH="$tools/bin:$PATH"
        export PATH
    fi
    install_npm() {
        say 'Installing front-end libraries'
        (cd "$root" && npm install --no-save --silent --no-fund --no-audit >"$root/var/npm.log" 2>&1) \
            || die "The front-end libraries could not be installed: $(tail -n 5 "$root/var/npm.log")"
    }
    [ -d "$root/node_modules" ] || rm -f "$root/var/stamps/npm"
    when_changed npm "$(digest_of package.json package-lock.json)" install_npm
}

need_front_end() {
    build() {
        say 'Building the front end'
        (cd "$root" && npm run --silent types && npm run --silent build) >"$root/var/build.log" 2>&1 \
            || die "The front end could not be built: $(tail -n 20 "$root/var/build.log")"
    }
    [ -f "$root/public/build/manifest.json" ] && [ -f "$root/resources/ui/api/schema.d.ts" ] \
        || rm -f "$root/var/stamps/front-end"
    when_changed front-end \
        "$(digest_of resources package-lock.json vite.config.ts tsconfig.json docs/openapi.yaml docs/formats)" build
}

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

wait_for_port() {
    local tries=0
    while port_is_free "$1"; do
        tries=$((tries + 1))
        [ $tries -lt "${2:-150}" ] || return 1
        sleep 0.1
    done
}

# Makes an instance's folder with settings of its own: secrets are made here and nowhere else.
make_instance() {
    local folder=$1 port=$2 speed=${3:-1}
    mkdir -p "$folder"/{run,logs,bags,packages,storage/{logs,framework/{views,cache,sessions}}} \
        || die "The folder $folder cannot be written."
    folder=$(cd "$folder" && pwd)
    local secret key db_password root_password
    if [ -f "$folder/jade.env" ]; then
        # shellcheck disable=SC1091
        key=$(. "$folder/jade.env" && printf '%s' "$APP_KEY")
        db_password=$(. "$folder/jade.env" && printf '%s' "$DB_PASSWORD")
        root_password=$(. "$folder/jade.env" && printf '%s' "$DB_ROOT_PASSWORD")
    fi
    secret() { openssl rand -hex 24; }
    key=${key:-base64:$(openssl rand -base64 32)}
    db_password=${db_password:-$(secret)}
    root_password=${root_password:-$(secret)}
    (umask 077; cat >"$folder/jade.env" <<ENV
APP_ENV=${JADE_APP_ENV:-production}
APP_KEY=$key
APP_PORT=$port
APP_URL=http://127.0.0.1:$port
DB_HOST=127.0.0.1
DB_PORT=$((port + 3))
DB_DATABASE=jade_step
DB_USERNAME=jade_step
DB_PASSWORD=$db_password
DB_ROOT_PASSWORD=$root_password
VENDOR_ADDRESS=http://127.0.0.1:$((port + 1))
DEVICE_LINK=http://127.0.0.1:$((port + 2))
RIG_SPEED=$speed
ENV
    cat >"$folder/mariadb-init.sql" <<SQL
ALTER USER 'root'@'localhost' IDENTIFIED BY '$root_password';
CREATE DATABASE IF NOT EXISTS jade_step CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
CREATE USER IF NOT EXISTS 'jade_step'@'127.0.0.1' IDENTIFIED BY '$db_password';
ALTER USER 'jade_step'@'127.0.0.1' IDENTIFIED BY '$db_password';
GRANT ALL PRIVILEGES ON jade_step.* TO 'jade_step'@'127.0.0.1';
SQL
    )
}
