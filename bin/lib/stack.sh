# A private PostgreSQL cluster, php-fpm, nginx and workers, all on loopback, all with their files under one directory.
#
#   stack_start DIR HTTP_PORT WORKERS   starts what does not run; writes DIR/env
#   stack_stop DIR                      ends all that was started there

PG_BIN=/usr/lib/postgresql/15/bin

# Servers do not run as root. The database must be able to reach its directory, and the app its code; where a private
# directory above prevents that, the database moves to /var/lib and the app stays with the caller's account.
pg_user() { if [ "$(id -u)" = 0 ]; then echo postgres; else id -un; fi; }
app_user() {
  if [ "$(id -u)" != 0 ]; then id -un; return; fi
  if runuser -u www-data -- test -r "$ROOT/composer.json" && runuser -u www-data -- test -x "$1"; then echo www-data; else echo root; fi
}
run_as() { local user=$1; shift; if [ "$(id -un)" = "$user" ]; then "$@"; else runuser -u "$user" -- "$@"; fi; }

free_port() { php -r '$s = stream_socket_server("tcp://127.0.0.1:0"); echo explode(":", stream_socket_get_name($s, false))[1];'; }

pg_dir() {
  local dir=$1
  mkdir -p "$dir"
  if run_as "$(pg_user)" test -x "$dir"; then echo "$dir/pg"; else echo "/var/lib/wattage-$(echo "$dir" | sha256sum | cut -c1-12)"; fi
}

# database_start DIR  Starts the cluster, made on first use, and exports PGHOST, PGPORT, PGUSER, PGPASSWORD.
database_start() {
  local dir=$1 data user
  data=$(pg_dir "$dir") user=$(pg_user)
  mkdir -p "$dir/run"
  if [ ! -s "$dir/secrets" ]; then
    (umask 077; printf 'DB_PASSWORD=%s\nWATTAGE_SECRET=%s\n' "$(openssl rand -hex 16)" "$(openssl rand -hex 32)" >"$dir/secrets")
  fi
  . "$dir/secrets"
  if [ ! -s "$data/PG_VERSION" ]; then
    rm -rf "$data"; install -d -m 700 "$data"
    printf '%s' "$DB_PASSWORD" >"$data.pw"
    if [ "$(id -u)" = 0 ]; then chown "$user" "$data" "$data.pw"; fi
    chmod 600 "$data.pw"
    run_as "$user" "$PG_BIN/initdb" -D "$data" -U wattage -A scram-sha-256 --pwfile="$data.pw" -E UTF8 --locale=C.UTF-8 >"$dir/run/initdb.log" 2>&1 || { cat "$dir/run/initdb.log"; return 1; }
    rm -f "$data.pw"
    if [ -n "${PG_TEST_SPEED:-}" ]; then printf 'fsync = off\nsynchronous_commit = off\nfull_page_writes = off\n' | run_as "$user" tee -a "$data/postgresql.conf" >/dev/null; fi
  fi
  if ! run_as "$user" "$PG_BIN/pg_ctl" -D "$data" status >/dev/null 2>&1; then
    # The port it had, where it can: what still runs finds it again.
    PGPORT=$(cat "$dir/run/pg.port" 2>/dev/null || true)
    if [ -z "$PGPORT" ] || ! port_is_free "$PGPORT"; then PGPORT=$(free_port); fi
    run_as "$user" "$PG_BIN/pg_ctl" -D "$data" -w -s -l "$data/server.log" -o "-p $PGPORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c shared_buffers=128MB -c max_connections=60" start
    echo "$PGPORT" >"$dir/run/pg.port"
  fi
  PGHOST=127.0.0.1 PGPORT=$(cat "$dir/run/pg.port") PGUSER=wattage PGPASSWORD=$DB_PASSWORD
  export PGHOST PGPORT PGUSER PGPASSWORD
}

# database_restart_command DIR  What ends the database as a crash would, and starts it again.
database_restart_command() {
  local user; user=$(pg_user)
  [ "$(id -un)" = "$user" ] || printf 'runuser -u %s -- ' "$user"
  printf '%s -D %s -m immediate -w -s -l %s restart' "$PG_BIN/pg_ctl" "$(pg_dir "$1")" "$(pg_dir "$1")/server.log"
}

