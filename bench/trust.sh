#!/usr/bin/env bash
# Tries to break it, and prints what came of that. Not part of the tests: it takes an hour. As root, since it mounts small disks.
#   bench/trust.sh                                  all of it
#   bench/trust.sh uploads|kills|database|disk|editors|crowd [NUMBER]   one of them, with another number of tries or minutes
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
. "$ROOT/bin/lib/install.sh"
. "$ROOT/bin/lib/stack.sh"
cd "$ROOT"
install_debian "${debian_packages[@]}" "${debian_test_packages[@]}"
install_node; install_composer; install_npm; build_web
DIR=$ROOT/var/trust
finish() { trap - INT TERM EXIT; stack_stop "$DIR" || true; ! mountpoint -q "$DIR/storage" || umount -l "$DIR/storage"; rm -rf "$(pg_dir "$DIR")" "$DIR"; }
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

for what in ${1:-uploads kills database disk editors crowd}; do
  if [ "$what" = disk ]; then begin 400m; else begin; fi
  node "bench/trust/$what.mjs" ${2:-}
done
