import { defineConfig } from "vitest/config";

/** What has no screen is tested without one; the tests stand with all others. */
export default defineConfig({
  resolve: { alias: { vitest: new URL("./node_modules/vitest", import.meta.url).pathname } },
  server: { fs: { allow: [".."] } },
  test: { include: ["../tests/web/**/*.test.ts"], environment: "node" },
});
