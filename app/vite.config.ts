import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { pageFiles } from './pageFiles.ts';
import { thirdParty } from './thirdParty.ts';

export default defineConfig({
  plugins: [react(), tailwindcss(), thirdParty(), pageFiles()],
  build: {
    // A font as a data: address would be refused by the page's own policy.
    assetsInlineLimit: 0,
    target: 'es2022',
    manifest: true,
  },
  worker: { format: 'es' },
  // A port that is taken is said, not passed over for the next.
  server: { strictPort: true },
});