database_stop() {
  local data; data=$(pg_dir "$1")
  [ -s "$data/PG_VERSION" ] || return 0
  run_as "$(pg_user)" "$PG_BIN/pg_ctl" -D "$data" -m fast -s stop >/dev/null 2>&1 || true # it may not be running
}

# app_env DIR DATABASE  Exports what the application reads from its environment.
app_env() {
  local dir=$1 database=$2
  . "$dir/secrets"
  export APP_ENV="${APP_ENV:-prod}" APP_DEBUG=0 WATTAGE_SECRET WATTAGE_VAR="$dir" WATTAGE_STORAGE="$dir/storage" WATTAGE_LOG="$dir/log/app.log"
  export DATABASE_URL="postgresql://$PGUSER:$PGPASSWORD@$PGHOST:$PGPORT/$database?serverVersion=15&charset=utf8"
  export MAILER_DSN=postbox://here
}

php_cli=(php -d opcache.enable_cli=1 -d opcache.jit_buffer_size=64M -d opcache.jit=tracing -d opcache.file_update_protection=0 -d memory_limit=256M)

app_prepare() {
  local dir=$1 user; user=$(app_user "$1")
  mkdir -p "$dir/storage" "$dir/log" "$dir/cache" "$dir/run/nginx"
  rm -rf "$dir/cache/$APP_ENV"
  if [ "$(id -u)" = 0 ]; then chown -R "$user" "$dir/storage" "$dir/log" "$dir/cache"; fi
  run_as "$user" "${php_cli[@]}" "$ROOT/bin/console" cache:warmup -q
  run_as "$user" "${php_cli[@]}" "$ROOT/bin/console" doctrine:migrations:migrate -q -n --allow-no-migration
  run_as "$user" "${php_cli[@]}" "$ROOT/bin/console" wattage:upgrade
}

# What processes of the application read from their environment.
app_variables=(APP_ENV APP_DEBUG WATTAGE_SECRET WATTAGE_VAR WATTAGE_STORAGE WATTAGE_LOG DATABASE_URL MAILER_DSN WATTAGE_ADDRESS PATH)
# What they read only where somebody has set it.
app_choices=(WATTAGE_SENDFILE WATTAGE_STORE WATTAGE_SPOOL AWS_ACCESS_KEY_ID AWS_SECRET_ACCESS_KEY WATTAGE_TRUSTED_PROXIES WATTAGE_METRICS_TOKEN WATTAGE_JOBS_AT_ONCE
  WATTAGE_QUOTA_STORAGE_GB WATTAGE_QUOTA_SOUND_HOURS WATTAGE_QUOTA_RENDERS WATTAGE_QUOTA_SESSIONS WATTAGE_GRACE_DAYS)

fpm_config() {
  local dir=$1 user=$2 name
  printf '[global]\npid = %s\nerror_log = %s\ndaemonize = yes\n[app]\n' "$dir/run/fpm.pid" "$dir/log/fpm.log"
  "$ROOT/deploy/fill" "$ROOT/deploy/php-fpm/pool.conf.in" SOCKET="$dir/run/fpm.sock" CHILDREN=12 LOG="$dir/log/requests.log"
  if [ "$(id -u)" = 0 ]; then printf 'user = %s\ngroup = %s\nlisten.owner = %s\n' "$user" "$(id -gn "$user")" "$user"; fi
  for name in "${app_variables[@]}"; do printf 'env[%s] = "%s"\n' "$name" "${!name}"; done
  for name in "${app_choices[@]}"; do [ -z "${!name:-}" ] || printf 'env[%s] = "%s"\n' "$name" "${!name}"; done
}

nginx_config() {
  local dir=$1 port=$2 user=$3 conf=$dir/run/nginx
  "$ROOT/deploy/fill" "$ROOT/deploy/nginx/headers.conf.in" STORE_ORIGIN="${WATTAGE_STORE_ORIGIN:-}" >"$conf/headers.conf"
  "$ROOT/deploy/fill" "$ROOT/deploy/nginx/http.conf.in" >"$conf/http.conf"
  "$ROOT/deploy/fill" "$ROOT/deploy/nginx/server.conf.in" ROOT="$ROOT" CONF="$conf" SOCKET="$dir/run/fpm.sock" MEDIA="$dir/storage/media" >"$conf/server.conf"
  if [ "$(id -u)" = 0 ]; then echo "user $user $(id -gn "$user");"; fi
  cat <<EOF
worker_processes 2;
worker_rlimit_nofile 8192;
pid $dir/run/nginx.pid;
error_log $dir/log/nginx.log warn;
events { worker_connections 4096; }
http {
  include $conf/http.conf;
  access_log $dir/log/access.log wattage;
  client_body_temp_path $conf/body;
  fastcgi_temp_path $conf/fastcgi;
  proxy_temp_path $conf/proxy;
  server {
    listen 127.0.0.1:$port backlog=1024;
    include $conf/server.conf;
  }
}
EOF
}

