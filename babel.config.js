module.exports = function (api) {
  api.cache(true);
  // No gesture or animation runtime: pads and strips use pointer events, and the bundle is 200 KB smaller.
  return { presets: [['babel-preset-expo', { worklets: false, reanimated: false }]] };
};
