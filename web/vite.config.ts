import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

// The development server hands the API on to a running `fogon serve`.
export default defineConfig({
  plugins: [react(), tailwindcss()],
  // The server puts another word in its place for every page that it sends: only styles that carry it are taken.
  html: { cspNonce: "fogon-nonce" },
  server: { proxy: { "/api": { target: "http://127.0.0.1:4170", changeOrigin: true } } },
  build: { target: "es2022", chunkSizeWarningLimit: 600 },
});
