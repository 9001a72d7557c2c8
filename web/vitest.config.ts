import { readFileSync } from "node:fs";
import process from "node:process";
import { defineConfig } from "vitest/config";

/** Drawings of the core's, to be compared with the screens', where a test has written them. */
const drawn = process.env.JOLLY_TRELLIS_DRAWN;

/** What has no screen is tested without one; the tests stand with all others. */
export default defineConfig({
  resolve: { alias: { vitest: new URL("./node_modules/vitest", import.meta.url).pathname } },
  server: { fs: { allow: [".."] } },
  test: {
    include: ["../tests/web/**/*.test.ts"],
    environment: "node",
    testTimeout: 240_000, // a busy machine is no failure
    provide: { drawn: drawn ? readFileSync(drawn, "utf8") : "" },
  },
});
