# shellcheck shell=bash
# What both commands need: packages, libraries, the front end, and an instance's folder. Sourced, not run.

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
# shellcheck disable=SC1091
. "$root/bin/lib/accounts.sh"
tools="$root/var/tools"
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1

say() { printf '%s\n' "$*"; }
die() { printf '%s\n' "$*" >&2; exit 1; }

# The Debian packages of parts of bin/lib/programs.
packages_of() { # part …
    local part package rest wanted=" $* "
    while read -r part package rest; do
        [[ $wanted != *" $part "* ]] || printf '%s\n' "$package"
    done <"$root/bin/lib/programs" | sort -u
}

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
    (
        umask 022
        "${as[@]}" apt-get update -qq && start_nothing "${as[@]}" env DEBIAN_FRONTEND=noninteractive \
            apt-get install -y -qq --no-install-recommends "${missing[@]}"
    ) >"$root/var/apt.log" 2>&1 \
        || die "The Debian packages could not be installed. The last lines of var/apt.log:" \
            "$(tail -n 3 "$root/var/apt.log")"
}

# Runs a command without that a package which it installs starts a service of the whole machine: nobody asked for one.
start_nothing() {
    local policy=/usr/sbin/policy-rc.d as=() done=0
    [ "$(id -u)" -eq 0 ] || as=(sudo)
    if [ -e "$policy" ]; then "$@"; return; fi
    printf '#!/bin/sh\nexit 101\n' | "${as[@]}" tee "$policy" >/dev/null
    "${as[@]}" chmod 755 "$policy"
    "$@" || done=$?
    "${as[@]}" rm -f "$policy"
    return $done
}

