/** All charts as one piece of code that is fetched when the first is wanted: their library is a fifth of the app. */
export { default as EarlyLateChart } from '../feel/EarlyLateChart';
export { default as LoudnessReport } from '../carry/LoudnessReport';