web_start() {
  local dir=$1 port=$2 user; user=$(app_user "$1")
  export WATTAGE_ADDRESS="http://127.0.0.1:$port" WATTAGE_SENDFILE=/stored
  # A store with addresses of its own is asked by the browser.
  case "${WATTAGE_STORE:-}" in s3://*) WATTAGE_SENDFILE= ;; esac
  rm -f "$dir/run/fpm.conf"
  (umask 077; fpm_config "$dir" "$user" >"$dir/run/fpm.conf") # it holds secrets
  nginx_config "$dir" "$port" "$user" >"$dir/run/nginx.conf"
  local root_flag=()
  if [ "$(id -u)" = 0 ]; then root_flag=(-R); fi
  /usr/sbin/php-fpm8.2 "${root_flag[@]}" -y "$dir/run/fpm.conf" \
    -d opcache.enable=1 -d opcache.memory_consumption=192 -d opcache.jit_buffer_size=64M -d opcache.validate_timestamps=0 -d opcache.interned_strings_buffer=32 -d opcache.preload="$dir/cache/$APP_ENV/Wattage_App_KernelProdContainer.preload.php" -d opcache.preload_user="$user" -d opcache.file_update_protection=0 -d realpath_cache_size=4M -d realpath_cache_ttl=600 2>>"$dir/log/fpm.log"
  /usr/sbin/nginx -c "$dir/run/nginx.conf" -p "$dir/run" -e "$dir/log/nginx.log"
}

# worker_start DIR NUMBER [OPTION...]  A worker that ends, for whatever reason, is started again. Whoever waits for an answer goes before it.
worker_start() {
  local dir=$1 number=$2 user; user=$(app_user "$1")
  shift 2
  (
    trap - INT TERM EXIT
    exec setsid bash -c '
      trap "kill \$child 2>/dev/null; exit 0" TERM INT
      while :; do "$@" & child=$!; wait $child; sleep 0.3; done
    ' worker $([ "$(id -un)" = "$user" ] || echo runuser -u "$user" --) nice -n 10 "${php_cli[@]}" "$ROOT/bin/console" wattage:work "$@"
  ) >>"$dir/log/worker.log" 2>&1 &
  echo $! >"$dir/run/worker-$number.pid"
}

# signal SIGNAL PID_OR_-GROUP  What is gone already needs no signal.
signal() { kill "-$1" -- "$2" 2>/dev/null || true; }

# end PID_FILE  Asks a server to end, waits a second, insists.
end_server() {
  local pid; pid=$(cat "$1" 2>/dev/null || true)
  rm -f "$1"
  [ -n "$pid" ] || return 0
  signal QUIT "$pid"
  for _ in 1 2 3 4 5 6 7 8 9 10; do kill -0 "$pid" 2>/dev/null || return 0; sleep 0.1; done
  signal TERM "$pid"
}

stack_stop() {
  local dir=$1 file
  for file in "$dir"/run/worker-*.pid; do
    if [ -s "$file" ]; then signal TERM "-$(cat "$file")"; rm -f "$file"; fi
  done
  end_server "$dir/run/nginx.pid"
  end_server "$dir/run/fpm.pid"
  database_stop "$dir"
}

port_is_free() { php -r 'exit(@fsockopen("127.0.0.1", (int) $argv[1], $e, $m, 0.3) ? 1 : 0);' "$1"; }

wait_for() {
  local url=$1
  for _ in $(seq 1 100); do php -r 'exit(false === @file_get_contents($argv[1], false, stream_context_create(["http" => ["ignore_errors" => true, "timeout" => 2]])) ? 1 : 0);' "$url" && return; sleep 0.1; done
  echo "Nothing answers at $url. See the logs." >&2
  return 1
}