# Runs a command only when the files it depends on have changed since it last went well.
when_changed() {
    local name=$1 digest=$2
    shift 2
    local stamp="$root/var/stamps/$name"
    [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$digest" ] && return 0
    mkdir -p "$root/var/stamps"
    local mask done=0
    mask=$(umask)
    umask 022 # the services read what is made here, whoever they run as
    "$@" || done=$?
    umask "$mask"
    [ $done -eq 0 ] || return 1
    printf '%s' "$digest" >"$stamp"
}

digest_of() {
    (cd "$root" && find "$@" -type f ! -name schema.d.ts -print0 2>/dev/null | sort -z | xargs -0 sha256sum) \
        | sha256sum | cut -d' ' -f1
}

# What installing and building say is read by who does it.
own_logs() {
    mkdir -p "$root/var"
    local log
    for log in apt composer npm node build check; do
        (umask 077; : >>"$root/var/$log.log")
        chmod 600 "$root/var/$log.log"
    done
}

need_php() {
    own_logs
    # shellcheck disable=SC2046
    need_debian $(packages_of run)
    install_composer() {
        say 'Installing PHP libraries'
        (cd "$root" && composer install --no-progress --quiet 2>"$root/var/composer.log") \
            || die "The PHP libraries could not be installed. The last lines of var/composer.log:" \
                "$(tail -n 5 "$root/var/composer.log")"
    }
    mkdir -p "$root/var"
    [ -f "$root/vendor/autoload.php" ] || rm -f "$root/var/stamps/composer"
    when_changed composer "$(digest_of composer.json compat)" install_composer
    # archives bring rights of their own; the services read the libraries as another account
    ! is_root || chmod -R go+rX "$root/vendor"
}

has_npm() { command -v node >/dev/null && command -v npm >/dev/null; }

# All that parts need of Debian in one go, and then the libraries of PHP and of the front end side by side.
need_parts() { # part of bin/lib/programs …
    own_logs
    # shellcheck disable=SC2046
    need_debian $(packages_of run "$@") $(has_npm || packages_of node)
    (need_php) &
    local php=$!
    need_node
    wait $php || exit 1
}

# Vite wants Node 20.19 or newer. Where the machine's is older, one comes as a package from the npm registry.
need_node() {
    local node_ok='const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'
    if ! has_npm || ! node -e "$node_ok"; then
        if [ ! -x "$tools/bin/node" ]; then
            # shellcheck disable=SC2046
            has_npm || need_debian $(packages_of node)
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

# Where the account of the services cannot read this folder (a home folder, say), a copy of the program does the work.
run_from_where_it_can_be_read() {
    is_root || return 0
    need_accounts
    chmod go+x "$root/var" 2>/dev/null
    setpriv --reuid="$service_account" --regid="$service_account" --init-groups \
        test -r "$root/artisan" -a -x "$root/bin/service" -a -r "$root/bin/lib/accounts.sh" && return 0
    local copy
    copy=/var/lib/$service_account-from/$(printf '%s' "$root" | sha256sum | cut -c1-12)
    say "The account $service_account, which the services run as, cannot read this folder:" \
        "a copy of it in $copy runs instead."
    (
        mkdir -p "$copy"
        find "$copy" -mindepth 1 -maxdepth 1 ! -name var ! -name vendor ! -name node_modules -exec rm -rf {} +
        tar -C "$root" --exclude=./var --exclude=./vendor --exclude=./node_modules --exclude=./.git -cf - . \
            | tar -C "$copy" --no-same-owner --no-same-permissions -xf -
        chmod -R go+rX "$copy" --silent
    ) || die "The program could not be copied to $copy. Put it where every account may read it, and try again."
    exec "$copy/bin/${0##*/}" "$@"
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

# In quotes, since an address of a mail server may hold what a shell or a settings file takes for something else.
mail_settings() {
    local name
    for name in MAIL_DSN MAIL_FROM; do
        [ -z "${!name:-}" ] || printf "%s='%s'\n" "$name" "${!name//\'/}"
    done
}

# Makes an instance's folder with settings of its own: secrets are made here and nowhere else. What lies in it is for
# the account that needs it, and for nobody else of the machine. What is to be otherwise is said as WANTED_….
make_instance() {
    local folder=$1 port=$2 speed=${3:-1}
    mkdir -p "$folder" || die "The folder $folder cannot be written."
    folder=$(cd "$folder" && pwd)
    need_accounts
    (
        umask 077
        mkdir -p "$folder"/{run,logs,bags,packages,inbox,gnupg,home,tmp,mariadb,rig,vendor} \
            "$folder"/storage/{logs,framework/{views,cache,sessions}} \
            || die "The folder $folder cannot be written."
        # also what an older instance has left open
        chmod 700 "$folder"/{run,logs,bags,packages,inbox,gnupg,home,tmp,mariadb,rig,vendor,storage}
        # the accounts pass through, and see nothing on their way
        if is_root; then chmod 711 "$folder"; else chmod 700 "$folder"; fi
        local key db_password owner_password
        if [ -f "$folder/jade.env" ]; then
            # shellcheck disable=SC1091
            key=$(. "$folder/jade.env" && printf '%s' "$APP_KEY")
            db_password=$(. "$folder/jade.env" && printf '%s' "$DB_PASSWORD")
        fi
        # shellcheck disable=SC1091
        [ ! -f "$folder/owner.env" ] || owner_password=$(. "$folder/owner.env" && printf '%s' "$DB_OWNER_PASSWORD")
        secret() { openssl rand -hex 24; }
        db_password=${db_password:-${WANTED_DB_PASSWORD:-}}
        owner_password=${owner_password:-${WANTED_DB_OWNER_PASSWORD:-}}
        key=${key:-base64:$(openssl rand -base64 32)}
        db_password=${db_password:-$(secret)}
        owner_password=${owner_password:-$(secret)}
        cat >"$folder/instance.env" <<ENV
APP_PORT=$port
DB_PORT=${WANTED_DB_PORT:-$((port + 3))}
VENDOR_ADDRESS=http://127.0.0.1:$((port + 1))
DEVICE_LINK=${WANTED_DEVICE_LINK:-http://127.0.0.1:$((port + 2))}
RIG_SPEED=$speed
ENV
        cat - "$folder/instance.env" >"$folder/jade.env" <<ENV
APP_ENV=${JADE_APP_ENV:-production}
APP_KEY=$key
APP_URL=${WANTED_APP_URL:-http://127.0.0.1:$port}
APP_PACKAGES_CACHE=$folder/storage/framework/packages.php
APP_SERVICES_CACHE=$folder/storage/framework/services.php
DB_HOST=${WANTED_DB_HOST:-127.0.0.1}
DB_DATABASE=${WANTED_DB_DATABASE:-jade_step}
DB_USERNAME=${WANTED_DB_USERNAME:-jade_step}
DB_PASSWORD=$db_password
LINK_ADDRESSES=${LINK_ADDRESSES-127.0.0.1:$((port + 2))}
VENDOR_ADDRESSES=${VENDOR_ADDRESSES-127.0.0.1:$((port + 1))}
SECOND_PLACE_ADDRESSES=${SECOND_PLACE_ADDRESSES-}
WEBHOOK_ADDRESSES=${WEBHOOK_ADDRESSES-}
ENV
        mail_settings >>"$folder/jade.env"
        printf 'DB_OWNER_USERNAME=%s\nDB_OWNER_PASSWORD=%s\n' "${WANTED_DB_OWNER_USERNAME:-jade_step_owner}" \
            "$owner_password" >"$folder/owner.env"
        printf 'DB_PORT=%s\n' "${WANTED_DB_PORT:-$((port + 3))}" >"$folder/database.env"
        fill_in "$root/deploy/accounts.sql" "$folder/accounts.sql" NAME=jade_step \
            PASSWORD="$db_password" OWNER_PASSWORD="$owner_password"
        give "$service_account" "$folder"/{run,bags,packages,inbox,gnupg,home,tmp,rig,vendor,storage}
        give "$database_account" "$folder"/{mariadb,accounts.sql,database.env}
        if is_root; then
            chgrp "$service_account" "$folder"/{jade,instance}.env
            chmod 640 "$folder"/{jade,instance}.env
        fi
        rm -f "$folder"/mariadb-init.sql
    )
}
