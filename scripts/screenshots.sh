#!/usr/bin/env bash
# Renews docs/screenshots from the demo data.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/need.sh postgres=postgresql chromium=chromium
mkdir -p docs/screenshots
(cd e2e && npx playwright test -c screenshots.config.ts)
