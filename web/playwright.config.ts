import { defineConfig } from "@playwright/test";

// bin/test starts the application and says where in WATTAGE_URL.
const root = process.getuid?.() === 0;

export default defineConfig({
  testDir: "e2e",
  // A machine may be slow; what a test waits for it waits for by meaning, and these only end what hangs.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  // Side by side: each test has projects of its own, and goes by the clock of the sound. No more of them than processors, since some play in real time.
  workers: 2,
  reporter: "list",
  outputDir: "test-results",
  use: {
    baseURL: process.env.WATTAGE_URL ?? "http://127.0.0.1:8420",
    viewport: { width: 1280, height: 800 },
    bypassCSP: true,
    trace: "off",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        ...(root ? ["--no-sandbox"] : []),
        "--autoplay-policy=no-user-gesture-required",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
      ],
    },
  },
});
