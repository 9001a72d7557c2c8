import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** Where the application answers; it takes nothing that is asked of another address. */
const APPLICATION = "http://127.0.0.1:8420";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: "es2023", chunkSizeWarningLimit: 900 },
  server: {
    proxy: { "/api": { target: APPLICATION, changeOrigin: true, headers: { origin: APPLICATION } } },
  },
});
