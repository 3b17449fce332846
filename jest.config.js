const expo = require('jest-expo/jest-preset');
const paths = { '^@/(.*)$': '<rootDir>/src/$1' };
// jest-expo resolves with the "react-native" export condition, which for the redux family means untranspiled ESM.
const esm = ['react-redux', '@reduxjs/toolkit', 'redux', 'redux-thunk', 'immer', 'reselect'];
const transformIgnorePatterns = expo.transformIgnorePatterns.map((p) => p.replace('(?!(', `(?!(${esm.join('|')}|`));
/** @type {import('jest').Config} */
module.exports = {
  testTimeout: 120_000,
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/server/**/*.test.ts'],
      transform: { '\\.ts$': '<rootDir>/scripts/jestTransform.cjs' },
      moduleNameMapper: paths,
    },
    {
      displayName: 'ui',
      preset: 'jest-expo',
      testMatch: ['<rootDir>/src/**/*.test.tsx'],
      moduleNameMapper: {
        ...paths,
        '^@react-native-async-storage/async-storage$': '@react-native-async-storage/async-storage/jest',
      },
      transformIgnorePatterns,
      setupFiles: ['<rootDir>/jest.setup.js'],
    },
  ],
};
