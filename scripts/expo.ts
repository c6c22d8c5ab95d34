/** How Expo's own tools are run here: without a network, and without telling anybody. */
export const expoEnvironment = (): NodeJS.ProcessEnv => ({
  ...process.env,
  EXPO_OFFLINE: '1',
  EXPO_NO_TELEMETRY: '1',
});
