/** Unit tests: the core and the programs in Node, the client as it runs on the web. */
const core = { '^@taxiarch/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts' };
const node = (name, folder) => ({
  displayName: name,
  testEnvironment: 'node',
  roots: [`<rootDir>/${folder}`],
  testMatch: ['**/*.test.ts'],
  transform: { '\\.tsx?$': '<rootDir>/jest.transform.cjs' },
  moduleNameMapper: core,
});

module.exports = {
  // As long as a busy machine needs.
  testTimeout: 60_000,
  globalSetup: '<rootDir>/jest.global.cjs',
  projects: [
    node('core', 'packages/core/src'),
    node('server', 'apps/server/src'),
    node('standins', 'apps/standins/src'),
    node('scripts', 'scripts'),
    {
      displayName: 'client',
      preset: 'jest-expo/web',
      rootDir: 'apps/client',
      setupFiles: ['<rootDir>/src/testing/browser.ts'],
      setupFilesAfterEnv: ['<rootDir>/src/testing/fresh.ts'],
      roots: ['<rootDir>/src'],
      testMatch: ['**/*.test.ts', '**/*.test.tsx'],
      moduleNameMapper: {
        '^@taxiarch/core/(.*)$': '<rootDir>/../../packages/core/src/$1/index.ts',
        '^@/(.*)$': '<rootDir>/src/$1',
        '^expo-router$': '<rootDir>/src/testing/router',
        '^lucide-react-native/icons/(.*)$': '<rootDir>/../../node_modules/lucide-react-native/dist/cjs/icons/$1.js',
      },
      transformIgnorePatterns: [
        'node_modules/(?!(react-native|react-native-.*|@react-native|@react-native/.*|expo|expo-.*|@expo/.*|nativewind|lucide-react-native|react-native-css-interop)/)',
      ],
    },
  ],
};
