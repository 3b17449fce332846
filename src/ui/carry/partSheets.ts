// The sheets that play a part of a set apart from the song, and bring an engine of the page's own for that. They come as one piece: what two pieces
// share comes with the first load.
export { CarrySheet } from './CarrySheet';
export { IncomingSheet } from '../incoming/IncomingSheet';
