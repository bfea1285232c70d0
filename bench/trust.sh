#!/usr/bin/env bash
# Tries to break it, and prints what came of that. Not part of the tests: it takes an hour. As root, since it mounts small disks.
#   bench/trust.sh                                  all of it
#   bench/trust.sh uploads|kills|database|races|disk|editors|crowd|machines [NUMBER]   one of them, with another number of tries or minutes
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
. "$ROOT/bin/lib/install.sh"
. "$ROOT/bin/lib/stack.sh"
cd "$ROOT"
install_debian "${debian_packages[@]}" "${debian_test_packages[@]}"
install_node; install_composer; install_npm; build_web
DIR=$ROOT/var/trust
finish() {
  trap - INT TERM EXIT
  local part
  for part in "$DIR/a" "$DIR/b" "$DIR"; do stack_stop "$part" || true; done
  [ ! -s "$DIR/run-s3.pid" ] || signal TERM "$(cat "$DIR/run-s3.pid")"
  ! mountpoint -q "$DIR/storage" || umount -l "$DIR/storage"
  rm -rf "$(pg_dir "$DIR")" "$DIR"
}
trap finish INT TERM EXIT

# begin [SIZE]  A fresh installation with three workers and the demo; with its storage on a disk of its own of that size.
begin() {
  finish; trap finish INT TERM EXIT
  mkdir -p "$DIR/storage"
  [ -z "${1:-}" ] || mount -t tmpfs -o "size=$1" tmpfs "$DIR/storage"
  database_start "$DIR"
  createdb wattage
  export WATTAGE_QUOTA_RENDERS=200
  app_env "$DIR" wattage
  app_prepare "$DIR"
  APP=$(app_user "$DIR")
  for who in demo nora; do echo salt-ferry | run_as "$APP" "${php_cli[@]}" bin/console wattage:user "$who@wattage.example" "$who" >/dev/null; done
  run_as "$APP" "${php_cli[@]}" bin/console wattage:demo demo@wattage.example
  PORT=$(free_port)
  web_start "$DIR" "$PORT"
  worker_start "$DIR" 1; worker_start "$DIR" 2; worker_start "$DIR" 3 --short
  wait_for "http://127.0.0.1:$PORT/api/session"
  export WATTAGE_URL="http://127.0.0.1:$PORT" WATTAGE_DIR="$DIR" PGDATABASE=wattage
  export RESTART_DATABASE
  RESTART_DATABASE=$(database_restart_command "$DIR")
}

# Two application servers and three workers, each "machine" with directories of its own, on one database and one S3 store.
two_machines() {
  finish; trap finish INT TERM EXIT
  mkdir -p "$DIR/app" "$DIR/s3" "$DIR/a" "$DIR/b"
  git archive HEAD | tar -x -C "$DIR/app"
  cp -r web/dist "$DIR/app/web/dist"
  (cd "$DIR/app" && export COMPOSER_ALLOW_SUPERUSER=1 && composer require --no-update --quiet league/flysystem-aws-s3-v3:3.35.3 && composer update --optimize-autoloader --no-interaction --no-progress --quiet && chmod -R go+rX vendor)
  (cd "$DIR/s3" && npm install --silent --no-save --prefix . s3rver@3.7.1 >/dev/null)
  S3=$(free_port)
  node "$DIR/s3/node_modules/.bin/s3rver" -d "$DIR/s3/data" -a 127.0.0.1 -p "$S3" --configure-bucket wattage >"$DIR/s3/log" 2>&1 &
  echo $! >"$DIR/run-s3.pid"
  export WATTAGE_STORE="s3://wattage/media?endpoint=http://127.0.0.1:$S3" AWS_ACCESS_KEY_ID=S3RVER AWS_SECRET_ACCESS_KEY=S3RVER WATTAGE_STORE_ORIGIN="http://127.0.0.1:$S3"
  database_start "$DIR"
  createdb wattage
  ROOT=$DIR/app
  for machine in a b; do
    cp -p "$DIR/secrets" "$DIR/$machine/secrets"
    app_env "$DIR/$machine" wattage
    app_prepare "$DIR/$machine"
    APP=$(app_user "$DIR/$machine")
    PORT=$(free_port)
    web_start "$DIR/$machine" "$PORT"
    worker_start "$DIR/$machine" 1
    export "URL_$machine=http://127.0.0.1:$PORT"
  done
  worker_start "$DIR/b" 2 --short
  echo salt-ferry | run_as "$APP" "${php_cli[@]}" "$ROOT/bin/console" wattage:user demo@wattage.example Demo >/dev/null
  run_as "$APP" "${php_cli[@]}" "$ROOT/bin/console" wattage:demo demo@wattage.example
  wait_for "$URL_a/api/session"; wait_for "$URL_b/api/session"
  export WATTAGE_URL=$URL_a WATTAGE_OTHER=$URL_b WATTAGE_DIR="$DIR" PGDATABASE=wattage
}

for what in ${1:-uploads kills database races disk editors crowd machines}; do
  case $what in
    disk) begin 400m ;;
    machines) two_machines ;;
    *) begin ;;
  esac
  node "$(dirname "${BASH_SOURCE[0]}")/trust/$what.mjs" ${2:-}
  if [ "$what" = machines ]; then run_as "$APP" "${php_cli[@]}" "$ROOT/bin/console" wattage:verify; fi
done
