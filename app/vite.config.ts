import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    // A font as a data: address would be refused by the page's own policy.
    assetsInlineLimit: 0,
    target: 'es2022',
    manifest: true,
  },
  worker: { format: 'es' },
});
