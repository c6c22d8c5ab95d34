/** The tests of one folder, by themselves: `npm run mutate` names it. */
module.exports = {
  roots: [`<rootDir>/${process.env.MUTATED_FOLDER}`],
  testMatch: ['**/*.test.ts'],
  testTimeout: 60_000,
  testEnvironment: '@stryker-mutator/jest-runner/jest-env/node',
  transform: { '\\.tsx?$': '<rootDir>/jest.transform.cjs' },
  moduleNameMapper: { '^@taxiarch/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts' },
};
