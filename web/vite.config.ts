import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath, URL } from 'node:url'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { build, type Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Below this a file is not worth a second one beside it [bytes]. */
const SHORT = 400

/** What is text lies packed beside itself, so that the server packs nothing. */
function packed(): Plugin {
  let folder = ''
  return {
    name: 'packed',
    apply: 'build',
    configResolved: ({ root, build }) => void (folder = `${root}/${build.outDir}/assets`),
    closeBundle() {
      for (const name of readdirSync(folder).filter((one) => /\.(js|css|svg)$/.test(one))) {
        const text = readFileSync(`${folder}/${name}`)
        if (text.length < SHORT) continue
        const best = { params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY } }
        writeFileSync(`${folder}/${name}.br`, brotliCompressSync(text, best))
        writeFileSync(`${folder}/${name}.gz`, gzipSync(text, { level: 9 }))
      }
    },
  }
}

/** The worker that keeps the app on a device, told what there is to keep once that is built. */
function worker(): Plugin {
  let root = ''
  let out = ''
  const hash = (name: string) =>
    createHash('sha256')
      .update(readFileSync(`${out}/${name}`))
      .digest('hex')
      .slice(0, 16)
  return {
    name: 'worker',
    apply: 'build',
    configResolved: (config) => void ([root, out] = [config.root, `${config.root}/${config.build.outDir}`]),
    async closeBundle() {
      // Built files have their hash in their name; others are told apart by it.
      const built = readdirSync(`${out}/assets`)
        .filter((name) => !/\.(br|gz)$/.test(name))
        .map((name) => ({ url: `/assets/${name}`, revision: null }))
      const others = readdirSync(out, { withFileTypes: true })
        .filter((one) => one.isFile() && !['index.html', 'worker.js'].includes(one.name))
        .map(({ name }) => ({ url: `/${name}`, revision: hash(name) }))
      const list = [{ url: '/', revision: hash('index.html') }, ...others, ...built]
      await build({
        root,
        configFile: false,
        publicDir: false,
        logLevel: 'warn',
        define: { 'self.__WB_MANIFEST': JSON.stringify(list), 'process.env.NODE_ENV': '"production"' },
        build: {
          target: 'es2022',
          outDir: out,
          emptyOutDir: false,
          lib: {
            entry: 'src/offline/worker.ts',
            name: 'worker',
            formats: ['iife'],
            fileName: () => 'worker.js',
          },
        },
      })
    },
  }
}

export default defineConfig({
  plugins: [vue(), packed(), worker()],
  resolve: {
    alias: {
      '@': fileURLToPath(new URL('./src', import.meta.url)),
      '@locales': fileURLToPath(new URL('../locales', import.meta.url)),
    },
  },
  // What only a debugger or an older way of writing needs is left out.
  define: {
    __VUE_I18N_FULL_INSTALL__: false,
    __VUE_I18N_LEGACY_API__: false,
    __INTLIFY_PROD_DEVTOOLS__: false,
  },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        // Two scripts for the first page: what changes seldom, and our own.
        codeSplitting: {
          groups: [
            { name: 'library', test: /node_modules/, tags: ['$initial'] },
            { name: 'bench', test: /src|locales|plugin-vue|rolldown/, tags: ['$initial'] },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' }, fs: { allow: ['..'] } },
  test: { include: ['src/**/*.test.ts'] },
})
