#!/bin/sh
# Takes the pictures of docs/screenshots from a fresh demo farm.
set -eu
cd "$(dirname "$0")"
folder=$(mktemp -d)
../target/release/zymarch demo --data "$folder/demo.sqlite" --port 0 --now 2026-03-14T08:00 >"$folder/said" &
server=$!
trap 'kill $server; rm -rf "$folder"' EXIT
while ! grep -q http "$folder/said"; do :; done
ZYMARCH_ADDRESS=$(sed 's/.* //' "$folder/said") npx --no-install playwright test --project=pictures
