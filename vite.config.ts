import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';
import about from './package.json' with { type: 'json' };

export default defineConfig({
    // where the development server runs as an account that may write nowhere else
    cacheDir: process.env.JADE_VAR === undefined ? undefined : `${process.env.JADE_VAR}/tmp/vite`,
    define: { 'import.meta.env.PRODUCT_VERSION': JSON.stringify(about.version) },
    plugins: [
        laravel({ input: ['resources/ui/main.ts', 'resources/reference/main.ts'], refresh: true }),
        tailwindcss(),
        svelte(),
    ],
});
