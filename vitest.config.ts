import { availableParallelism } from 'node:os'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  test: {
    // All cores: nothing else runs beside the tests.
    maxWorkers: availableParallelism(),
    projects: [
      {
        extends: true,
        test: {
          name: 'node',
          environment: 'node',
          include: [
            'core/**/*.test.ts',
            'engine/**/*.test.ts',
            'webcam/**/*.test.ts',
            'extension/**/*.test.ts',
            'server/**/*.test.ts',
            'demo/**/*.test.ts',
            'standins/**/*.test.ts',
            'tests/references/**/*.test.ts',
            'tests/documents/**/*.test.ts',
            'tests/scripts/**/*.test.ts',
            'tests/growth/**/*.test.ts',
            'tests/model/**/*.test.ts',
          ],
          // A test that asserts nothing, because a list came out empty or a call never came, fails.
          expect: { requireAssertions: true },
          testTimeout: 120_000,
          hookTimeout: 60_000,
        },
      },
      { extends: true, test: { name: 'app', environment: 'happy-dom', expect: { requireAssertions: true }, include: ['app/**/*.test.ts'] } },
    ],
  },
})
